'use client';

import { useRouter } from 'next/navigation';
import { useRef, useState, type KeyboardEvent, type MouseEvent, type ReactNode } from 'react';
import type { Reach } from '@/core';
import type { BoardRow } from '@/services';
import type { QueueRound } from './round-form';

/** Each cell of the matrix holds one element with these. */
export interface CellMark {
  readonly 'data-row': number;
  readonly 'data-column': number;
  readonly tabIndex: 0 | -1;
}

const STEPS: Readonly<Record<string, readonly [number, number]>> = {
  ArrowUp: [-1, 0],
  ArrowDown: [1, 0],
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
  Home: [0, -Infinity],
  End: [0, Infinity],
};

interface BoardKeysProps {
  /** Whether all columns fit on a desk's screen. */
  readonly fits: boolean;
  readonly queue: QueueRound;
  readonly deviceOf: (row: number) => Pick<BoardRow, 'deviceId' | 'deviceName' | 'standsBy'>;
  readonly reachOf: (column: number) => Reach;
  readonly children: ReactNode;
}

/**
 * One stop for the Tab key in the whole matrix; arrows go from cell to cell, Enter opens, R runs on the device of the
 * cell as far as its column reaches.
 */
export function BoardKeys({ fits, queue, deviceOf, reachOf, children }: BoardKeysProps) {
  const router = useRouter();
  const box = useRef<HTMLDivElement>(null);
  const [said, setSaid] = useState('');
  const cellAt = (row: number, column: number) =>
    box.current?.querySelector<HTMLElement>(`[data-row="${row}"][data-column="${column}"]`) ?? null;
  const focus = (cell: HTMLElement) => {
    for (const other of box.current?.querySelectorAll<HTMLElement>('[data-row][tabindex="0"]') ?? [])
      other.tabIndex = -1;
    cell.tabIndex = 0;
    cell.focus();
  };

  const run = async (cell: HTMLElement) => {
    const { deviceId, deviceName, standsBy } = deviceOf(Number(cell.dataset.row));
    const reach = reachOf(Number(cell.dataset.column));
    if (!standsBy) return setSaid(`${deviceName} is not standing by. Open the address on it first.`);
    if (reach === 'between') return setSaid('Between machines the other end is chosen: see the page of agents.');
    const once = { times: 1, profile: 'standard', together: false } as const;
    const refused = await queue({ deviceIds: [deviceId], reaches: [reach], ...once });
    setSaid(refused ?? `${deviceName} was asked to measure, ${reach}.`);
  };

  /** Cells are plain links; a plain press on one goes the short way. */
  const onClick = (event: MouseEvent<HTMLElement>) => {
    const link = event.target instanceof Element ? event.target.closest<HTMLAnchorElement>('a[data-row]') : null;
    if (link === null || event.button !== 0 || event.ctrlKey || event.metaKey || event.shiftKey || event.altKey) return;
    event.preventDefault();
    router.push(link.getAttribute('href')!);
  };

  const onKeyDown = (event: KeyboardEvent<HTMLElement>) => {
    const from = event.target instanceof HTMLElement ? event.target.closest<HTMLElement>('[data-row]') : null;
    if (from === null || event.ctrlKey || event.metaKey || event.altKey) return;
    if (event.key === 'r' || event.key === 'R') {
      event.preventDefault();
      void run(from);
      return;
    }
    const step = STEPS[event.key];
    if (step === undefined) return;
    event.preventDefault();
    const [row, column] = [Number(from.dataset.row), Number(from.dataset.column)];
    const last = (box.current?.querySelectorAll(`[data-row="${row}"]`).length ?? 1) - 1;
    const next = cellAt(row + step[0], Math.min(last, Math.max(0, column + step[1])));
    if (next !== null) focus(next);
  };

  return (
    <div
      ref={box}
      onKeyDown={onKeyDown}
      onClick={onClick}
      className={fits ? 'max-lg:overflow-x-auto' : 'overflow-x-auto'}
    >
      {children}
      <p role="status" className={said === '' ? 'sr-only' : 'mt-2 text-sm text-quiet'}>
        {said}
      </p>
    </div>
  );
}
