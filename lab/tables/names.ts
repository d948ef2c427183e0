import { rankResolvers, resolverAdvice, seededRandom, type NamesFound } from '@/core';
import { ended, startIn } from '../net/command';
import { LAB_NAMES, LabResolvers, liarAt, resolverAt, RESOLVER_PROGRAMS } from '../net/lab-resolvers';
import { readyForLab } from '../net/lab-rights';
import { medianOf, Table } from './table';

/** The word by which the lab starts itself anew in the client's namespace. */
export const NAMES_CLIENT = 'names-client';

const CASES = 50;
/** Two ways that are nearer to each other than this are the same for everybody, ms. */
const APART_MS = 3;
/** Where the gain is near to what is worth a change, either advice is right. */
const DOUBTFUL = { fromMs: 2, toMs: 5, fromShare: 0.18, toShare: 0.32 };

interface Case {
  readonly delaysMs: readonly number[];
  readonly zoneMs: number;
  /** Which of the resolvers that were typed makes addresses up; null: none. */
  readonly liar: number | null;
}

/** What should be advised: the place of another resolver, 0 to stay with the own one; null: either would do. */
function expected({ delaysMs, zoneMs, liar }: Case): number | null {
  const [own] = delaysMs;
  const truthful = [...delaysMs.keys()].filter((place) => place !== liar);
  const best = truthful.reduce((one, other) => (delaysMs[other]! < delaysMs[one]! ? other : one));
  if (best === 0) return 0;
  const gainMs = own! - delaysMs[best]!;
  const share = gainMs / (own! + zoneMs);
  if (gainMs < DOUBTFUL.fromMs || share < DOUBTFUL.fromShare) return 0;
  return gainMs > DOUBTFUL.toMs && share > DOUBTFUL.toShare ? best : null;
}

const isApart = (delaysMs: readonly number[]) =>
  delaysMs.every((one, place) => delaysMs.every((other, at) => at <= place || Math.abs(one - other) >= APART_MS));

/** Ways by lot, such that the right advice is beyond doubt. */
function drawn(random: () => number): Case {
  for (;;) {
    const found: Case = {
      delaysMs: RESOLVER_PROGRAMS.map(() => 1 + 60 * random()),
      zoneMs: 2 + 40 * random(),
      liar: random() < 0.3 ? 1 + Math.floor((RESOLVER_PROGRAMS.length - 1) * random()) : null,
    };
    if (isApart(found.delaysMs) && expected(found) !== null) return found;
  }
}

async function looked(lab: LabResolvers, resolvers: readonly string[]): Promise<NamesFound> {
  const words = [
    process.execPath,
    process.argv[1]!,
    NAMES_CLIENT,
    JSON.stringify(LAB_NAMES),
    JSON.stringify(resolvers),
  ];
  const child = startIn(lab.netns('client'), ...(words as [string, ...string[]]));
  let output = '';
  child.stdout!.on('data', (part: Buffer) => (output += part.toString()));
  await ended(child);
  return JSON.parse(output) as NamesFound;
}

/** Resolvers of two kinds behind known delays: whether they are put in the right order, and the right one is advised. */
export async function namesTable(): Promise<void> {
  const missing = await readyForLab({ unbound: 'unbound', dnsmasq: 'dnsmasq-base', ss: 'iproute2' });
  if (missing !== null) return console.log(missing);
  const random = seededRandom(50);
  const count = { order: 0, advice: 0, take: 0, stay: 0, liars: 0, liarsTold: 0 };
  const off = { fresh: [] as number[], again: [] as number[] };
  const lab = new LabResolvers();
  try {
    await lab.open();
    for (let number = 0; number < CASES; number += 1) {
      const { delaysMs, zoneMs, liar } = drawn(random);
      await lab.delays(delaysMs, zoneMs);
      const addresses = [...delaysMs.keys()].map((place) => (place === liar ? liarAt(place) : resolverAt(place)));
      const ranked = rankResolvers(await looked(lab, addresses.slice(1)));
      const placeOf = (address: string) => addresses.indexOf(address);
      // Whoever lies comes last, however fast.
      const right = [...delaysMs.keys()].sort(
        (a, b) => Number(a === liar) - Number(b === liar) || delaysMs[a]! - delaysMs[b]!,
      );
      const order = ranked.map(({ resolver }) => placeOf(resolver));
      const advice = resolverAdvice(ranked);
      const told = advice.kind === 'none' ? null : placeOf(advice.resolver);
      const wanted = expected({ delaysMs, zoneMs, liar });
      if (order.join() === right.join()) count.order += 1;
      else console.error(`case ${number}: order ${order.join()} instead of ${right.join()}`);
      if (told === wanted) count.advice += 1;
      else console.error(`case ${number}: ${told} instead of ${wanted}: ${JSON.stringify({ delaysMs, zoneMs, liar })}`);
      count[wanted === 0 ? 'stay' : 'take'] += 1;
      if (liar !== null) {
        count.liars += 1;
        if (ranked.some(({ resolver, lies }) => placeOf(resolver) === liar && lies > 0)) count.liarsTold += 1;
      }
      for (const { resolver, fresh, againMs } of ranked) {
        const place = placeOf(resolver);
        if (place === liar || fresh === null || againMs === null) continue;
        off.fresh.push(Math.abs(fresh.ms - delaysMs[place]! - zoneMs));
        off.again.push(Math.abs(againMs - delaysMs[place]!));
      }
    }
  } finally {
    await lab.close();
  }
  const table = new Table(
    'Resolvers',
    `${CASES} offices of four resolvers (unbound, dnsmasq), each behind 1 to 61 ms, and a zone 2 to 42 ms behind all of them; in some one of them makes addresses up. New names take both ways, names that were just asked for the first.`,
    ['what', 'right', 'off, ms: median (worst)'],
  );
  const worst = (values: readonly number[]) => `${medianOf(values, 2)} (${Math.max(...values).toFixed(2)})`;
  table.row('the order', `${count.order} of ${CASES}`, '');
  table.row(`the advice (${count.take} to change, ${count.stay} to stay)`, `${count.advice} of ${CASES}`, '');
  table.row('who makes addresses up', `${count.liarsTold} of ${count.liars}`, '');
  table.row('time of new names', '', worst(off.fresh));
  table.row('time of names that were just asked for', '', worst(off.again));
}
