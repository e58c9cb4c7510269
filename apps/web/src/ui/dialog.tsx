import { Dialog as Radix } from 'radix-ui';
import { X } from 'lucide-react';
import type { ReactNode } from 'react';

interface Props {
  open: boolean;
  onClose: () => void;
  title: string;
  description?: string;
  /** When closing needs an answer, there is no way out but the buttons inside. */
  mustAnswer?: boolean;
  children: ReactNode;
}

export function Dialog({ open, onClose, title, description, mustAnswer, children }: Props) {
  const stay = (event: Event): void => {
    if (mustAnswer) event.preventDefault();
  };
  return (
    <Radix.Root open={open} onOpenChange={(next) => !next && !mustAnswer && onClose()}>
      <Radix.Portal>
        <Radix.Overlay className="fixed inset-0 z-20 bg-black/40" />
        <Radix.Content
          onEscapeKeyDown={stay}
          onPointerDownOutside={stay}
          {...(description ? {} : { 'aria-describedby': undefined })}
          className="fixed top-[8vh] left-1/2 z-30 max-h-[84vh] w-[min(34rem,calc(100vw-2rem))] -translate-x-1/2 overflow-y-auto border border-rule-strong bg-paper p-5"
        >
          <div className="mb-3 flex items-start justify-between gap-4">
            <Radix.Title className="text-lg font-semibold">{title}</Radix.Title>
            {!mustAnswer && (
              <Radix.Close
                aria-label="Close"
                className="-m-2 p-2 text-quiet hover:text-ink pointer-coarse:p-3"
              >
                <X size={18} aria-hidden />
              </Radix.Close>
            )}
          </div>
          {description && (
            <Radix.Description className="mb-4 text-quiet">{description}</Radix.Description>
          )}
          {children}
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}
