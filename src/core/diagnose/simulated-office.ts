import { normal } from '../stats/normal';
import type { RandomSource } from '../stats/seeded-random';
import type { Occasion } from './observation';
import { nextTests, questionOf, type HuntQuestion, type TestCandidate } from './next-test';
import { priorOf, type DiagnosedKind, type DiagnosedSegment, type SoundRange } from './segment';
import { FOUND_FROM, suspicionOf, type Suspicion } from './suspicion';

/** An office drawn at random, with faults that are known to whoever drew it. */
export interface SimulatedOffice {
  readonly segments: readonly DiagnosedSegment[];
  readonly devices: readonly SimulatedDevice[];
  /** What each segment really carries, bits per second; absent: it limits nothing. */
  readonly carries: ReadonlyMap<string, number>;
  readonly faults: readonly string[];
  /** Who says that it is slow. */
  readonly complainer: SimulatedDevice;
}

export interface SimulatedDevice {
  readonly id: string;
  readonly link: string;
  /** Stands by: a run of it is a click, else a walk. */
  readonly stands: boolean;
}

const ETHERNET_BPS = 941e6;
const LINE_BPS = 500e6;
const INSIDE_PEER = 'peer:local:in';
const OUTSIDE_PEER = 'peer:internet:out';
const NOISE = 0.05;
const CLICK_MINUTES = 1;

const range = (highBps: number, low = 0.9): SoundRange => ({ lowBps: low * highBps, highBps });

function segment(id: string, kind: DiagnosedKind, sound: SoundRange | null, band: '2.4' | '5' | null = null) {
  return {
    ...{ id, kind, name: id, deviceId: null, band, accessPoint: null, generation: 0, hours: null },
    sound: { down: sound, up: sound },
  } satisfies DiagnosedSegment;
}

const pick = <Value>(values: readonly Value[], random: RandomSource) => values[Math.floor(random() * values.length)]!;

/** Segments on the way of a device to the inside peer, or to the outside one. */
export function simulatedPath({ id, link }: SimulatedDevice, reach: 'local' | 'internet'): string[] {
  const inside = [`device:${id}`, link, 'hop'];
  return reach === 'local' ? [...inside, INSIDE_PEER] : [...inside, 'router', 'line:l', 'far:out', OUTSIDE_PEER];
}

/** Draws an office of 5 to 40 devices with one or two faults, of which one makes somebody complain. */
export function drawOffice(faultCount: 1 | 2, random: RandomSource): SimulatedOffice {
  const count = 5 + Math.floor(random() * 36);
  const segments = new Map<string, DiagnosedSegment>();
  const carries = new Map<string, number>();
  const devices = Array.from({ length: count }, (_, index): SimulatedDevice => {
    const id = `d${index}`;
    segments.set(`device:${id}`, segment(`device:${id}`, 'device', null));
    const draw = random();
    const band = draw < 0.6 ? null : draw < 0.85 ? '5' : '2.4';
    const link = band === null ? `cable:${id}` : `air:ap${Math.floor(index / 8)}|${band}`;
    if (!segments.has(link)) {
      const most = band === null ? ETHERNET_BPS : 0.7 * (band === '5' ? 866e6 : 144e6);
      segments.set(
        link,
        segment(link, band === null ? 'cable' : 'air', range(most, band === null ? 0.93 : 0.57), band),
      );
      carries.set(link, band === null ? ETHERNET_BPS : most * (0.65 + 0.35 * random()));
    }
    return { id, link, stands: random() < 0.6 };
  });
  for (const [id, kind, sound] of [
    ['hop', 'hop', null],
    ['router', 'router', null],
    ['line:l', 'line', range(LINE_BPS)],
    ['far:out', 'far-network', null],
    [INSIDE_PEER, 'peer', range(ETHERNET_BPS, 0.93)],
    [OUTSIDE_PEER, 'peer', null],
  ] as const)
    segments.set(id, segment(id, kind, sound));
  carries.set('line:l', LINE_BPS * (0.95 + 0.05 * random()));

  const all = [...segments.values()];
  const faults: string[] = [];
  while (faults.length < faultCount) {
    // As often as such segments fail.
    const candidate = pick(all, random);
    if (faults.includes(candidate.id) || random() > priorOf(candidate) / 0.4) continue;
    const asked = candidate.sound.down?.highBps ?? (isOutside(candidate.id) ? LINE_BPS : ETHERNET_BPS);
    carries.set(candidate.id, asked * Math.exp(Math.log(0.05) + random() * Math.log(0.65 / 0.05)));
    faults.push(candidate.id);
  }
  const suffers = devices.filter((device) => {
    const path = simulatedPath(device, 'internet');
    return path.some((id) => faults.includes(id)) && isShort(path, segments, carries);
  });
  // A fault that nobody notices makes nobody complain: drawn anew.
  if (suffers.length === 0) return drawOffice(faultCount, random);
  return { segments: all, devices, carries, faults, complainer: pick(suffers, random) };
}

