import { queueAdvice, seededRandom, type QueueTrial } from '@/core';
import { Unfinished, watchedRun } from '../measure-run';
import { carriedBps, type LabLine } from '../net/lab-line';
import { onBench, type Bench } from './lab-cell';
import { medianOf, Table } from './table';

const LINE = { downMbps: 100, upMbps: 20, queueMs: 300, baseMs: 20 } as const;
/** How far and how often the rate of the swinging line changes. */
const SWING = { share: 0.2, everyMs: 3000 } as const;
const FIRM_MS = 30;
const RUNS = 3;
/** Settings among which the best is looked for afterwards, as shares of the shaper's own rate. */
const SWEEP = [0.74, 0.78, 0.82, 0.86, 0.9, 0.93, 0.96, 0.98, 1] as const;
const MOST_STEPS = 8;

interface Trial {
  readonly rates: number[];
  readonly addedMs: number[];
}

async function quickRuns({ line, program, client }: Bench): Promise<Trial> {
  const trial: Trial = { rates: [], addedMs: [] };
  for (let attempt = 0; attempt < 2 * RUNS && trial.addedMs.length < RUNS; attempt += 1)
    try {
      const { report } = await watchedRun(line, program, client, 'quick');
      if (report.up.rate === null || report.up.addedMs === null) continue;
      trial.rates.push(report.up.rate.steadyBps);
      trial.addedMs.push(report.up.addedMs);
    } catch (error) {
      if (!(error instanceof Unfinished)) throw error;
      console.error(`  no result: ${error.message}`);
    }
  return trial;
}

/** Lets the upload swing below its rate; returns what ends that. */
function swing(line: LabLine): () => void {
  const random = seededRandom(3);
  const step = () => line.shape('up', { rateMbps: LINE.upMbps * (1 - SWING.share * random()), queueMs: LINE.queueMs });
  const stepping = setInterval(step, SWING.everyMs);
  return () => clearInterval(stepping);
}

async function advised(bench: Bench, name: string, table: Table): Promise<void> {
  // Three quick runs are one set of the line without any setting, as the console keeps them.
  const steadyBps = (await quickRuns(bench)).rates;
  const trials: QueueTrial[] = [];
  let advice = queueAdvice({ steadyBps, trials, firmBelowMs: FIRM_MS });
  while (advice?.status === 'set' && trials.length < MOST_STEPS) {
    bench.line.manageQueue(advice.bps);
    trials.push({ setBps: advice.bps, ...(await quickRuns(bench)) });
    advice = queueAdvice({ steadyBps, trials, firmBelowMs: FIRM_MS });
  }
  // The best of all settings, tried one by one.
  let best = 0;
  for (const share of SWEEP) {
    const setBps = share * LINE.upMbps * 1e6;
    bench.line.manageQueue(setBps);
    const { addedMs } = await quickRuns(bench);
    if (Number(medianOf(addedMs)) < FIRM_MS) best = Math.max(best, setBps);
  }
  const end = advice?.status === 'done' ? advice : null;
  table.row(
    name,
    medianOf(steadyBps.map((bps) => bps / 1e6)),
    trials.map(({ setBps, addedMs }) => `${(setBps / 1e6).toFixed(2)}: +${medianOf(addedMs)}`).join(', '),
    trials.length,
    end === null ? (advice?.status ?? 'nothing') : `${(end.bps / 1e6).toFixed(2)}, +${end.addedMs.toFixed(1)} ms`,
    (best / 1e6).toFixed(2),
    end === null || best === 0 ? '–' : `${((end.bps / best - 1) * 100).toFixed(1)} %`,
  );
}

/** Queue advice followed to its end: a short queue at the advised rate as the router, before a line with a deep one. */
export async function queueTable(): Promise<void> {
  const carried = (carriedBps({ rateMbps: LINE.upMbps, queueMs: LINE.queueMs }, 1500)! / 1e6).toFixed(1);
  const table = new Table(
    'Queue advice',
    `${LINE.downMbps}/${LINE.upMbps} Mb/s (carries ${carried} up), base delay ${LINE.baseMs} ms, queue ${LINE.queueMs} ms; a token bucket with 15 ms of queue before it as the router. Each step three quick runs of Node. Best: the highest of ${SWEEP.length} settings tried afterwards at which the median of three runs stayed firm (under ${FIRM_MS} ms).`,
    ['line', 'without, up', 'set, Mb/s: added, ms', 'steps', 'ends with', 'best', 'against the best'],
  );
  const config = {
    down: { rateMbps: LINE.downMbps, queueMs: LINE.queueMs },
    up: { rateMbps: LINE.upMbps, queueMs: LINE.queueMs },
    baseMs: LINE.baseMs,
  };
  await onBench(config, 'Node', (bench) => advised(bench, 'steady', table));
  await onBench(config, 'Node', async (bench) => {
    const end = swing(bench.line);
    try {
      await advised(bench, `swings by ${SWING.share * 100} %`, table);
    } finally {
      end();
    }
  });
}
