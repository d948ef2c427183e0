import {
  MINUTE_MS,
  IGD_TARGET,
  isDelay,
  isRadioLane,
  packMinute,
  laneFigures,
  seededRandom,
  type LaneEcho,
  type LaneKind,
  type LaneMinute,
  type LaneRole,
  type LostByWay,
  type RandomSource,
} from '@/core';

/** How the demo's targets answer. Names are those of their lanes; addresses are for examples (RFC 5737). */
export interface PlayedLane {
  readonly name: string;
  readonly target: string;
  readonly role: LaneRole;
  /** Usual round trip and how much it varies, ms. */
  readonly ms: number;
  readonly spread: number;
  /** Lost by chance. */
  readonly lost: number;
  /** How it is asked; echo requests where nothing is said. */
  readonly kind?: LaneKind;
  /** What goes over the line, or over the port of the archive box. */
  readonly load?: 'down' | 'up' | 'archive';
  /** More in the evening, when everybody is at home, ms. */
  readonly eveningMs?: number;
  /** More while the cordless intercom talks, ms, and lost then. */
  readonly intercom?: { readonly ms: number; readonly lost: number };
}

const NO_DELAY = { ms: 0, spread: 0, lost: 0 } as const;

export const PLAYED_LANES: readonly PlayedLane[] = [
  { name: 'Gateway', target: '198.51.100.1', role: 'gateway', ms: 0.4, spread: 0.2, lost: 0 },
  {
    ...{ name: 'Glue room tablet', target: '198.51.100.61', role: 'inside', ms: 4, spread: 3, lost: 0.002 },
    intercom: { ms: 46, lost: 0.07 },
  },
  {
    name: 'Hilltop exchange',
    target: '203.0.113.10',
    role: 'outside',
    ms: 12,
    spread: 2.5,
    lost: 0.0008,
    eveningMs: 9,
  },
  { name: 'Resolver 192.0.2.53', target: '192.0.2.53', role: 'outside', ms: 10, spread: 2, lost: 0.0008, eveningMs: 8 },
  {
    ...{ name: 'Quay Street, by the tunnel', kind: 'stamp', target: '203.0.113.1:862', role: 'far' },
    ...{ ms: 27, spread: 5, lost: 0.006, eveningMs: 10 },
  },
  { name: 'Line, down', kind: 'load-in', load: 'down', target: IGD_TARGET, role: 'line', ...NO_DELAY },
  { name: 'Line, up', kind: 'load-out', load: 'up', target: IGD_TARGET, role: 'line', ...NO_DELAY },
  {
    ...{
      name: 'Archive box at port 6, in',
      kind: 'load-in',
      load: 'archive',
      target: '198.51.100.3/6',
      role: 'inside',
    },
    ...NO_DELAY,
  },
  { name: 'Signal of wlan0', kind: 'signal', target: 'wlan0', role: 'inside', ms: 57, spread: 6, lost: 0 },
  {
    ...{ name: 'Sent again by wlan0', kind: 'retries', target: 'wlan0', role: 'inside', ms: 4, spread: 6, lost: 0 },
    // As loud as before, and in the way.
    intercom: { ms: 34, lost: 0 },
  },
];

/** Each evening the archive box sends its copy away: who looks at half past eight finds the line full, and who fills it. */
const BACKUP = { fromHour: 20, hours: 0.7, mbps: 84 };
const hourOf = (atMs: number) => new Date(atMs).getHours() + new Date(atMs).getMinutes() / 60;
const isBackup = (atMs: number) => {
  const since = hourOf(atMs) - BACKUP.fromHour;
  return since >= 0 && since < BACKUP.hours;
};
const isOfficeHour = (atMs: number) =>
  ![0, 6].includes(new Date(atMs).getDay()) && hourOf(atMs) >= 8 && hourOf(atMs) < 18;

/** What goes over a port of the demo at a moment, Mb/s. */
function playedLoad({ load }: PlayedLane, atMs: number, random: RandomSource): number {
  const people = isOfficeHour(atMs) ? 1 : 0.06;
  const backup = isBackup(atMs) ? BACKUP.mbps * (0.96 + 0.05 * random()) : 0;
  if (load === 'archive') return backup + 0.2 * random();
  const share = people * (0.2 + late(random));
  return load === 'down' ? 24 * share + 0.02 * backup : 3 * share + backup;
}

/** Noise with a long tail, as delays have it: now and then one that took three times as long. */
const late = (random: RandomSource) => (random() < 0.02 ? 2 + 4 * random() : random() ** 2);

