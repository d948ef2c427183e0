import type { WifiBand } from '../domain/link';
import { median, percentile } from '../stats/percentile';

/** A run that went through the air, with the link that it was made with. */
export interface AirRun {
  readonly atMs: number;
  readonly deviceId: string;
  readonly deviceName: string;
  /** Null: nobody has said where. */
  readonly spotName: string | null;
  readonly band: WifiBand | null;
  readonly accessPoint: string | null;
  /** As the device was told by its radio; null: it does not tell, as no browser does. */
  readonly signalDbm: number | null;
  readonly linkRateBps: number | null;
  /** Of a run inside, where nothing but the air is in the way; null: of another one. */
  readonly insideBps: number | null;
}

/** How a place, or a device, hears its access point. */
export interface AirFigures {
  readonly runs: number;
  readonly newestMs: number;
  /** Of `told` runs; dBm. Null: none told. */
  readonly signal: {
    readonly told: number;
    readonly least: number;
    readonly median: number;
    readonly most: number;
  } | null;
  readonly linkRateBps: number | null;
  /** Median of the runs inside, down, bits per second. */
  readonly insideBps: number | null;
  /** The oldest first, at most so many as a picture has room for. */
  readonly course: readonly Pick<AirRun, 'atMs' | 'signalDbm' | 'insideBps'>[];
}

export interface SpotAir extends AirFigures {
  readonly spotName: string | null;
  readonly band: WifiBand | null;
}

export interface DeviceAir extends AirFigures {
  readonly deviceId: string;
  readonly deviceName: string;
}

export interface AccessPointAir {
  readonly accessPoint: string | null;
  readonly band: WifiBand | null;
  /** The one that hears it worst first. */
  readonly devices: readonly DeviceAir[];
}

const MOST_OF_COURSE = 60;
/** What 16-QAM at 3/4 takes at least on a channel of 20 MHz (IEEE 802.11, minimum input sensitivity): below it all is slower, dBm. */
export const WEAK_SIGNAL_DBM = -70;

const known = (values: readonly (number | null)[]) => values.filter((value) => value !== null);

const newestOf = (runs: readonly AirRun[]) => runs.reduce((one, other) => (other.atMs > one.atMs ? other : one));

function figuresOf(runs: readonly AirRun[]): AirFigures {
  const course = runs.toSorted((a, b) => a.atMs - b.atMs);
  const signals = known(course.map(({ signalDbm }) => signalDbm));
  return {
    runs: runs.length,
    newestMs: course.at(-1)!.atMs,
    signal:
      signals.length === 0
        ? null
        : {
            ...{ told: signals.length, median: median(signals)! },
            ...{ least: percentile(signals, 0)!, most: percentile(signals, 1)! },
          },
    linkRateBps: median(known(course.map(({ linkRateBps }) => linkRateBps))),
    insideBps: median(known(course.map(({ insideBps }) => insideBps))),
    course: course.slice(-MOST_OF_COURSE).map(({ atMs, signalDbm, insideBps }) => ({ atMs, signalDbm, insideBps })),
  };
}

function grouped<Of>(of: readonly Of[], keyOf: (each: Of) => string): Of[][] {
  const groups = new Map<string, Of[]>();
  for (const each of of) groups.set(keyOf(each), [...(groups.get(keyOf(each)) ?? []), each]);
  return [...groups.values()];
}

/** Weak ones first; those of which no signal is known by what came through, and last those of which nothing is. */
function worstFirst(one: AirFigures, other: AirFigures): number {
  const rank = ({ signal, insideBps }: AirFigures) => (signal !== null ? 0 : insideBps !== null ? 1 : 2);
  const [a, b] = [rank(one), rank(other)];
  if (a !== b) return a - b;
  if (a === 0) return one.signal!.median - other.signal!.median;
  return (one.insideBps ?? 0) - (other.insideBps ?? 0);
}

/** How each spot hears, on each band, the worst one first. */
export function airBySpot(runs: readonly AirRun[]): SpotAir[] {
  return grouped(runs, ({ spotName, band }) => JSON.stringify([spotName, band]))
    .map((of) => ({ ...figuresOf(of), spotName: of[0]!.spotName, band: of[0]!.band }))
    .sort(worstFirst);
}

/** Who hears which access point, on each band, and how: access points by name. */
export function airByAccessPoint(runs: readonly AirRun[]): AccessPointAir[] {
  return grouped(runs, ({ accessPoint, band }) => JSON.stringify([accessPoint, band]))
    .map((of) => ({
      ...{ accessPoint: of[0]!.accessPoint, band: of[0]!.band },
      devices: grouped(of, ({ deviceId }) => deviceId)
        .map((own) => ({ ...figuresOf(own), deviceId: own[0]!.deviceId, deviceName: newestOf(own).deviceName }))
        .sort(worstFirst),
    }))
    .sort(
      (a, b) =>
        (a.accessPoint ?? '\uffff').localeCompare(b.accessPoint ?? '\uffff') ||
        (a.band ?? '').localeCompare(b.band ?? ''),
    );
}
