'use client';

import { useState, useTransition } from 'react';
import { isLoad, type LaneKind, type LaneRole } from '@/core';
import type { ShownMachine } from '@/services';
import { Button } from '../parts/button';
import { RefusedNote } from '../parts/refused-note';

export interface TypedLane {
  readonly deviceId: string;
  readonly name: string;
  readonly kind: LaneKind;
  readonly target: string;
  readonly role: LaneRole;
  readonly everySeconds: string;
  readonly key: string;
}

const KINDS: readonly (readonly [LaneKind, string, string])[] = [
  ['echo', 'echo requests', '192.0.2.1'],
  ['stamp', 'STAMP (RFC 8762)', '192.0.2.1:862'],
  ['connect', 'the handshake of a port', '192.0.2.1:443'],
  ['web', 'the first byte of a web page', 'https://example.com'],
  ['load-in', 'the load into a port, or down the line', '192.0.2.1/3, or igd'],
  ['load-out', 'the load out of a port, or up the line', '192.0.2.1/3, or igd'],
];
const ROLES: readonly (readonly [LaneRole, string])[] = [
  ['outside', 'outside, on the internet'],
  ['far', 'behind the tunnel'],
  ['inside', 'in this network'],
  ['gateway', 'the gateway'],
];
const LOAD_ROLES: typeof ROLES = [
  ['line', 'the line to the provider'],
  ['inside', 'a port in this network'],
];
const rolesOf = (kind: LaneKind) => (isLoad(kind) ? LOAD_ROLES : ROLES);
/** How it is asked where nothing else is said. */
const usualOf = (kind: LaneKind) => ({
  role: rolesOf(kind)[0]![0],
  everySeconds: isLoad(kind) ? '15' : kind === 'web' ? '10' : '1',
});

/** STAMP, RFC 8762 §4.4. */
const KEY_HELP =
  'What the far end proves its packets with, the same on both sides. It is kept sealed and not shown again.';

interface LaneFormProps {
  readonly machines: readonly Pick<ShownMachine, 'deviceId' | 'name' | 'lanes'>[];
  readonly add: (lane: TypedLane) => Promise<string | null>;
  readonly end: (laneId: string) => Promise<string | null>;
  readonly onDone: () => void;
}

/** One more lane, and those that are to be asked no more. */
export function LaneForm({ machines, add, end, onDone }: LaneFormProps) {
  const [typed, setTyped] = useState<TypedLane>({
    ...{
      deviceId: machines[0]?.deviceId ?? '',
      name: '',
      kind: 'echo',
      target: '',
      role: 'outside',
      everySeconds: '1',
      key: '',
    },
  });
  const [refused, setRefused] = useState<string | null>(null);
  const [working, start] = useTransition();
  const set = (change: Partial<TypedLane>) => setTyped({ ...typed, ...change });
  const does = (act: () => Promise<string | null>, then?: () => void) =>
    start(async () => {
      const said = await act();
      setRefused(said);
      if (said !== null) return;
      then?.();
      onDone();
    });
  const asked = machines.flatMap(({ name, lanes }) =>
    lanes.filter((lane) => lane.asked).map((lane) => ({ ...lane, machine: name })),
  );
  const select = 'field !min-h-9 max-w-64 !py-0';
  return (
    <div aria-busy={working}>
      <form
        aria-label="New lane"
        className="flex flex-wrap items-end gap-x-4 gap-y-2"
        onSubmit={(event) => {
          event.preventDefault();
          does(
            () =>
              add({
                ...typed,
                key: typed.kind === 'stamp' ? typed.key : '',
                name: typed.name.trim() === '' ? typed.target : typed.name,
              }),
            () => set({ name: '', target: '', key: '' }),
          );
        }}
      >
        <label className="text-sm">
          <span className="block text-quiet">from</span>
          <select className={select} value={typed.deviceId} onChange={({ target }) => set({ deviceId: target.value })}>
            {machines.map(({ deviceId, name }) => (
              <option key={deviceId} value={deviceId}>
                {name}
              </option>
            ))}
          </select>
        </label>
        <label className="text-sm">
          <span className="block text-quiet">by</span>
          <select
            className={select}
            value={typed.kind}
            onChange={({ target }) => {
              const kind = target.value as LaneKind;
              set({ kind, ...(isLoad(kind) === isLoad(typed.kind) ? {} : usualOf(kind)) });
            }}
          >
            {KINDS.map(([kind, name]) => (
              <option key={kind} value={kind}>
                {name}
              </option>
            ))}
          </select>
        </label>
        <label className="text-sm">
          <span className="block text-quiet">to</span>
          <input
            className="field !min-h-9 w-64"
            value={typed.target}
            placeholder={KINDS.find(([kind]) => kind === typed.kind)?.[2]}
            onChange={({ target }) => set({ target: target.value })}
            autoComplete="off"
            spellCheck={false}
          />
        </label>
        {typed.kind === 'stamp' && (
          <label className="text-sm" title={KEY_HELP}>
            <span className="block text-quiet">its key, if it wants one</span>
            <input
              className="field !min-h-9 w-44"
              type="password"
              value={typed.key}
              placeholder="text, or 0x and digits"
              onChange={({ target }) => set({ key: target.value })}
              autoComplete="off"
            />
          </label>
        )}
        <label className="text-sm">
          <span className="block text-quiet">which is</span>
          <select
            className={select}
            value={typed.role}
            onChange={({ target }) => set({ role: target.value as LaneRole })}
          >
            {rolesOf(typed.kind).map(([role, name]) => (
              <option key={role} value={role}>
                {name}
              </option>
            ))}
          </select>
        </label>
        <label className="text-sm">
          <span className="block text-quiet">called</span>
          <input
            className="field !min-h-9 w-44"
            value={typed.name}
            onChange={({ target }) => set({ name: target.value })}
            autoComplete="off"
          />
        </label>
        <label className="text-sm">
          <span className="block text-quiet">every, s</span>
          <input
            className="field figure !min-h-9 w-16 text-right"
            inputMode="decimal"
            value={typed.everySeconds}
            onChange={({ target }) => set({ everySeconds: target.value })}
          />
        </label>
        <Button type="submit" disabled={working}>
          Add the lane
        </Button>
        <RefusedNote refused={refused} />
      </form>
      <ul className="mt-3 text-sm">
        {asked.map(({ id, name, target, machine }) => (
          <li key={id} className="flex flex-wrap items-baseline gap-x-3 border-t border-hairline py-1">
            <span className="min-w-0 break-words">
              {name}{' '}
              <span className="text-quiet">
                ({target}) from {machine}
              </span>
            </span>
            <Button look="quiet" className="!min-h-7 text-sm" disabled={working} onClick={() => does(() => end(id))}>
              end it
            </Button>
          </li>
        ))}
      </ul>
    </div>
  );
}