function eveningShare(atMs: number): number {
  const hour = new Date(atMs).getHours() + new Date(atMs).getMinutes() / 60;
  return hour < 18 || hour > 23 ? 0 : Math.sin((Math.PI * (hour - 18)) / 5);
}

/** What a target of the demo answers at a moment; `talks`: whether the intercom is in use. Null: nothing. */
export function playedEcho(played: PlayedLane, atMs: number, talks: boolean, random: RandomSource): number | null {
  if (played.load !== undefined) return playedLoad(played, atMs, random);
  const { ms, spread, lost, eveningMs = 0, intercom } = played;
  const disturbed = talks ? intercom : undefined;
  if (random() < lost + (disturbed?.lost ?? 0)) return null;
  return (
    ms +
    spread * late(random) +
    eveningMs * eveningShare(atMs) * (0.6 + 0.8 * random()) +
    (disturbed?.ms ?? 0) * (0.5 + random())
  );
}

/** Something of the demo's last weeks that was silent: minutes ago, for so many seconds. */
export interface PlayedSilence {
  readonly daysAgo: number;
  readonly hour: number;
  readonly minute: number;
  readonly seconds: number;
  readonly silent: readonly LaneRole[];
}

export const SILENCES: readonly PlayedSilence[] = [
  { daysAgo: 19, hour: 3, minute: 12, seconds: 540, silent: ['outside', 'far'] },
  { daysAgo: 12, hour: 11, minute: 40, seconds: 94, silent: ['gateway', 'inside', 'outside', 'far'] },
  { daysAgo: 8, hour: 20, minute: 5, seconds: 260, silent: ['far'] },
  { daysAgo: 5, hour: 9, minute: 51, seconds: 33, silent: ['outside', 'far'] },
  { daysAgo: 2, hour: 14, minute: 3, seconds: 42, silent: ['outside', 'far'] },
  { daysAgo: 1, hour: 16, minute: 20, seconds: 75, silent: ['far'] },
];

export function silenceSpan({ daysAgo, hour, minute, seconds }: PlayedSilence, nowMs: number) {
  const day = new Date(nowMs);
  const fromMs = new Date(day.getFullYear(), day.getMonth(), day.getDate() - daysAgo, hour, minute, 10).getTime();
  return { fromMs, untilMs: fromMs + seconds * 1000 };
}

const isSilent = (role: LaneRole, atMs: number, nowMs: number) =>
  SILENCES.some((silence) => {
    const { fromMs, untilMs } = silenceSpan(silence, nowMs);
    return silence.silent.includes(role) && atMs >= fromMs && atMs < untilMs;
  });

/** Most of what is lost by chance is lost on the way there: uplinks are narrow. */
const THERE_SHARE = 0.8;
export const isLostThere = (random: RandomSource) => random() < THERE_SHARE;

function lostByWay({ role }: PlayedLane, echoes: readonly LaneEcho[], nowMs: number, random: RandomSource): LostByWay {
  // Of a silence nobody knows on which way it was.
  const lost = echoes.filter(({ atMs, ms }) => ms === null && !isSilent(role, atMs, nowMs)).length;
  const lostThere = Array.from({ length: lost }, () => isLostThere(random)).filter(Boolean).length;
  return { lostThere, lostBack: lost - lostThere };
}

/** Ports are read every ten seconds, a radio every five. */
export const everyMsOf = ({ load, kind = 'echo' }: PlayedLane) =>
  load !== undefined ? 10_000 : isRadioLane(kind) ? 5000 : 1000;

/** Whether it is one of those that a silence is about. */
export const fallsSilent = ({ kind = 'echo' }: PlayedLane) => isDelay(kind);

/** A minute of the demo's history. */
export function playedMinute(
  laneId: string,
  played: PlayedLane,
  fromMs: number,
  nowMs: number,
  talks: (atMs: number) => boolean,
): LaneMinute {
  const random = seededRandom(Math.floor(fromMs / MINUTE_MS) * 31 + played.ms * 7 + played.name.length);
  const echoes = Array.from({ length: MINUTE_MS / everyMsOf(played) }, (_, place): LaneEcho => {
    const atMs = fromMs + everyMsOf(played) * place + 40;
    const silent = fallsSilent(played) && isSilent(played.role, atMs, nowMs);
    return { atMs, ms: silent ? null : playedEcho(played, atMs, talks(atMs), random) };
  });
  const lost = played.kind === 'stamp' ? lostByWay(played, echoes, nowMs, random) : undefined;
  return { laneId, fromMs, ...laneFigures(echoes, lost), raw: packMinute(fromMs, echoes, lost) };
}
