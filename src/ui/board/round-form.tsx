'use client';

import { useEffect, useState } from 'react';
import { durationWords, expectedRunMs, RUN_PROFILES, type PeerReach } from '@/core';
import type { Board } from '@/services';
import type { QueueOrder } from '@/wire';
import { Button } from '../parts/button';
import { Dialog, DialogClose } from '../parts/dialog';
import { isTyping } from '../shell/console-keys';

/** From one run to the next a device is asked and gets ready. */
const BETWEEN_MS = 4000;
const TIMES = [1, 3, 5] as const;
const PROFILES = ['quick', 'standard', 'thorough', 'delay', 'single'] as const;

/** Puts a round into the queue; null when that was done, else what is wrong. */
export type QueueRound = (order: Omit<QueueOrder, 'siteId'>) => Promise<string | null>;

interface RoundFormProps {
  readonly rows: Board['devices'];
  readonly reaches: readonly PeerReach[];
  readonly queue: QueueRound;
  /** Whether it is open already when the page comes. */
  readonly opened?: boolean;
}

/** "These devices, so many times each, local then internet": a whole round at once. */
export function RoundForm({ rows, reaches, queue, opened = false }: RoundFormProps) {
  const [open, setOpen] = useState(opened);
  const [wasOpened, setWasOpened] = useState(opened);
  // Asked for by its name while the board is there already.
  if (opened !== wasOpened) {
    setWasOpened(opened);
    if (opened) setOpen(true);
  }
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.key.toLowerCase() !== 'n' || event.ctrlKey || event.metaKey || event.altKey) return;
      if (isTyping(event.target) || document.querySelector('[role="dialog"]') !== null) return;
      event.preventDefault();
      setOpen(true);
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);
  return (
    <Dialog
      title="A round"
      open={open}
      onOpen={setOpen}
      className="w-[min(34rem,92vw)] p-6"
      trigger={<Button aria-keyshortcuts="n">Start a round</Button>}
    >
      <RoundFields rows={rows} reaches={reaches} queue={queue} onQueued={() => setOpen(false)} />
    </Dialog>
  );
}

interface RoundCounts {
  readonly devices: number;
  readonly reaches: number;
  readonly times: number;
  readonly profile: (typeof PROFILES)[number];
}

/** "54 runs, about 18 min one after the other". */
function totalWords({ devices, reaches, times, profile }: RoundCounts): string {
  const runs = devices * reaches * times;
  if (runs === 0) return 'Choose at least one device, and how far.';
  const seconds = (runs * (expectedRunMs(RUN_PROFILES[profile], null) + BETWEEN_MS)) / 1000;
  return `${runs === 1 ? 'One run' : `${runs} runs`}, about ${durationWords(seconds)} if each waits for the other.`;
}

function RoundFields({
  rows,
  reaches,
  queue,
  onQueued,
}: Omit<RoundFormProps, 'opened'> & { readonly onQueued: () => void }) {
  const [complaint, setComplaint] = useState<string | null>(null);
  const [sending, setSending] = useState(false);
  const standing = rows.filter(({ standsBy }) => standsBy).length;
  const [counts, setCounts] = useState<RoundCounts>({
    ...{ devices: standing, reaches: reaches.length, times: 3, profile: 'standard' },
  });
  const count = (form: FormData) =>
    setCounts({
      devices: form.getAll('device').length,
      reaches: form.getAll('reach').length,
      times: Number(form.get('times')),
      profile: PROFILES.find((profile) => profile === form.get('profile')) ?? 'standard',
    });
  const send = async (form: FormData) => {
    setSending(true);
    const refused = await queue({
      deviceIds: form.getAll('device').map(String),
      reaches: reaches.filter((reach) => form.getAll('reach').includes(reach)),
      times: Number(form.get('times')),
      profile: PROFILES.find((profile) => profile === form.get('profile')) ?? 'standard',
      together: form.get('together') === 'on',
    });
    setSending(false);
    setComplaint(refused);
    if (refused === null) onQueued();
  };
  return (
    <form
      aria-label="A round"
      onChange={(event) => count(new FormData(event.currentTarget))}
      onSubmit={(event) => {
        event.preventDefault();
        void send(new FormData(event.currentTarget));
      }}
    >
      <fieldset className="mt-4">
        <legend className="text-sm text-quiet">which devices</legend>
        <div className="mt-1 grid gap-x-6 sm:grid-cols-2">
          {rows.map((row) => (
            <label key={row.deviceId} className="flex min-h-8 items-center gap-2">
              <input
                type="checkbox"
                name="device"
                value={row.deviceId}
                defaultChecked={row.standsBy}
                className="size-4 accent-[var(--ink)]"
              />
              <span className="truncate">{row.deviceName}</span>
              {!row.standsBy && <span className="shrink-0 text-sm text-quiet">away</span>}
            </label>
          ))}
        </div>
      </fieldset>
      <div className="mt-4 grid grid-cols-3 gap-5">
        <fieldset>
          <legend className="text-sm text-quiet">how far, in this order</legend>
          {reaches.map((reach) => (
            <label key={reach} className="flex min-h-8 items-center gap-2">
              <input type="checkbox" name="reach" value={reach} defaultChecked className="size-4 accent-[var(--ink)]" />
              {reach}
            </label>
          ))}
        </fieldset>
        <label className="text-sm text-quiet">
          how often each
          <select name="times" defaultValue={3} className="field mt-1">
            {TIMES.map((times) => (
              <option key={times} value={times}>
                {times === 1 ? 'once' : `${times} times`}
              </option>
            ))}
          </select>
        </label>
        <label className="text-sm text-quiet">
          how thoroughly
          <select name="profile" defaultValue="standard" className="field mt-1">
            {PROFILES.map((profile) => (
              <option key={profile}>{profile}</option>
            ))}
          </select>
        </label>
      </div>
      <label className="mt-4 flex items-center gap-2">
        <input type="checkbox" name="together" className="size-4 accent-[var(--ink)]" />
        all at the same instant, on purpose, to see how they share
      </label>
      <p className="mt-4" role="status">
        {totalWords(counts)}
      </p>
      <p className="mt-1 text-sm text-quiet">
        One after the other where they would share a line or a peer. A device that is away is asked when it is back.
      </p>
      {complaint !== null && (
        <p role="alert" className="mt-3 text-sm font-medium text-starved">
          {complaint}
        </p>
      )}
      <div className="mt-5 flex justify-end gap-3">
        <DialogClose asChild>
          <Button>Leave it</Button>
        </DialogClose>
        <Button type="submit" look="main" disabled={sending}>
          {sending ? 'Queueing …' : 'Put it in the queue'}
        </Button>
      </div>
    </form>
  );
}
