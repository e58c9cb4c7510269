import { Popover } from 'radix-ui';
import type { ReactNode } from 'react';

/** What is told of a figure, open beside its mark. */
export function Beside({
  label,
  mark,
  className,
  children,
}: {
  /** What the mark is called, where it is no word itself. */
  label: string | undefined;
  mark: ReactNode;
  className: string;
  children: ReactNode;
}) {
  return (
    <Popover.Root defaultOpen>
      <Popover.Trigger aria-label={label} className={className}>
        {mark}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          side="left"
          align="start"
          sideOffset={12}
          collisionPadding={12}
          className="z-20 w-[min(26rem,calc(100vw-1.5rem))] border border-rule-strong bg-paper p-4"
        >
          {children}
          <Popover.Arrow className="fill-rule-strong" />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
