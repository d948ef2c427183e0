import { spawn } from 'node:child_process';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import { signIn } from './technician';
import { newPort } from './ports';
import { newDataFolder, startProgram, type Program } from './program';

test.describe.configure({ mode: 'serial' });

const STATE = mkdtempSync(join(tmpdir(), 'bent-straw-e2e-'));
const UDP_PORT = newPort();
let program: Program;

test.beforeAll(async () => {
  const more = ['--udp', String(UDP_PORT)];
  program = await startProgram({ mode: 'demo', port: newPort(), data: newDataFolder(), more });
});
test.afterAll(() => program.interrupt());

function agent(...args: string[]) {
  return new Promise<{ exit: number | null; out: string; err: string }>((resolve) => {
    const child = spawn(process.execPath, ['dist/agent-cli.js', 'run', ...args], {
      env: { ...process.env, XDG_STATE_HOME: STATE },
    });
    let [out, err] = ['', ''];
    child.stdout.on('data', (part: Buffer) => (out += part.toString()));
    child.stderr.on('data', (part: Buffer) => (err += part.toString()));
    child.once('exit', (exit) => resolve({ exit, out, err }));
  });
}
const address = () => `${program.origin}/j/${program.code}`;

test('the agent measures through the line, says it in one sentence, and its exit code is the verdict', async ({
  page,
}) => {
  const { exit, out } = await agent(address(), '--name', 'Attic box', '--cable-mbps', '1000');
  expect(out).toMatch(
    /^\d+ Mb\/s down and [\d.]+ up\. But while somebody uploads, everything waits \d+ ms longer .* The plan is 500 down and 100 up: as paid for both ways\./,
  );
  expect(exit).toBe(0);
  const [link] = /http\S+\/runs\/\S+/.exec(out)!;
  await signIn(page, program);
  await page.goto(link);
  await expect(page.getByRole('heading', { level: 1, name: 'Attic box' })).toBeVisible();
  await expect(page.getByLabel('Suitability')).toContainText('remote desktop');
  await expect(page.getByLabel('Suitability')).toContainText('not usable');
});

test('a machine is the same device the next time, and a verdict that cannot be given has its own exit code', async ({
  page,
}) => {
  const again = await agent(address(), '--name', 'Attic box', '--reach', 'local', '--profile', 'quick', '--json');
  expect(again.exit).toBe(12);
  const answer = JSON.parse(again.out) as { status: string; held: string; result: { verdict: string } };
  expect(answer).toMatchObject({ status: 'finished', result: { verdict: 'no verdict' } });
  expect(answer.held).toContain('one machine');
  await signIn(page, program, '/ledger');
  await page.getByLabel('Narrow the ledger').fill('device="attic box"');
  await expect(page.getByRole('status').filter({ hasText: '2 runs match' })).toBeVisible();
});

test('UDP at a chosen rate gives loss and jitter, direction by direction', async ({ page }) => {
  const { exit, out, err } = await agent(address(), '--name', 'Attic box', '--reach', 'local', '--paced-mbps', '10');
  expect(err).toBe('');
  expect(exit).toBe(12);
  await signIn(page, program);
  await page.goto(/http\S+\/runs\/\S+/.exec(out)![0]);
  const paced = page.getByText(/under UDP paced at/).locator('..');
  await expect(paced).toContainText(/under UDP paced at (9\.[5-9]\d|10\.\d) Mb\/s/);
  await expect(paced).toContainText(/loss 0\.\d\d %/);
  await expect(paced).toContainText(/jitter \(RFC 3550\) up [\d.]+ ms, down [\d.]+ ms/);
});

test('what cannot work is said in a sentence with a code, and a script sees it by the exit code', async () => {
  const cases: [string[], number, RegExp][] = [
    [['nowhere'], 64, /is not an address of a console\..*\[address-malformed\]/],
    [[address(), '--cable-mbps', 'fast'], 64, /--cable-mbps cannot be fast\..*\[option-malformed\]/],
    [['http://127.0.0.1:4999/j/AAAAAA'], 69, /No console answers at .*\[console-unreachable\]/],
    [[`${program.origin}/j/WRONG9`], 77, /No office here has the code WRONG9\..*\[console-refused\]/],
    // The outside peer of the demo answers no UDP.
    [[address(), '--name', 'Attic box', '--paced-mbps', '10'], 74, /This run needs UDP.*\[run-unfinished\]/],
  ];
  for (const [args, exit, words] of cases) {
    const failed = await agent(...args);
    expect(failed.err.replaceAll('\n', ' ')).toMatch(words);
    expect(failed.exit).toBe(exit);
  }
});
