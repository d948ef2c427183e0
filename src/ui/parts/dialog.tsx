'use client';

import { Dialog as Primitive } from 'radix-ui';
import type { ReactNode } from 'react';

interface DialogProps {
  /** One element that takes a press. */
  readonly trigger: ReactNode;
  readonly title: string;
  /** Whether the title is for screen readers alone. */
  readonly quietTitle?: boolean;
  readonly open: boolean;
  readonly onOpen: (open: boolean) => void;
  /** Width and padding. */
  readonly className: string;
  readonly children: ReactNode;
}

/** A sheet over the page, for one thing to be done or read; Escape and a press beside it close it. */
export function Dialog({ trigger, title, quietTitle = false, open, onOpen, className, children }: DialogProps) {
  return (
    <Primitive.Root open={open} onOpenChange={onOpen}>
      <Primitive.Trigger asChild>{trigger}</Primitive.Trigger>
      <Primitive.Portal>
        <Primitive.Overlay className="fixed inset-0 z-30 bg-ink/40" />
        <Primitive.Content
          aria-describedby={undefined}
          className={`fixed left-1/2 top-[12vh] z-40 max-h-[76vh] -translate-x-1/2 overflow-y-auto border border-ink bg-sheet text-ink ${className}`}
        >
          <Primitive.Title className={quietTitle ? 'sr-only' : 'text-lg font-semibold'}>{title}</Primitive.Title>
          {children}
        </Primitive.Content>
      </Primitive.Portal>
    </Primitive.Root>
  );
}

export const DialogClose = Primitive.Close;
