'use client';

import { DropdownMenu as Primitive } from 'radix-ui';
import type { ReactNode } from 'react';

const ITEM = 'block cursor-pointer px-4 py-1.5 outline-none data-[highlighted]:bg-paper';

interface MenuProps {
  /** One element that takes a press. */
  readonly trigger: ReactNode;
  readonly children: ReactNode;
}

/** A list to choose from, hung below what was pressed. */
export function Menu({ trigger, children }: MenuProps) {
  return (
    <Primitive.Root>
      <Primitive.Trigger asChild>{trigger}</Primitive.Trigger>
      <Primitive.Portal>
        <Primitive.Content
          align="start"
          sideOffset={8}
          className="z-20 max-w-[26rem] border border-ink bg-sheet py-2 text-ink shadow-[3px_3px_0_var(--hairline)]"
        >
          {children}
        </Primitive.Content>
      </Primitive.Portal>
    </Primitive.Root>
  );
}

export function MenuItem({ onChoose, children }: { readonly onChoose: () => void; readonly children: ReactNode }) {
  return (
    <Primitive.Item className={ITEM} onSelect={onChoose}>
      {children}
    </Primitive.Item>
  );
}

/** An item that is itself an element, such as a link. */
export function MenuItemAs({ children }: { readonly children: ReactNode }) {
  return (
    <Primitive.Item asChild className={ITEM}>
      {children}
    </Primitive.Item>
  );
}

export function MenuRule() {
  return <Primitive.Separator className="my-1 border-t border-hairline" />;
}
