'use client';

import { useState } from 'react';
import { Button } from '../parts/button';
import { RefusedNote } from '../parts/refused-note';
import { useActs } from '../parts/use-acts';

/** How a run between two machines goes, in words; `paced` sends UDP at a rate, for loss and jitter each way. */
const PROFILES = [
  ['standard', 'standard: both ways, delay, loss'],
  ['quick', 'quick'],
  ['thorough', 'thorough: both ways at once too'],
  ['paced', 'UDP at a rate: loss and jitter each way'],
] as const;
type Profile = (typeof PROFILES)[number][0];

const USUAL_PACE_MBPS = '5';

export interface BetweenChoice {
  readonly deviceId: string;
  readonly name: string;
}

interface BetweenFormProps {
  /** Agents of this office that stand by now. */
  readonly from: readonly BetweenChoice[];
  /** Agents of all offices that stand by now, those of others with their office. */
  readonly to: readonly BetweenChoice[];
  /** What stands in the way; null: it is in the queue. */
  readonly measure: (order: {
    readonly deviceId: string;
    readonly farDeviceId: string;
    readonly profile: Profile;
    readonly pacedMbps: number | null;
  }) => Promise<string | null>;
}

function Choice<Value extends string>(props: {
  readonly label: string;
  readonly value: Value;
  readonly options: readonly (readonly [Value, string])[];
  readonly choose: (value: Value) => void;
}) {
  return (
    <label className="min-w-0 text-sm">
      <span className="block text-quiet">{props.label}</span>
      <select
        aria-label={props.label}
        className="field !min-h-9 max-w-72 !py-0"
        value={props.value}
        onChange={({ target }) => props.choose(target.value as Value)}
      >
        {props.options.map(([value, words]) => (
          <option key={value} value={value}>
            {words}
          </option>
        ))}
      </select>
    </label>
  );
}

/** From one machine of ours to another, which serves as the far end for that run. */
export function BetweenForm({ from, to, measure }: BetweenFormProps) {
  const [near, setNear] = useState(from[0]?.deviceId ?? '');
  const others = to.filter(({ deviceId }) => deviceId !== near);
  const [chosenFar, setFar] = useState('');
  const far = others.some(({ deviceId }) => deviceId === chosenFar) ? chosenFar : (others[0]?.deviceId ?? '');
  const [profile, setProfile] = useState<Profile>('standard');
  const [pace, setPace] = useState(USUAL_PACE_MBPS);
  const [asked, setAsked] = useState(false);
  const { working, refused, does } = useActs();
  const pacedMbps = profile === 'paced' ? Number(pace.replace(',', '.')) : null;
  return (
    <form
      aria-label="Measure between two machines"
      aria-busy={working}
      onSubmit={(event) => {
        event.preventDefault();
        setAsked(true);
        does(() => measure({ deviceId: near, farDeviceId: far, profile, pacedMbps }))();
      }}
    >
      <div className="flex flex-wrap items-end gap-x-5 gap-y-2">
        <Choice
          label="from"
          value={near}
          options={from.map(({ deviceId, name }) => [deviceId, name] as const)}
          choose={setNear}
        />
        <Choice
          label="to"
          value={far}
          options={others.map(({ deviceId, name }) => [deviceId, name] as const)}
          choose={setFar}
        />
        <Choice label="how" value={profile} options={PROFILES} choose={setProfile} />
        {profile === 'paced' && (
          <label className="text-sm">
            <span className="block text-quiet">at</span>
            <span className="flex items-center gap-1.5">
              <input
                value={pace}
                onChange={({ target }) => setPace(target.value)}
                inputMode="decimal"
                className="field figure !w-16"
              />
              Mb/s
            </span>
          </label>
        )}
        <Button type="submit" disabled={working || far === ''}>
          Measure between them
        </Button>
      </div>
      <RefusedNote refused={refused} />
      <p aria-live="polite" className="mt-1 text-sm text-quiet">
        {asked && !working && refused === null && 'In the queue; the board shows it, and what comes of it.'}
      </p>
    </form>
  );
}