const isOutside = (id: string) => ['router', 'far:out', OUTSIDE_PEER].includes(id);

function isShort(
  path: readonly string[],
  segments: ReadonlyMap<string, DiagnosedSegment>,
  carries: ReadonlyMap<string, number>,
): boolean {
  const sound = Math.min(...path.flatMap((id) => segments.get(id)!.sound.down?.lowBps ?? []));
  return rateOf(path, carries) < 0.9 * sound;
}

function rateOf(path: readonly string[], carries: ReadonlyMap<string, number>): number {
  return Math.min(...path.flatMap((id) => carries.get(id) ?? []));
}

/** A test in a simulated office: a run of a device, as it is or with one of its segments taken out of the path. */
export interface SimulatedTest extends TestCandidate {
  readonly device: SimulatedDevice;
  readonly reach: 'local' | 'internet';
  readonly without: string | null;
}

/** Everything that could be tested: runs of all devices, and swaps where somebody complains. */
export function simulatedTests(office: SimulatedOffice): SimulatedTest[] {
  const known = new Map(office.segments.map((each) => [each.id, each]));
  const soundOf = (path: readonly string[]) => {
    const sounds = path.flatMap((id) => known.get(id)!.sound.down ?? []);
    return {
      lowBps: Math.min(...sounds.map(({ lowBps }) => lowBps)),
      highBps: Math.min(...sounds.map(({ highBps }) => highBps)),
    };
  };
  const reaches = ['local', 'internet'] as const;
  const runs = office.devices.flatMap((device) =>
    reaches.map((reach): SimulatedTest => {
      const path = simulatedPath(device, reach);
      const minutes = device.stands || device.id === office.complainer.id ? CLICK_MINUTES : 3;
      return { id: `run ${device.id} ${reach}`, device, reach, without: null, path, minutes, sound: soundOf(path) };
    }),
  );
  const { complainer: device } = office;
  const swaps = [
    [`device:${device.id}`, 5],
    [device.link, 4],
    ['hop', 6],
    ['router', 6],
  ] as const;
  return [
    ...runs,
    ...swaps.map(([without, minutes]): SimulatedTest => {
      const reach = without === 'router' ? 'internet' : 'local';
      const path = simulatedPath(device, reach).filter((id) => id !== without);
      return { id: `swap ${without}`, device, reach, without, path, minutes, sound: soundOf(path) };
    }),
  ];
}

/** Makes a test: what comes out, with noise, and now and then oddly. */
export function makeTest(office: SimulatedOffice, test: SimulatedTest, atMs: number, random: RandomSource): Occasion {
  // What a swap puts there is sound, and carries what its kind does.
  const sound = rateOf([...test.path], office.carries);
  const odd = random() < 0.02 ? 0.2 + 0.8 * random() : 1;
  const bps = Math.min(sound, test.without === null ? Infinity : ETHERNET_BPS) * odd * Math.exp(NOISE * normal(random));
  const rate = { medianBps: bps, provenBps: bps * (1 - NOISE), provenBy: test.id, spread: null };
  return {
    ...{ runIds: [test.id], deviceId: test.device.id, reach: test.reach, startedAtMs: atMs, hour: 10 },
    path: test.path,
    ...{ down: rate, up: null, addedDownMs: null, addedUpMs: null, resentShare: null, flags: [] },
  };
}

