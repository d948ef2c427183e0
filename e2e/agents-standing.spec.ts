import { execFileSync, spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, type Page } from '@playwright/test';
import { test } from './one-browser';
import { newPort } from './ports';
import { newDataFolder, startProgram, type Program } from './program';
import { signIn } from './technician';

test.describe.configure({ mode: 'serial' });

/** A machine with Node and nothing else: what it fetched from the console, and its own state. */
const MACHINE = mkdtempSync(join(tmpdir(), 'bent-straw-e2e-'));
const FILE = join(MACHINE, 'bent-straw-agent.mjs');
const env = { ...process.env, HOME: MACHINE, XDG_STATE_HOME: join(MACHINE, 'state') };
const port = newPort();
const data = newDataFolder();
let program: Program;
let agent: { readonly child: ChildProcess; said: string } | null = null;

const start = async () => (program = await startProgram({ mode: 'demo', port, data, slowLines: true }));
test.beforeAll(start);
test.afterAll(async () => {
  agent?.child.kill('SIGKILL');
  await program.interrupt();
});

function startAgent(...args: string[]) {
  const child = spawn(process.execPath, [FILE, ...args], { env, cwd: MACHINE });
  const started = { child, said: '' };
  for (const stream of [child.stdout, child.stderr])
    stream.on('data', (part: Buffer) => (started.said += part.toString()));
  agent = started;
  return started;
}
const row = (page: Page) => page.getByRole('listitem').filter({ hasText: 'Cupboard box' });

test('two lines from the page make a machine an agent, and the page shows it by itself', async ({ page }) => {
  await signIn(page, program);
  await page.getByRole('link', { name: 'Agents' }).click();
  const lines = page.getByRole('region', { name: 'Add a machine' }).getByRole('listitem').locator('code');
  await expect(lines).toHaveCount(2);
  const [fetchLine, joinLine] = await lines.allInnerTexts();
  // As typed, but for the address: tests reach this machine by its loopback alone.
  expect(fetchLine).toMatch(/^curl -fo bent-straw-agent\.mjs http:\/\/\S+\/agent\.mjs$/);
  const fetched = await page.request.get(`${program.origin}/agent.mjs`);
  writeFileSync(FILE, await fetched.body());
  expect(readFileSync(FILE).length).toBeLessThan(1.5e6);
  const code = /\/j\/(\w+)/.exec(joinLine!)![1]!;
  startAgent('join', `${program.origin}/j/${code}`, '--name', 'Cupboard box', '--spot', 'Under the stairs');
  await expect(row(page)).toContainText('stands by');
  await expect(row(page)).toContainText('Under the stairs');
  await expect(row(page)).toContainText('has not measured yet');
  await expect.poll(() => agent!.said).toContain('Cupboard box is an agent of Larkspur Bindery');
});

test('what it sees of itself can be looked at there, as words and as data', () => {
  const words = execFileSync(process.execPath, [FILE, 'look'], { env, encoding: 'utf8' });
  expect(words).toContain('Links');
  const facts = JSON.parse(execFileSync(process.execPath, [FILE, 'look', '--json'], { env, encoding: 'utf8' })) as {
    links: unknown[];
  };
  expect(facts.links.length).toBeGreaterThan(0);
});

test('who else is on the network is told as new, until the technician says that he knows them', async ({ page }) => {
  await signIn(page, program, '/agent');
  const fresh = page.getByRole('table', { name: 'New on the network' });
  await expect(fresh.getByText('intercom-base.larkspur.example')).toBeVisible();
  await page.getByRole('button', { name: 'I know all of them' }).click();
  await expect(page.getByText('none of them is new')).toBeVisible();
  await expect(fresh).toHaveCount(0);
  await page.getByText('Those that are known').click();
  await expect(page.getByRole('table', { name: 'Known on the network' })).toContainText('paper-store.larkspur.example');
});

