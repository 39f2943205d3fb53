/** A name in little room: where it is cut off, the whole of it is seen under mouse and pen, and when it has the focus. */
import { Tooltip } from 'radix-ui';
import { useRef, useState, type ReactElement } from 'react';

const DELAY_MS = 350;

/** Whether anything within shows less than all of its text. */
const isCut = (element: Element): boolean =>
  [element, ...element.querySelectorAll('.truncate')].some(({ scrollWidth, clientWidth }) => scrollWidth > clientWidth);

/**
 * @param always whether the name is not to be read there at all. @param children one element that takes the focus; what of it
 * may be cut off is marked as truncated.
 */
export function WholeName({
  name,
  always = false,
  children,
}: {
  name: string;
  always?: boolean;
  children: ReactElement;
}) {
  const [open, setOpen] = useState(false);
  const host = useRef<HTMLButtonElement>(null);
  return (
    <Tooltip.Provider delayDuration={DELAY_MS}>
      <Tooltip.Root
        open={open}
        onOpenChange={(next) => {
          setOpen(next && host.current !== null && (always || isCut(host.current)));
        }}
      >
        <Tooltip.Trigger asChild ref={host}>
          {children}
        </Tooltip.Trigger>
        <Tooltip.Portal>
          <Tooltip.Content
            side="top"
            align="start"
            sideOffset={2}
            collisionPadding={8}
            className="z-40 max-w-72 rounded-md border border-soot-700 bg-soot-800 px-2 py-1 text-[13px] text-wax-100 shadow-xl"
          >
            {name}
          </Tooltip.Content>
        </Tooltip.Portal>
      </Tooltip.Root>
    </Tooltip.Provider>
  );
}
