import type { Page } from '@playwright/test';
import { median, type RunReport, type RunSamples } from '@/core';
import { answer, measure, resultShown } from '../e2e/device';
import { endInOrder, numberArgument } from './end-together';
import { startBrowser } from '../e2e/browser';
import { newDataFolder, startProgram, type Program } from '../e2e/program';
import { MILL_LANE } from '@/programs/demo/scenario';
import { reportOf } from '@/core';

const LINE = MILL_LANE.line;

/**
 * How true the figures are through the demo's practice line, and how fast Chromium is without one. Starts the real
 * program, runs real runs in Chromium, recomputes each from its raw samples, and prints a table in Markdown.
 * `npm run measure -- 5` for five runs of each kind, `npm run measure -- 5 quick` for quick ones.
 */
const PORT = 4940;
const RUNS = numberArgument(process.argv[2], 3, 'The number of runs');
const PROFILE = process.argv[3] ?? 'standard';

interface SamplesDocument {
  readonly samples: RunSamples;
  readonly conditions: Parameters<typeof reportOf>[1];
}

async function oneRun(page: Page, program: Program, name: string, local: boolean): Promise<RunReport> {
  await page.goto(`${program.origin}/j/${program.code}?profile=${PROFILE}`);
  await answer(page, { name, link: 'by cable', reach: local ? 'inside the office only' : 'out to the internet' });
  const [handedIn] = await Promise.all([
    page.waitForResponse((response) => response.url().includes('/hand-in'), { timeout: 60_000 }),
    measure(page),
  ]);
  await resultShown(page);
  const { runId } = (await handedIn.json()) as { runId: string };
  const response = await page.request.get(`${program.origin}/api/v1/runs/${runId}/samples`);
  const { samples, conditions } = (await response.json()) as SamplesDocument;
  return reportOf(samples, conditions);
}

interface Row {
  readonly what: string;
  readonly truth: number | null;
  readonly unit: string;
  readonly figures: readonly (number | null)[];
  readonly bound: string;
}

function printRow({ what, truth, unit, figures, bound }: Row): void {
  const known = figures.filter((figure) => figure !== null);
  const middle = median(known);
  const shown = known.map((figure) => figure.toFixed(1)).join(', ');
  const off =
    truth === null || middle === null ? '' : `${middle - truth >= 0 ? '+' : ''}${(middle - truth).toFixed(1)}`;
  const share = truth === null || middle === null ? '' : ` (${((middle / truth - 1) * 100).toFixed(1)} %)`;
  console.log(
    `| ${what} | ${truth ?? '–'} ${unit} | ${middle?.toFixed(1) ?? 'not measured'} | ${off}${share} | ${bound} | ${shown} |`,
  );
}

endInOrder();
const program = await startProgram({ mode: 'demo', port: PORT, data: newDataFolder() });
const browser = await startBrowser();
try {
  const page = await browser.newPage();
  const through: RunReport[] = [];
  const unshaped: RunReport[] = [];
  for (let run = 0; run < RUNS; run += 1) {
    through.push(await oneRun(page, program, 'Measured bench', false));
    unshaped.push(await oneRun(page, program, 'Measured bench', true));
  }
  const mbps = (rateBps: number | undefined) => (rateBps === undefined ? null : rateBps / 1e6);
  console.log(
    `\n${new Date().toISOString().slice(0, 10)}, Chromium ${browser.version()}, Node ${process.versions.node}, median of ${RUNS}\n`,
  );
  console.log('| figure | truth | median | off by | wanted | each run |\n|---|---|---|---|---|---|');
  printRow({
    what: 'download, practice line',
    truth: LINE.downMbps,
    unit: 'Mb/s',
    bound: '5 %',
    figures: through.map((report) => mbps(report.down.rate?.steadyBps)),
  });
  printRow({
    what: 'upload, practice line',
    truth: LINE.upMbps,
    unit: 'Mb/s',
    bound: '5 %',
    figures: through.map((report) => mbps(report.up.rate?.steadyBps)),
  });
  printRow({
    what: 'idle delay',
    truth: LINE.roundTripMs,
    unit: 'ms',
    bound: '2 ms',
    figures: through.map((report) => report.idleDelay?.medianMs ?? null),
  });
  printRow({
    what: 'added delay, upload',
    truth: LINE.upQueueMs,
    unit: 'ms',
    bound: '15 %',
    figures: through.map((report) => report.up.addedMs),
  });
  printRow({
    what: 'added delay, download',
    truth: LINE.downQueueMs,
    unit: 'ms',
    bound: '–',
    figures: through.map((report) => report.down.addedMs),
  });
  printRow({
    what: 'download, unshaped loopback',
    truth: null,
    unit: 'Mb/s',
    bound: 'at least 2000',
    figures: unshaped.map((report) => mbps(report.down.rate?.steadyBps)),
  });
  printRow({
    what: 'upload, unshaped loopback',
    truth: null,
    unit: 'Mb/s',
    bound: '–',
    figures: unshaped.map((report) => mbps(report.up.rate?.steadyBps)),
  });
} finally {
  await browser.close();
  await program.interrupt();
}
