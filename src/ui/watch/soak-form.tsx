'use client';

import { useState, useTransition } from 'react';
import { REACH_PHRASES, type PeerReach } from '@/core';
import type { WatchedSpan } from '@/services';
import { Button } from '../parts/button';
import { RefusedNote } from '../parts/refused-note';

/** Asks a device to measure for minutes; null when that was done, else what is wrong. */
export type AskSoak = (deviceId: string, reach: PeerReach) => Promise<string | null>;

interface SoakFormProps {
  readonly standing: WatchedSpan['standing'];
  readonly reaches: readonly PeerReach[];
  readonly ask: AskSoak;
  readonly onAsked: () => void;
}

/** Four minutes of load on one device, so that what is switched on meanwhile is seen in its rate. */
export function SoakForm({ standing, reaches, ask, onAsked }: SoakFormProps) {
  const [chosen, setChosen] = useState('');
  const [wanted, setWanted] = useState<PeerReach | null>(null);
  const [asked, setAsked] = useState<string | null>(null);
  const [refused, setRefused] = useState<string | null>(null);
  const [working, start] = useTransition();
  // One that has gone meanwhile cannot be asked.
  const device = standing.find(({ deviceId }) => deviceId === chosen) ?? standing[0];
  const reach = wanted ?? reaches[0];
  const status = asked !== null && (
    <p role="status" className="text-sm text-quiet">
      {asked} was asked; its rate appears in the picture. The queue on the board can stop it.
    </p>
  );
  if (device === undefined || reach === undefined)
    return (
      <>
        {status}
        <p className="text-sm text-quiet">
          {reach === undefined
            ? 'This office has no peer to measure against.'
            : asked === null
              ? 'No device stands by that could be asked. Open the test page on one, and leave it open.'
              : 'No other device stands by.'}
        </p>
      </>
    );
  return (
    <form
      className="flex flex-wrap items-end gap-3"
      aria-busy={working}
      onSubmit={(event) => {
        event.preventDefault();
        setAsked(null);
        start(async () => {
          const said = await ask(device.deviceId, reach);
          setRefused(said);
          if (said !== null) return;
          setAsked(device.name);
          onAsked();
        });
      }}
    >
      <label className="min-w-0 text-sm">
        <span className="block text-quiet">device</span>
        <select
          aria-label="which device"
          value={device.deviceId}
          onChange={({ target }) => setChosen(target.value)}
          className="field !min-h-9 w-56 max-w-full"
        >
          {standing.map(({ deviceId, name }) => (
            <option key={deviceId} value={deviceId}>
              {name}
            </option>
          ))}
        </select>
      </label>
      <label className="text-sm">
        <span className="block text-quiet">where to</span>
        <select
          aria-label="where to"
          value={reach}
          onChange={({ target }) => setWanted(target.value as PeerReach)}
          className="field !min-h-9 w-56 max-w-full"
        >
          {reaches.map((each) => (
            <option key={each} value={each}>
              {REACH_PHRASES[each]}
            </option>
          ))}
        </select>
      </label>
      <Button type="submit" disabled={working}>
        Measure for four minutes
      </Button>
      <RefusedNote refused={refused} />
      {status}
    </form>
  );
}
