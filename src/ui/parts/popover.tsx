'use client';

import { Popover as Primitive } from 'radix-ui';
import type { ReactNode } from 'react';

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
      <Primitive.Portal>
        <Primitive.Content
          aria-label={label}
          sideOffset={6}
          collisionPadding={12}
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
    </Primitive.Root>
  );
}
