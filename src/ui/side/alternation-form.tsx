'use client';

import { useState } from 'react';
import { PEER_REACHES, type Reach } from '@/core';
import { ActionForm, ChoiceField, TextField } from '../form/action-form';
import type { FormAction } from '../form/form-state';

interface AlternationFormProps {
  readonly devices: readonly { readonly id: string; readonly name: string; readonly standsBy: boolean }[];
  readonly peers: readonly { readonly id: string; readonly name: string; readonly reach: Reach }[];
  readonly start: FormAction;
}

const KINDS = [
  ['devices', 'two devices'],
  ['peers', 'one device, two far ends'],
  ['by-hand', 'one device, and something that is changed by hand'],
] as const;

/** Far ends that have another one as far away as they are. */
function comparable(peers: AlternationFormProps['peers']): AlternationFormProps['peers'] {
  return peers.filter(({ id, reach }) => peers.some((other) => other.id !== id && other.reach === reach));
}

/** What is measured turn and turn about. */
export function AlternationForm({ devices, peers, start }: AlternationFormProps) {
  const [kind, setKind] = useState<string>('devices');
  const options = devices.map(({ id, name, standsBy }) => [id, standsBy ? `${name}, stands by` : name] as const);
  const [first, second] = devices;
  const ends = comparable(peers);
  const endOptions = ends.map(({ id, name, reach }) => [id, `${name}, ${reach}`] as const);
  const kinds = KINDS.filter(([value]) => value !== 'peers' || ends.length > 1);
  return (
    <ActionForm form="alternation" action={start} label="Turn and turn about" save="Begin" saving="Beginning …">
      <div role="radiogroup" aria-label="What alternates" className="flex flex-wrap gap-x-5 gap-y-1">
        {kinds.map(([value, words]) => (
          <label key={value} className="flex min-h-8 items-center gap-1.5">
            <input type="radio" name="kind" value={value} checked={kind === value} onChange={() => setKind(value)} />
            {words}
          </label>
        ))}
      </div>
      <div className="mt-2 grid max-w-[60rem] gap-x-6 gap-y-2 sm:grid-cols-3">
        <ChoiceField
          name="deviceA"
          label={kind === 'devices' ? 'the one device' : 'device'}
          value={first?.id ?? ''}
          options={options}
        />
        {kind === 'devices' && (
          <ChoiceField name="deviceB" label="the other device" value={second?.id ?? ''} options={options} />
        )}
        {kind === 'peers' && (
          <>
            <ChoiceField name="peerA" label="the one far end" value={ends[0]?.id ?? ''} options={endOptions} />
            <ChoiceField name="peerB" label="the other far end" value={ends[1]?.id ?? ''} options={endOptions} />
          </>
        )}
        {kind === 'by-hand' && (
          <>
            <TextField name="nameA" label="the one way" value="" hint="such as: tunnel on, by cable" />
            <TextField name="nameB" label="the other way" value="" hint="such as: tunnel off, by air" />
          </>
        )}
        {kind === 'peers' ? (
          <input type="hidden" name="reach" value={ends[0]?.reach ?? 'internet'} />
        ) : (
          <ChoiceField
            name="reach"
            label="how far"
            value="internet"
            options={PEER_REACHES.map((reach) => [reach, reach] as const)}
          />
        )}
        <ChoiceField
          name="profile"
          label="how thorough"
          value="standard"
          options={(['quick', 'standard', 'thorough'] as const).map((profile) => [profile, profile] as const)}
        />
        <TextField
          name="times"
          label="runs of each"
          value="6"
          hint="four of each can tell a difference, six tell how large"
        />
      </div>
    </ActionForm>
  );
}
