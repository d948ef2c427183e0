import { seededRandom, totalBytes } from '@/core';
import { Unfinished, watchedRun, type WatchedRun } from '../measure-run';
import { commandIn } from '../net/command';
import { carriedBps, type LabLine } from '../net/lab-line';
import { onBench, type Bench, type ClientName } from './lab-cell';
import { medianOf, percentOf, Table } from './table';

const CLIENTS = (['Chromium', 'Node'] as const).filter((name) => (process.env.LAB_CLIENT ?? name) === name);
const QUEUE_MS = 50;
const BURST = { mbps: 200, ms: 4000, thenMbps: 60 } as const;
const WANDER = { leastMbps: 30, mostMbps: 80, everyMs: 250, runs: 20 } as const;
const LOOK_MS = 20;
/** So much has come that a load has begun, bytes. */
const LOADED = 1e6;

const mbps = (bps: number | null | undefined) => (bps === null || bps === undefined ? '–' : (bps / 1e6).toFixed(1));

async function tried(bench: Bench, profile: 'standard' | 'thorough'): Promise<WatchedRun | null> {
  try {
    return await watchedRun(bench.line, bench.program, bench.client, profile);
  } catch (error) {
    if (!(error instanceof Unfinished)) throw error;
    console.error(`${bench.client.name}: ${error.message}`);
    return null;
  }
}

/** Slows the line down once a load has come for a while; returns what ends the watching. */
function burstFirst(line: LabLine): () => void {
  const received = () =>
    Number(commandIn(line.netns('client'), 'cat', `/sys/class/net/${line.clientDevice}/statistics/rx_bytes`).trim());
  line.shape('down', { rateMbps: BURST.mbps, queueMs: QUEUE_MS });
  const before = received();
  let slowing: NodeJS.Timeout | undefined;
  const looking = setInterval(() => {
    if (received() - before < LOADED) return;
    clearInterval(looking);
    slowing = setTimeout(() => line.shape('down', { rateMbps: BURST.thenMbps, queueMs: QUEUE_MS }), BURST.ms);
  }, LOOK_MS);
  return () => {
    clearInterval(looking);
    clearTimeout(slowing);
  };
}

/** Lets the line wander evenly between two rates; returns what ends that. */
function wander(line: LabLine, seed: number): () => void {
  const random = seededRandom(seed);
  const step = () => {
    const rateMbps = WANDER.leastMbps + random() * (WANDER.mostMbps - WANDER.leastMbps);
    line.shape('down', { rateMbps, queueMs: QUEUE_MS });
    line.shape('up', { rateMbps, queueMs: QUEUE_MS });
  };
  const stepping = setInterval(step, WANDER.everyMs);
  return () => clearInterval(stepping);
}

/** What the kernel let through over the counted part, bits per second. */
function kernelMeanBps({ samples, report, kernel }: WatchedRun, way: 'down' | 'up'): number | null {
  const { rate } = report[way];
  const series = way === 'down' ? samples.download : samples.upload;
  if (rate === null || series === null || samples.client === null || totalBytes(series).length === 0) return null;
  const toWall = samples.client.wallMs + (way === 'down' ? 0 : (samples.peerClockOffsetMs ?? 0));
  const [from, to] = kernel[way].payloadAt([rate.countedFromMs + toWall, rate.countedToMs + toWall]);
  return ((to! - from!) * 8000) / (rate.countedToMs - rate.countedFromMs);
}

