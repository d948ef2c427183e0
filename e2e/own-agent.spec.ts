import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { mkdtempSync } from 'node:fs';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { hostname, tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, type Page } from '@playwright/test';
import { test } from './one-browser';
import { newPort } from './ports';
import { newDataFolder, startProgram, type Program } from './program';
import { signIn } from './technician';

/** What the API calls this machine. */
async function ownMachine(page: Page, name = hostname()): Promise<{ siteId: string; deviceId: string }> {
  const read = async <Document>(path: string) =>
    (await (await page.request.get(`${program.origin}/api/v1/sites${path}`)).json()) as Document;
  const [site] = await read<{ id: string }[]>('');
  const { agents } = await read<{ agents: { deviceId: string; name: string }[] }>(`/${site!.id}/agents`);
  return { siteId: site!.id, deviceId: agents.find((agent) => agent.name === name)!.deviceId };
}

const PAGE_BYTES = 1_200_000_000;

/** A page of so many zeros, handed out from where it is asked for, 20 MB a second. */
async function startWebServer() {
  const zeros = Buffer.alloc(1_000_000);
  const server = createServer(({ headers }, answer) => {
    const [, from = '0', to = ''] = /^bytes=(\d+)-(\d*)$/.exec(headers.range ?? '') ?? [];
    const last = to === '' ? PAGE_BYTES - 1 : Number(to);
    answer.writeHead(206, {
      ...{ 'Content-Range': `bytes ${from}-${last}/${PAGE_BYTES}`, 'Content-Length': last - Number(from) + 1 },
    });
    if (to !== '') return void answer.end(zeros.subarray(0, last - Number(from) + 1));
    const pouring = setInterval(() => answer.write(zeros), 50);
    answer.once('close', () => clearInterval(pouring));
  }).listen(0, '127.0.0.1');
  await once(server, 'listening');
  return {
    page: `http://127.0.0.1:${(server.address() as AddressInfo).port}/large.bin`,
    close: () => {
      server.closeAllConnections();
      server.close();
    },
  };
}

test.describe.configure({ mode: 'serial' });

const port = newPort();
const data = newDataFolder();
let program: Program;
const start = async () => {
  program = await startProgram({ mode: 'start', port, data, agent: true, more: ['--office', 'Larkspur Bindery'] });
};
test.beforeAll(start);
test.afterAll(() => program.interrupt());

test('the console’s own machine stands by and is watched from the first minute, without anybody joining it', async ({
  page,
}) => {
  await signIn(page, program);
  // Nothing was measured: how one begins is still said.
  await expect(page.getByRole('heading', { name: 'Nothing has been measured here yet' })).toBeVisible();
  await page.goto(`${program.origin}/agent`);
  const own = page.getByRole('listitem').filter({ hasText: hostname() }).first();
  await expect(own).toContainText('stands by');
  await page.goto(`${program.origin}/look?what=path`);
  await page.getByLabel('to a name or an address').fill('127.0.0.1');
  await page.getByRole('button', { name: 'Look', exact: true }).click();
  await expect(page.getByRole('region', { name: 'What was looked at' })).toContainText('127.0.0.1 is 1 hop away.', {
    timeout: 30_000,
  });
});

test('a lane that is added is asked at once, and what it says is seen live', async ({ page }) => {
  await signIn(page, program);
  const { deviceId } = await ownMachine(page);
  const added = await page.request.post(`${program.origin}/api/v1/lanes`, {
    data: {
      deviceId,
      name: 'Itself',
      kind: 'echo',
      target: '127.0.0.1',
      role: 'inside',
      everySeconds: 0.5,
    },
    headers: { Origin: program.origin },
  });
  expect(added.status()).toBe(201);
  await page.goto(`${program.origin}/watch?span=300000`);
  const lanes = page.getByRole('slider', { name: `Lanes of ${hostname()}` });
  await expect(lanes).toHaveAttribute('aria-valuetext', /Itself: \d+\.\d ms/, { timeout: 30_000 });
});

test('a soak is asked for, seen second by second as it goes, and stopped from the board', async ({ page }) => {
  await signIn(page, program, '/watch?span=300000');
  const soak = page.getByRole('region', { name: 'A soak' });
  await soak.getByLabel('which device').selectOption(hostname());
  await soak.getByLabel('where to').selectOption('inside the office only');
  await soak.getByRole('button', { name: 'Measure for four minutes' }).click();
  await expect(soak.getByText(`${hostname()} was asked`)).toBeVisible();
  await expect(page.getByRole('region', { name: hostname() }).getByText(/[GM]b\/s down/)).toBeVisible({
    timeout: 30_000,
  });
  await page.goto(program.origin);
  const queue = page.getByRole('region', { name: 'Queue' });
  await queue.getByRole('button', { name: `Stop the run of ${hostname()}, local` }).click();
  await expect(queue.getByText('Nothing runs and nothing waits.')).toBeVisible();
  await page.goto(`${program.origin}/ledger`);
  await expect(page.getByRole('row').filter({ hasText: hostname() }).first()).toContainText('cancelled');
});

