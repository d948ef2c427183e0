'use client';

import { useState, useTransition } from 'react';
import { isLoad, isRadioLane, type LaneKind, type LaneRole } from '@/core';
import type { ShownMachine, WatchedSpan } from '@/services';
import { Button } from '../parts/button';
import { RefusedNote } from '../parts/refused-note';
import { targetWords } from './lane-label';

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
  ['signal', 'the signal of its own radio', 'wlan0'],
  ['link-rate', 'the rate of its own radio', 'wlan0'],
  ['retries', 'what its own radio sends again', 'wlan0'],
];
/** How each kind of machine can be asked; a page asks peers and nothing else. */
const PAGE_KIND: (typeof KINDS)[number] = ['probe', 'its page', ''];

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
const RADIO_ROLES: typeof ROLES = [['inside', 'its own']];
const rolesOf = (kind: LaneKind) => (isLoad(kind) ? LOAD_ROLES : isRadioLane(kind) ? RADIO_ROLES : ROLES);
/** How it is asked where nothing else is said. */
const usualOf = (kind: LaneKind) => ({
  role: rolesOf(kind)[0]![0],
  everySeconds: isLoad(kind) ? '15' : kind === 'web' ? '10' : isRadioLane(kind) ? '5' : '1',
});

/** STAMP, RFC 8762 §4.4. */
const KEY_HELP =
  'What the far end proves its packets with, the same on both sides. It is kept sealed and not shown again.';

interface LaneFormProps {
  readonly machines: readonly Pick<ShownMachine, 'deviceId' | 'name' | 'isAgent' | 'lanes'>[];
  readonly standing: WatchedSpan['standing'];
  readonly peers: WatchedSpan['peers'];
  readonly add: (lane: TypedLane) => Promise<string | null>;
  readonly end: (laneId: string) => Promise<string | null>;
  readonly onDone: () => void;
}

/** Agents, and devices whose page stands by or keeps lanes already. */
function keepersOf(machines: LaneFormProps['machines'], standing: LaneFormProps['standing']) {
  const kept = machines.filter(({ isAgent, lanes }) => isAgent || lanes.length > 0);
  return [...kept, ...standing.filter(({ deviceId }) => !kept.some((each) => each.deviceId === deviceId))];
}

/** One more lane, and those that are to be asked no more. */
export function LaneForm({ machines, standing, peers, add, end, onDone }: LaneFormProps) {
  const keepers = keepersOf(machines, standing);
  const [typed, setTyped] = useState<TypedLane>({
    ...{
      deviceId: keepers[0]?.deviceId ?? '',
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
  // One that has gone meanwhile is asked no more.
  const keeper = keepers.find(({ deviceId }) => deviceId === typed.deviceId) ?? keepers[0];
  const isPage = keeper?.isAgent === false;
  const kinds = isPage ? [PAGE_KIND] : KINDS;
  const kind = isPage ? 'probe' : typed.kind;
  const peer = peers.find(({ id }) => id === typed.target) ?? peers[0];
  const wanted = (): TypedLane => {
    const target = isPage ? (peer?.id ?? '') : typed.target;
    const called = isPage ? (peer?.name ?? '') : typed.target;
    return {
      ...{ ...typed, deviceId: keeper?.deviceId ?? '', kind, target },
      key: kind === 'stamp' ? typed.key : '',
      // What stands at the end of it the peer says.
      role: isPage ? 'inside' : typed.role,
      name: typed.name.trim() === '' ? called : typed.name,
    };
  };
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
            () => add(wanted()),
            () => set({ name: '', target: '', key: '' }),
          );
        }}
      >
        <label className="text-sm">
          <span className="block text-quiet">from</span>
          <select
            className={select}
            value={keeper?.deviceId ?? ''}
            onChange={({ target }) => set({ deviceId: target.value, target: '' })}
          >
            {keepers.map(({ deviceId, name }) => (
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
            value={kind}
            onChange={({ target }) => {
              const chosen = target.value as LaneKind;
              set({ kind: chosen, ...(rolesOf(chosen) === rolesOf(typed.kind) ? {} : usualOf(chosen)) });
            }}
          >
            {kinds.map(([each, name]) => (
              <option key={each} value={each}>
                {name}
              </option>
            ))}
          </select>
        </label>
        <label className="text-sm">
          <span className="block text-quiet">to</span>
          {isPage ? (
            <select className={select} value={peer?.id ?? ''} onChange={({ target }) => set({ target: target.value })}>
              {peers.map(({ id, name }) => (
                <option key={id} value={id}>
                  {name}
                </option>
              ))}
            </select>
          ) : (
            <input
              className="field !min-h-9 w-64"
              value={typed.target}
              placeholder={KINDS.find(([each]) => each === kind)?.[2]}
              onChange={({ target }) => set({ target: target.value })}
              autoComplete="off"
              spellCheck={false}
            />
          )}
        </label>
        {kind === 'stamp' && (
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
        {!isPage && (
          <label className="text-sm">
            <span className="block text-quiet">which is</span>
            <select
              className={select}
              value={typed.role}
              onChange={({ target }) => set({ role: target.value as LaneRole })}
            >
              {rolesOf(kind).map(([role, name]) => (
                <option key={role} value={role}>
                  {name}
                </option>
              ))}
            </select>
          </label>
        )}
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
        {asked.map(({ id, name, kind: by, target, machine }) => (
          <li key={id} className="flex flex-wrap items-baseline gap-x-3 border-t border-hairline py-1">
            <span className="min-w-0 break-words">
              {name}{' '}
              <span className="text-quiet">
                ({targetWords({ kind: by, target })}) {by === 'probe' ? 'of' : 'from'} {machine}
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
