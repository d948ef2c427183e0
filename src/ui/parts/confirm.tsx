'use client';

import { AlertDialog as Primitive } from 'radix-ui';
import type { ReactNode } from 'react';
import { Button } from './button';

interface ConfirmProps {
  readonly trigger: ReactNode;
  readonly title: string;
  readonly consequence: string;
  readonly action: string;
  /** What leaves all as it is. */
  readonly keep?: string;
  readonly onConfirm: () => void;
}

/** Asks before something is removed or opened to others, saying what stays and what goes. */
export function Confirm({ trigger, title, consequence, action, keep = 'Keep it', onConfirm }: ConfirmProps) {
  return (
    <Primitive.Root>
      <Primitive.Trigger asChild>{trigger}</Primitive.Trigger>
      <Primitive.Portal>
        <Primitive.Overlay className="fixed inset-0 z-30 bg-ink/40" />
        <Primitive.Content className="fixed left-1/2 top-1/3 z-40 w-[min(28rem,92vw)] -translate-x-1/2 -translate-y-1/3 border border-ink bg-sheet p-6 text-ink">
          <Primitive.Title className="text-lg font-semibold">{title}</Primitive.Title>
          <Primitive.Description className="mt-2 text-quiet">{consequence}</Primitive.Description>
          <div className="mt-5 flex justify-end gap-3">
            <Primitive.Cancel asChild>
              <Button>{keep}</Button>
            </Primitive.Cancel>
            <Primitive.Action asChild onClick={onConfirm}>
              <Button look="main">{action}</Button>
            </Primitive.Action>
          </div>
        </Primitive.Content>
      </Primitive.Portal>
    </Primitive.Root>
  );
}
