/** A dialog over the page. */
import { Dialog as Radix } from 'radix-ui';
import { X } from 'lucide-react';
import type { ReactNode } from 'react';

interface DialogProps {
  title: string;
  open: boolean;
  onOpenChange: (open: boolean) => void;
  children: ReactNode;
  wide?: boolean;
}

export function Dialog({ title, open, onOpenChange, children, wide = false }: DialogProps) {
  return (
    <Radix.Root open={open} onOpenChange={onOpenChange}>
      <Radix.Portal>
        <Radix.Overlay className="fixed inset-0 z-40 bg-black/55" />
        <Radix.Content
          aria-describedby={undefined}
          className={`fixed left-1/2 top-1/2 z-50 max-h-[92vh] w-[min(94vw,var(--wide))] -translate-x-1/2 -translate-y-1/2 overflow-y-auto rounded-[10px] border border-soot-700 bg-soot-900 p-6 shadow-2xl`}
          style={{ '--wide': wide ? '1080px' : '520px' } as React.CSSProperties}
        >
          <div className="mb-5 flex items-center justify-between">
            <Radix.Title className="font-name text-xl">{title}</Radix.Title>
            <Radix.Close
              aria-label="Close"
              className="moves -mr-2 grid size-8 place-items-center rounded-lg text-wax-500 hover:bg-soot-800 hover:text-wax-100"
            >
              <X size={18} />
            </Radix.Close>
          </div>
          {children}
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}
