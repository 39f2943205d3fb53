/** One of a list, chosen where it stands. */
import { Check, ChevronDown } from 'lucide-react';
import { Select as Radix } from 'radix-ui';
import { getNonce } from 'get-nonce';
import { useRef, useState } from 'react';

/** What a list item stands for in the document may be an empty text, which the list keeps for nothing chosen. */
const keyOf = (value: string): string => `=${value}`;

export interface Option<T extends string> {
  readonly value: T;
  readonly label: string;
}

interface SelectProps<T extends string> {
  /** What is chosen here, for who does not see it beside. */
  readonly label: string;
  readonly value: T;
  readonly options: readonly Option<T>[];
  readonly onChoose: (value: T) => void;
  readonly className?: string;
  readonly title?: string;
}

export function Select<T extends string>({ label, value, options, onChoose, className = '', title }: SelectProps<T>) {
  // Who opened it by a key goes on from here by keys; after the pen or the mouse, keys are the picture's again.
  const byKey = useRef(false);
  // A closed list is its button alone: by itself the library keeps each choice mounted out of sight, three layouts of a column full of lists.
  const [isOpen, setOpen] = useState(false);
  return (
    <Radix.Root
      open={isOpen}
      onOpenChange={setOpen}
      value={keyOf(value)}
      onValueChange={(key) => {
        const chosen = options.find((option) => keyOf(option.value) === key);
        if (chosen && chosen.value !== value) onChoose(chosen.value);
      }}
    >
      <Radix.Trigger
        aria-label={label}
        data-tip={title}
        data-value={value}
        onKeyDown={() => {
          byKey.current = true;
        }}
        onPointerDown={() => {
          byKey.current = false;
        }}
        className={`moves flex items-center justify-between gap-1 overflow-hidden text-left text-wax-100 ${className}`}
      >
        <span className="min-w-0 truncate">
          <Radix.Value>{options.find((option) => option.value === value)?.label ?? options[0]?.label}</Radix.Value>
        </span>
        <ChevronDown size={13} className="shrink-0 text-wax-500" />
      </Radix.Trigger>
      {isOpen && (
        <Radix.Portal>
          <Radix.Content
            position="popper"
            sideOffset={4}
            collisionPadding={8}
            onCloseAutoFocus={(event) => {
              if (!byKey.current) event.preventDefault();
            }}
            className="z-60 max-h-[var(--radix-select-content-available-height)] min-w-[var(--radix-select-trigger-width)] overflow-hidden rounded-[10px] border border-soot-700 bg-soot-800 p-1.5 text-[13px] shadow-2xl"
          >
            <Radix.Viewport nonce={getNonce()}>
              {options.map((option) => (
                <Radix.Item
                  key={option.value}
                  value={keyOf(option.value)}
                  data-value={option.value}
                  className="flex h-8 cursor-pointer items-center gap-2 rounded-md px-2 pr-3 outline-none data-[highlighted]:bg-soot-700 data-[state=checked]:text-flame"
                >
                  <span className="w-3.5 shrink-0">
                    <Radix.ItemIndicator>
                      <Check size={13} />
                    </Radix.ItemIndicator>
                  </span>
                  <Radix.ItemText>{option.label}</Radix.ItemText>
                </Radix.Item>
              ))}
            </Radix.Viewport>
          </Radix.Content>
        </Radix.Portal>
      )}
    </Radix.Root>
  );
}