test('where there is no peer outside, it loads a web server: entered in the set-up, measured, and told as what it is', async ({
  page,
}) => {
  const mirror = await startWebServer();
  await signIn(page, program, '/set-up');
  await page.getByText('No peer outside yet? Let agents load a web server').click();
  const form = page.getByRole('form', { name: 'New web server' });
  await form.getByLabel('name', { exact: true }).fill('Mirror');
  await form.getByLabel('contact').fill('tech@larkspur.example');
  await form.getByLabel('what may be loaded').fill('files.example/large.bin');
  await form.getByRole('button', { name: 'Add the web server' }).click();
  await expect(form.getByText(/Write whole addresses, such as/)).toBeVisible();
  await form.getByLabel('what may be loaded').fill(mirror.page);
  await form.getByRole('button', { name: 'Add the web server' }).click();
  await expect(page.getByText(/answers, 1\.20 GB · downloads by agents only/)).toBeVisible();

  const { siteId, deviceId } = await ownMachine(page);
  const asked = await page.request.post(`${program.origin}/api/v1/turns`, {
    data: {
      ...{ siteId, deviceIds: [deviceId], reaches: ['internet'], times: 1, profile: 'quick' },
    },
    headers: { Origin: program.origin },
  });
  expect(asked.status()).toBe(201);
  await page.goto(program.origin);
  const queue = page.getByRole('region', { name: 'Queue' });
  await expect(queue.getByText('Nothing runs and nothing waits.')).toBeVisible({ timeout: 30_000 });
  await page.goto(`${program.origin}/ledger`);
  await page.getByRole('row').filter({ hasText: hostname() }).getByRole('link').first().click();
  await expect(page.getByText('Upload was not measured')).toBeVisible();
  await expect(page.getByText('Mirror: downloads alone, delay by TCP handshakes')).toBeVisible();
  await expect(page.getByText('the far end is a web server of somebody else')).toBeVisible();
  mirror.close();
});

test('it is the far end of another machine’s run: chosen on the page of agents, and told with both ends', async ({
  page,
}) => {
  await signIn(page, program, '/agent');
  const state = mkdtempSync(join(tmpdir(), 'bent-straw-e2e-'));
  const code = /\(code (\w+)\)/.exec(program.output())![1]!;
  const attic = spawn(
    process.execPath,
    ['dist/agent.mjs', 'join', `${program.origin}/j/${code}`, '--name', 'Attic box'],
    {
      env: { ...process.env, HOME: state, XDG_STATE_HOME: state },
      stdio: 'ignore',
    },
  );
  const form = page.getByRole('form', { name: 'Measure between two machines' });
  await form.getByLabel('from').selectOption('Attic box');
  await expect(form.getByLabel('to', { exact: true })).toHaveValue((await ownMachine(page, hostname())).deviceId);
  await form.getByLabel('how').selectOption('quick');
  await form.getByRole('button', { name: 'Measure between them' }).click();
  await expect(form.getByText('In the queue; the board shows it')).toBeVisible();
  await page.goto(program.origin);
  const queue = page.getByRole('region', { name: 'Queue' });
  await expect(queue.getByText('Nothing runs and nothing waits.')).toBeVisible({ timeout: 40_000 });
  attic.kill('SIGTERM');
  await page.goto(`${program.origin}/ledger?q=reach%3Dbetween`);
  await page.getByRole('row').filter({ hasText: 'Attic box' }).getByRole('link').first().click();
  await expect(page.getByText(`between · against ${hostname()}`)).toBeVisible();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Attic box');
  await expect(page.getByText(`${hostname()}, an agent`)).toBeVisible();
  // Both ends are this very machine, which is said before anything else.
  await expect(page.getByText('The device and the peer are one machine')).toBeVisible();
  const { deviceId } = await ownMachine(page, 'Attic box');
  await page.request.delete(`${program.origin}/api/v1/agents/${deviceId}`, { headers: { Origin: program.origin } });
});

test('it is the same after a start, and stays away once it is retired', async ({ page }) => {
  test.setTimeout(60_000);
  await program.interrupt();
  await start();
  await signIn(page, program, '/agent');
  const own = page.getByRole('listitem').filter({ hasText: hostname() }).first();
  await expect(own).toContainText('stands by', { timeout: 30_000 });
  await own.getByRole('button', { name: 'Retire', exact: true }).click();
  await page.getByRole('button', { name: 'Retire it' }).click();
  await expect(page.getByText('None yet. Two lines on a machine')).toBeVisible();
  await program.interrupt();
  await start();
  await page.goto(`${program.origin}/agent`);
  await expect(page.getByText('None yet. Two lines on a machine')).toBeVisible();
});
