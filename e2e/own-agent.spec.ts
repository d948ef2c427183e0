import { hostname } from 'node:os';
import { expect } from '@playwright/test';
import { test } from './one-browser';
import { newPort } from './ports';
import { newDataFolder, startProgram, type Program } from './program';
import { signIn } from './technician';

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
  const agents = (await (await page.request.get(`${program.origin}/api/v1/sites`)).json()) as
    | { sites?: { id: string }[] }
    | { id: string }[];
  const siteId = (Array.isArray(agents) ? agents : agents.sites!)[0]!.id;
  const { agents: machines } = (await (
    await page.request.get(`${program.origin}/api/v1/sites/${siteId}/agents`)
  ).json()) as {
    agents: { deviceId: string }[];
  };
  const added = await page.request.post(`${program.origin}/api/v1/lanes`, {
    data: {
      deviceId: machines[0]!.deviceId,
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
