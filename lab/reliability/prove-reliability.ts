import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { median } from '@/core';
import { newDataFolder, startProgram, type Program } from '../../e2e/program';
import { endInOrder, numberArgument } from '../end-together';
import { runAgent } from './agent-beside';
import { sendHostile } from './hostile-messages';
import { holdStrangers } from './hold-strangers';
import { killAgainAndAgain } from './kills';
import { memoryOf } from './memory-of';

/**
 * Shows what the program withstands: kills at random moments, hostile messages, strangers that hold its door. Usage:
 * npm run prove-reliability -- [kills] [messages] [strangers] [runs beside]; ends with 1 where something did not hold.
 */
endInOrder();
const KILLS = numberArgument(process.argv[2], 300, 'The number of kills');
const MESSAGES = numberArgument(process.argv[3], 10_000, 'The number of messages');
const STRANGERS = numberArgument(process.argv[4], 2000, 'The number of strangers');
const RUNS = numberArgument(process.argv[5], 5, 'The number of runs beside');
/** Practice lines of a tenth of the rate, where no figure matters. */
const slowLines = process.env['PROVE_SLOW'] === '1';
const PORT = 4860;
const MEMORY_BOUND = 1.5;

let broken = 0;
function must(held: boolean, what: string): string {
  if (!held) broken += 1;
  return `${held ? 'held' : 'BROKEN'}: ${what}`;
}
const figure = (value: number | null) => (value === null ? 'no one figure' : value.toFixed(1));
const medianOf = (values: readonly (number | null)[]) => median(values.filter((value) => value !== null));

interface Beside {
  readonly downMbps: number | null;
  readonly upMbps: number | null;
  readonly idleMs: number | null;
  readonly addedMs: number | null;
  readonly without: number;
}

/** Medians of runs of the agent over the demo's line. */
async function measureBeside(program: Program, state: string, while_: () => boolean = () => true): Promise<Beside> {
  const results = [];
  for (let run = 0; run < RUNS && while_(); run += 1)
    results.push(await runAgent(`${program.origin}/j/${program.code}`, 'Measuring beside', state));
  for (const { answer, said } of results) if (answer === null) console.error(`Without a result: ${said}`);
  const answers = results.flatMap(({ answer }) => answer?.result ?? []);
  const mbps = (value: number | null) => (value === null ? null : value / 1e6);
  return {
    downMbps: mbps(medianOf(answers.map(({ downBps }) => downBps))),
    upMbps: mbps(medianOf(answers.map(({ upBps }) => upBps))),
    idleMs: medianOf(answers.map(({ idleMs }) => idleMs)),
    addedMs: medianOf(answers.map(({ addedMs }) => addedMs)),
    without: results.length - answers.length,
  };
}

function besideRow(what: string, { downMbps, upMbps, idleMs, addedMs, without }: Beside): string {
  return `| ${what} | ${figure(downMbps)} | ${figure(upMbps)} | ${figure(idleMs)} | ${figure(addedMs)} | ${without} |`;
}

function sayKills(table: Awaited<ReturnType<typeof killAgainAndAgain>>): void {
  const { kills, ready, lost, changed, halfWritten, checks, complaints, answersAgainMs, grantedAgainMs } = table;
  console.log(
    `\n${KILLS} kills: ${Object.entries(kills)
      .map(([part, count]) => `${part} ${count}`)
      .join(', ')}`,
  );
  console.log(`Results that were ready: ${ready.agent} of the agent, ${ready.page} of the page.`);
  console.log(must(lost.length === 0, `results lost: ${lost.length} ${lost.join('; ')}`));
  console.log(must(changed.length === 0, `records changed afterwards: ${changed.length} ${changed.join('; ')}`));
  console.log(must(halfWritten === 0, `half-written: ${halfWritten}`));
  console.log(
    must(complaints.length === 0, `${checks} looks into the database, complaints: ${complaints.join('; ') || 'none'}`),
  );
  const worst = (values: readonly number[]) => (values.length === 0 ? 0 : Math.max(...values) / 1000);
  console.log(
    `The console answered again after ${((median(answersAgainMs) ?? 0) / 1000).toFixed(1)} s (median), ${worst(answersAgainMs).toFixed(1)} s (worst).`,
  );
  console.log(
    must(
      worst(grantedAgainMs) <= 15,
      `where no run was under way, the next began within ${worst(grantedAgainMs).toFixed(1)} s (${grantedAgainMs.length} times)`,
    ),
  );
}

if (KILLS >= 1) sayKills(await killAgainAndAgain(Math.floor(KILLS)));

const program = await startProgram({ mode: 'demo', port: PORT, data: newDataFolder(), slowLines });
const state = mkdtempSync(join(tmpdir(), 'bent-straw-reliability-'));
const pids = () => program.childrenWith('dist/');
const alone = await measureBeside(program, state);
// By now every part is there, those too that start after the door.
const before = pids();
const memoryBefore = memoryOf(before);

let sending = true;
const target = { port: PORT, code: program.code!, udpPort: PORT };
const hostile = (async () => {
  const rows = await sendHostile(target, MESSAGES);
  sending = false;
  return rows;
})();
const beside = await measureBeside(program, state, () => sending);
const rows = await hostile;
await sleep(3000);
const memoryAfter = memoryOf(pids());
console.log('\n| hostile messages | sent | answered | stacks shown |\n|---|---|---|---|');
for (const { kind, sent, statuses, stacks } of rows)
  console.log(
    `| ${kind} | ${sent} | ${[...statuses].map(([status, count]) => `${status}: ${count}`).join(', ')} | ${stacks} |`,
  );
console.log(
  must(
    before.every((pid) => pids().includes(pid)),
    'no part crashed',
  ),
);
console.log(
  must(
    rows.every(({ stacks }) => stacks === 0),
    'no stack was shown',
  ),
);
console.log(must(!/\n\s+at .+:\d+:\d+/.test(program.output()), 'no stack was printed'));
console.log(
  must(memoryAfter <= MEMORY_BOUND * memoryBefore, `memory ${(memoryAfter / memoryBefore).toFixed(2)} × of before`),
);

const strangers = holdStrangers(PORT, STRANGERS);
await sleep(3000);
const held = strangers.held;
const amid = await measureBeside(program, state);
const reopened = strangers.reopened;
strangers.end();
console.log(
  `\n${held} of ${STRANGERS} strangers held a connection when the device came; ${reopened} were shut out and came again.`,
);
console.log(
  '| a device measures | down, Mb/s | up, Mb/s | idle delay, ms | added delay, ms | without a result |\n|---|---|---|---|---|---|',
);
console.log(besideRow('alone', alone));
console.log(besideRow('beside hostile messages', beside));
console.log(besideRow('amid strangers', amid));
for (const [what, { downMbps, upMbps, addedMs, without }] of [
  ['hostile messages', beside],
  ['strangers', amid],
] as const) {
  const off = (value: number | null, than: number | null) => Math.abs((value ?? 0) / (than ?? 1) - 1);
  const rate = Math.max(off(downMbps, alone.downMbps), off(upMbps, alone.upMbps));
  const delay = Math.abs((addedMs ?? 1e9) - (alone.addedMs ?? 0));
  console.log(
    must(
      without === 0 && rate < 0.02 && delay < 5,
      `${what}: rates within ${(rate * 100).toFixed(2)} %, delay within ${delay.toFixed(1)} ms`,
    ),
  );
}
await program.interrupt();
console.log(broken === 0 ? '\nEverything held.' : `\n${broken} did not hold.`);
process.exit(broken === 0 ? 0 : 1);