export interface HuntResult {
  /** What was said to be it; more than one where no test tells them apart; empty: nothing was found. */
  readonly found: readonly string[];
  readonly tests: number;
  readonly minutes: number;
}

function foundIn(suspicion: Suspicion, question: HuntQuestion): string[] {
  for (const name of new Set(question.values())) {
    const group = [...question].flatMap(([id, of]) => (of === name ? [id] : []));
    const sum = group.reduce((all, each) => all + (suspicion.probability.get(each) ?? 0), 0);
    if (sum >= FOUND_FROM) return group;
  }
  return [];
}

/** How the next test is chosen: by what it tells for its minutes, or in one of two plain orders. */
export type HuntOrder = 'telling' | 'nearest' | 'line-inward';

function plainOrder(
  order: Exclude<HuntOrder, 'telling'>,
  tests: readonly SimulatedTest[],
  { complainer }: SimulatedOffice,
) {
  const own = (test: SimulatedTest) => test.device.id === complainer.id;
  const near = [
    (test: SimulatedTest) => own(test) && test.without === null,
    (test: SimulatedTest) => own(test) && test.without === complainer.link,
    (test: SimulatedTest) => own(test) && test.without === `device:${complainer.id}`,
    (test: SimulatedTest) => test.device.link === complainer.link,
    (test: SimulatedTest) => test.without === 'hop',
    (test: SimulatedTest) => test.without === 'router',
    () => true,
  ];
  const far = [
    (test: SimulatedTest) => !own(test) && test.reach === 'internet',
    (test: SimulatedTest) => test.without === 'router',
    (test: SimulatedTest) => own(test) && test.reach === 'local' && test.without === null,
    (test: SimulatedTest) => !own(test),
    (test: SimulatedTest) => test.without === 'hop',
    () => true,
  ];
  const rules = order === 'nearest' ? near : far;
  return [...tests].sort((a, b) => rules.findIndex((rule) => rule(a)) - rules.findIndex((rule) => rule(b)));
}

const MOST_TESTS = 25;

/** Hunts for what makes the complainer slow until it is found, or nothing more can be learnt. */
export function huntSimulated(office: SimulatedOffice, order: HuntOrder, random: RandomSource): HuntResult {
  const tests = simulatedTests(office);
  let occasions: readonly Occasion[] = [];
  const path = simulatedPath(office.complainer, 'internet');
  const question = questionOf(path, tests);
  const begin = tests.find(({ id }) => id === `run ${office.complainer.id} internet`)!;
  const make = (test: SimulatedTest) => {
    occasions = [...occasions, makeTest(office, test, occasions.length, random)];
  };
  make(begin);
  let minutes = begin.minutes;
  const plain = order === 'telling' ? [] : plainOrder(order, tests, office).filter((test) => test !== begin);
  while (occasions.length < MOST_TESTS) {
    const suspicion = suspicionOf(office.segments, occasions, 'down');
    const found = foundIn(suspicion, question);
    if (found.length > 0) return { found, tests: occasions.length, minutes };
    const entangled = suspicion.entanglements.find(({ suspects }) => suspects.some((id) => path.includes(id)));
    const next =
      order === 'telling' ? nextTests(entangled?.explanations ?? [], tests, question, 1)[0]?.candidate : plain.shift();
    if (next === undefined) break;
    make(next);
    minutes += next.minutes;
  }
  return { found: [], tests: occasions.length, minutes };
}

/** Whether what was found is a fault that is there, and slow enough to make the complainer slow. */
export function isRight(office: SimulatedOffice, found: readonly string[]): boolean {
  const known = new Map(office.segments.map((each) => [each.id, each]));
  const path = simulatedPath(office.complainer, 'internet');
  const soundBps = Math.min(...path.flatMap((id) => known.get(id)!.sound.down?.lowBps ?? []));
  return found.some((id) => office.faults.includes(id) && office.carries.get(id)! < soundBps);
}