test('a schedule is read while it is typed, says what is wrong, and is kept', async ({ page }) => {
  test.setTimeout(200_000);
  await signIn(page, program, '/agent');
  await page.getByText('Make one').click();
  const sentence = page.getByLabel('when, how far');
  await sentence.fill('every minute, twice');
  await expect(page.getByText('leaves the line no rest')).toBeVisible();
  await expect(page.getByText('“twice”: That is no time')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Keep this schedule' })).toBeDisabled();
  // The next full minute that there is time to type for, by the clock of this machine: the office has chosen no other.
  const soon = new Date(Math.ceil((Date.now() + 8000) / 60_000) * 60_000);
  await sentence.fill(`at ${soon.getHours()}:${String(soon.getMinutes()).padStart(2, '0')}, local, quick`);
  await page.getByLabel('for whom').selectOption({ label: 'Cupboard box' });
  await page.getByLabel('spread over').fill('0');
  await expect(page.getByText(/7 runs a week/)).toBeVisible();
  await page.getByRole('button', { name: 'Keep this schedule' }).click();
  const made = page.getByRole('listitem').filter({ hasText: 'For Cupboard box' });
  await expect(made).toContainText('No time of it has come');
  // It comes, is made, and the page says so without being asked.
  await expect(made).toContainText('all 1 made', { timeout: 150_000 });
  await expect(row(page).first()).toContainText('measured last');
  // A run of its own moves it nowhere.
  await expect(row(page).first()).toContainText('Under the stairs');
  expect(agent!.said).toMatch(/Asked by schedule: at [\d:]+, every day, local, quick/);
  expect(agent!.said).toMatch(/Measured: [\d.]+( to [\d.]+)? Mb\/s down/);
});

test('it comes back by itself when the console was killed and started again', async ({ page }) => {
  await program.killAll();
  await expect.poll(() => agent!.said).toContain('The console does not answer');
  await start();
  await signIn(page, program, '/agent');
  await expect(row(page).first()).toContainText('stands by', { timeout: 45_000 });
});

test('it goes on as itself when it was killed and started again', async ({ page }) => {
  agent!.child.kill('SIGKILL');
  await signIn(page, program, '/agent');
  await expect(row(page).first()).toContainText('silent');
  startAgent('serve');
  await expect(row(page).first()).toContainText('stands by');
  await expect(page.getByText('Cupboard box').first()).toBeVisible();
});

/** What the agent says that refuses, with the memory of a machine. */
function refused(state: string, ...args: string[]): string {
  try {
    execFileSync(process.execPath, [FILE, ...args], {
      env: { ...env, XDG_STATE_HOME: join(MACHINE, state) },
      encoding: 'utf8',
      stdio: 'pipe',
    });
    return 'was not refused';
  } catch (error) {
    return (error as { stderr: string }).stderr;
  }
}

test('its unit can be printed, and is installed below another root with all that it needs', () => {
  const run = (...args: string[]) => execFileSync(process.execPath, [FILE, 'unit', ...args], { env, encoding: 'utf8' });
  expect(run()).toMatch(/ExecStart=\S+ \S+bent-straw-agent\.mjs serve/);
  const root = mkdtempSync(join(tmpdir(), 'bent-straw-e2e-'));
  expect(run('--install', '--root', root)).toContain(root);
  const unit = readFileSync(join(root, 'etc/systemd/system/bent-straw-agent.service'), 'utf8');
  expect(unit).toContain('/usr/local/lib/bent-straw/agent.mjs');
  expect(readFileSync(join(root, 'usr/local/lib/bent-straw/agent.mjs'))).toEqual(readFileSync(FILE));
  expect(readFileSync(join(root, 'var/lib/bent-straw/agent.json'), 'utf8')).toContain('Cupboard box');
  const where = refused('state', 'unit', '--install', '--root', '/dev/null');
  expect(where).toMatch(/cannot be written .*Run it as root, or write it elsewhere\. \[unit-refused\]/);
});

test('it is retired with one press, ends, says why, and does not come back', async ({ page }) => {
  await signIn(page, program, '/agent');
  const ended = new Promise<number | null>((resolve) => agent!.child.once('exit', resolve));
  await row(page).first().getByRole('button', { name: 'Retire' }).click();
  await page.getByRole('button', { name: 'Retire it' }).click();
  expect(await ended).toBe(77);
  expect(agent!.said).toContain('The technician retired this agent');
  await expect(page.getByText('Attic agent').first()).toBeVisible();
  await expect(page.getByRole('button', { name: 'Retire' })).toHaveCount(1);
  const again = startAgent('serve');
  expect(await new Promise((resolve) => again.child.once('exit', resolve))).toBe(77);
  expect(again.said).toContain('does not know this machine any more');
});

test('what cannot be is said with a code: no code in the address, no such code, no console, nothing joined', () => {
  expect(refused('none', 'serve')).toContain('[not-joined]');
  expect(refused('none', 'unit')).toContain('[not-joined]');
  expect(refused('none', 'join', program.origin)).toContain('[code-missing]');
  expect(refused('none', 'join', `${program.origin}/j/KKKKKK`)).toContain('No office here has the code KKKKKK');
  expect(refused('none', 'join', 'http://127.0.0.1:9/j/KKKKKK')).toContain('[console-unreachable]');
  expect(refused('none', 'look', '--path', 'nobody.invalid')).toMatch(/mistyped name\. \[look-refused\]/);
});
