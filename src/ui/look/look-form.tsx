'use client';

import { useState, useTransition } from 'react';
import type { LookKind } from '@/core';
import type { LookingMachine } from '@/services';
import { Button } from '../parts/button';
import { RefusedNote } from '../parts/refused-note';
import { LookFields, type TypedLook } from './look-fields';

export const LOOK_NAMES: readonly (readonly [LookKind, string])[] = [
  ['path', 'a path'],
  ['names', 'resolvers'],
  ['share', 'a share'],
  ['echo', 'the delay to a host'],
  ['programs', 'its programs'],
  ['air', 'the air'],
  ['ports', 'ports of a switch or router'],
  ['line', 'the line’s own counters'],
  ['outside', 'this office from outside'],
];

interface LookFormProps {
  readonly machines: readonly LookingMachine[];
  readonly begin: { readonly what: LookKind; readonly target: string };
  readonly names: string;
  /** What stands in the way; null: it is asked for. */
  readonly ask: (deviceId: string, what: LookKind, typed: TypedLook) => Promise<string | null>;
}

/** Asks a machine to look at something. */
export function LookForm({ machines, begin, names, ask }: LookFormProps) {
  const [deviceId, setDevice] = useState((machines.find(({ present }) => present) ?? machines[0])?.deviceId ?? '');
  const [what, setWhat] = useState<LookKind>(begin.what);
  const [typed, setTyped] = useState<TypedLook>({
    ...{
      folder: '/mnt/store',
      megabytes: '512',
      streams: '1',
      target: begin.target,
      resolvers: '',
      names,
      ports: '',
      loaded: false,
    },
    ...{ community: '', user: '', authKey: '', privKey: '' },
  });
  const [refused, setRefused] = useState<string | null>(null);
  const [working, start] = useTransition();
  const machine = machines.find((each) => each.deviceId === deviceId);
  return (
    <form
      aria-label="Look from a machine"
      aria-busy={working}
      onSubmit={(event) => {
        event.preventDefault();
        start(async () => {
          const said = await ask(deviceId, what, typed);
          setRefused(said);
          // What is secret is kept by the console from now on, and stands nowhere on the page.
          if (said === null) setTyped((before) => ({ ...before, community: '', authKey: '', privKey: '' }));
        });
      }}
    >
      <div className="flex flex-wrap items-end gap-x-5 gap-y-3">
        <label className="text-sm">
          <span className="block text-quiet">from</span>
          <select
            aria-label="from which machine"
            className="field !min-h-9 max-w-72 !py-0"
            value={deviceId}
            onChange={({ target }) => setDevice(target.value)}
          >
            {machines.map(({ deviceId: id, name, present }) => (
              <option key={id} value={id}>
                {present ? name : `${name}, silent`}
              </option>
            ))}
          </select>
        </label>
        <fieldset className="flex flex-wrap gap-x-4 gap-y-1">
          <legend className="text-sm text-quiet">look at</legend>
          {LOOK_NAMES.map(([kind, name]) => (
            <label key={kind} className="flex min-h-9 items-center gap-1.5">
              <input
                type="radio"
                name="what"
                value={kind}
                checked={what === kind}
                onChange={() => setWhat(kind)}
                className="size-4 accent-ink"
              />
              {name}
            </label>
          ))}
        </fieldset>
      </div>
      <div className="mt-3 flex flex-wrap items-end gap-x-5 gap-y-3">
        <LookFields
          {...{ what, typed }}
          type={(name, value) => setTyped({ ...typed, [name]: value })}
          typeLoaded={(loaded) => setTyped({ ...typed, loaded })}
        />
      </div>
      <div className="mt-3 flex items-center gap-4">
        <Button type="submit" look="main" disabled={working || machine === undefined}>
          Look
        </Button>
        <RefusedNote refused={refused} />
      </div>
    </form>
  );
}