async function burstRows(client: ClientName, table: Table, runs: number): Promise<void> {
  const config = {
    down: { rateMbps: BURST.mbps, queueMs: QUEUE_MS },
    up: { rateMbps: BURST.thenMbps, queueMs: QUEUE_MS },
    baseMs: 20,
  };
  const then = carriedBps({ rateMbps: BURST.thenMbps, queueMs: QUEUE_MS }, 1500)!;
  const first = carriedBps({ rateMbps: BURST.mbps, queueMs: QUEUE_MS }, 1500)!;
  for (const profile of ['standard', 'thorough'] as const)
    await onBench(config, client, async (bench) => {
      const done: WatchedRun[] = [];
      for (let run = 0; run < runs; run += 1) {
        const end = burstFirst(bench.line);
        const watched = await tried(bench, profile);
        end();
        if (watched !== null) done.push(watched);
      }
      const rates = done.map(({ report }) => report.down.rate!);
      const bursts = rates.map(({ earlier }) => earlier?.[0] ?? null);
      table.row(
        client,
        profile,
        `${mbps(first)}, then ${mbps(then)}`,
        medianOf(rates.map(({ steadyBps }) => steadyBps / 1e6)),
        percentOf(rates.map(({ steadyBps }) => steadyBps / then - 1)),
        bursts.some((burst) => burst !== null)
          ? `${medianOf(bursts.map((burst) => (burst === null ? null : burst.bps / 1e6)))}`
          : 'none seen',
        rates.map(({ unsettledBy }) => unsettledBy ?? 'settled').join(', '),
      );
    });
}

/** Lines that change while they are measured. */
export async function changingTable(runs: number): Promise<void> {
  const bursts = new Table(
    'A line that bursts',
    `Down ${BURST.mbps} Mb/s for the first ${BURST.ms / 1000} s of a load, then ${BURST.thenMbps}; base delay 20 ms, queue ${QUEUE_MS} ms. Error: against what is carried after the burst. A standard run that knows enough before the burst ends sees only the burst: that is what the monthly long look is for.`,
    ['client', 'profile', 'carries', 'figure', 'error: median (worst)', 'burst, Mb/s', 'settled'],
  );
  for (const client of CLIENTS) await burstRows(client, bursts, runs);
  const wandering = new Table(
    'A line that wanders',
    `Both ways anywhere between ${WANDER.leastMbps} and ${WANDER.mostMbps} Mb/s, another rate every ${WANDER.everyMs} ms. Off: the plain mean against the kernel's over the same seconds. Covers: runs whose interval or range holds the line's true mean.`,
    ['client', 'way', 'true mean', 'figure', 'plain mean off: median (worst)', 'covers', 'as a range'],
  );
  const truth = carriedBps({ rateMbps: (WANDER.leastMbps + WANDER.mostMbps) / 2, queueMs: QUEUE_MS }, 1500)!;
  for (const client of CLIENTS)
    await onBench(
      { down: { rateMbps: 55, queueMs: QUEUE_MS }, up: { rateMbps: 55, queueMs: QUEUE_MS }, baseMs: 20 },
      client,
      async (bench) => {
        const done: WatchedRun[] = [];
        for (let run = 0; run < Math.max(runs, WANDER.runs); run += 1) {
          const end = wander(bench.line, run + 1);
          const watched = await tried(bench, 'standard');
          end();
          if (watched !== null) done.push(watched);
        }
        for (const way of ['down', 'up'] as const) {
          const rates = done.flatMap(({ report }) => report[way].rate ?? []);
          const covers = rates.filter(({ intervalBps, rangeBps }) => {
            const [low, high] = [intervalBps, rangeBps].reduce<[number, number]>(
              ([least, most], each) =>
                each === null || each === undefined
                  ? [least, most]
                  : [Math.min(least, each.low), Math.max(most, each.high)],
              [Infinity, -Infinity],
            );
            return low <= truth && truth <= high;
          });
          const off = done.map((run) => {
            const kernel = kernelMeanBps(run, way);
            return kernel === null ? null : run.report[way].rate!.meanBps / kernel - 1;
          });
          wandering.row(
            client,
            way,
            mbps(truth),
            medianOf(rates.map(({ steadyBps }) => steadyBps / 1e6)),
            percentOf(off),
            `${covers.length} of ${rates.length}`,
            rates.filter(({ rangeBps }) => rangeBps !== null && rangeBps !== undefined).length,
          );
        }
      },
    );
}
