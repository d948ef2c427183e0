'use client';

import { Popover as Primitive } from 'radix-ui';
import { useRef, type ReactNode } from 'react';

interface SlipProps {
  readonly label: string;
  readonly children: ReactNode;
  readonly on?: Pick<Primitive.PopoverContentProps, 'onCloseAutoFocus' | 'onInteractOutside'>;
}

function Slip({ label, children, on = {} }: SlipProps) {
  return (
    <Primitive.Portal>
      <Primitive.Content
        aria-label={label}
        sideOffset={6}
        collisionPadding={12}
        {...on}
        className="z-20 max-w-[22rem] border border-ink bg-sheet p-4 text-ink shadow-[3px_3px_0_var(--hairline)]"
      >
        {children}
        <Primitive.Close
          className="absolute right-1 top-1 grid size-8 place-items-center text-quiet hover:text-ink"
          aria-label="Close"
        >
          ×
        </Primitive.Close>
      </Primitive.Content>
    </Primitive.Portal>
  );
}

interface PopoverProps {
  readonly trigger: ReactNode;
  readonly label: string;
  readonly children: ReactNode;
}

/** A slip of paper that opens beside what was pressed. `trigger` must be one element that takes a press. */
export function Popover({ trigger, label, children }: PopoverProps) {
  return (
    <Primitive.Root>
      <Primitive.Trigger asChild>{trigger}</Primitive.Trigger>
      <Slip label={label}>{children}</Slip>
    </Primitive.Root>
  );
}

interface PopoverAtProps {
  /** What was pressed; it has the focus again when the slip is closed, unless something else was pressed. */
  readonly pressed: HTMLElement;
  /** Selects the other places that open it: pressing one of those moves it there. */
  readonly places: string;
  readonly label: string;
  readonly onClose: () => void;
  readonly children: ReactNode;
}

/** One slip for many places: open for as long as it is there, beside the place that was pressed. */
export function PopoverAt({ pressed, places, label, onClose, children }: PopoverAtProps) {
  const leftForAnother = useRef(false);
  return (
    <Primitive.Root open onOpenChange={(open) => !open && onClose()}>
      <Primitive.Anchor virtualRef={{ current: pressed }} />
      <Slip
        label={label}
        on={{
          onInteractOutside: (event) => {
            if (event.target instanceof Element && event.target.closest(places) !== null) event.preventDefault();
            else leftForAnother.current = true;
          },
          onCloseAutoFocus: (event) => {
            event.preventDefault();
            if (!leftForAnother.current) pressed.focus();
          },
        }}
      >
        {children}
      </Slip>
    </Primitive.Root>
  );
}
