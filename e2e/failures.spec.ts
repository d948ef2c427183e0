import { expect, test, type Page } from '@playwright/test';
import { answer, inPhase, measure, resultShown } from './device';
import { signIn } from './technician';
import { newPort } from './ports';
import { newDataFolder, startProgram, type Program } from './program';

const data = newDataFolder();
let program: Program;

test.beforeAll(async () => {
  program = await startProgram({ mode: 'demo', port: newPort(), data, slowLines: true });
});
test.afterAll(() => program.interrupt());

async function newestRow(page: Page, device: string) {
  await signIn(page, program, '/ledger');
  return page.getByRole('row').filter({ hasText: device }).first();
}

test('an unknown code is refused in words and can be typed again', async ({ page }) => {
  await page.goto(`${program.origin}/j/WRONG9`);
  await expect(page.getByText('No office here has the code WRONG9.')).toBeVisible();
  await page
    .getByLabel('code from the board')
    .fill(` ${program.code!.slice(0, 3)}-${program.code!.slice(3).toLowerCase()} `);
  await page.getByRole('button', { name: 'Open' }).click();
  await expect(page.getByRole('button', { name: 'Measure' })).toBeVisible();
});

test('a device without a name is asked for one', async ({ page }) => {
  await page.goto(`${program.origin}/j/${program.code}`);
  // One is proposed; whoever does not want it has to give another.
  await expect(page.getByLabel('Its name')).toHaveValue('Linux computer');
  await page.getByLabel('Its name').fill('');
  await measure(page);
  await expect(page.getByRole('alert').filter({ hasText: 'Give it a name' })).toBeVisible();
});

test('a console that is gone when a run is asked for is said, and nothing is measured that could not be shown', async ({
  page,
}) => {
  await page.goto(`${program.origin}/j/${program.code}`);
  await answer(page, { name: 'Early tablet', reach: 'inside the office only' });
  const asked: string[] = [];
  page.on('request', (request) => asked.push(new URL(request.url()).pathname));
  await page.route('**/_next/static/**', (route) => route.abort());
  await measure(page);
  await expect(page.getByRole('alert').filter({ hasText: 'A part of this page could not be fetched.' })).toBeVisible();
  expect(asked.some((path) => path.startsWith('/_next/static/'))).toBe(true);
  expect(asked).not.toContain('/api/v1/runs');
  await page.unroute('**/_next/static/**');
  await measure(page);
  await inPhase(page, /Downloading/);
  await page.getByRole('button', { name: 'Cancel' }).click();
  await expect(page.getByRole('heading', { name: 'The run was cancelled.' })).toBeVisible();
});

test('a run can be cancelled, is kept as unfinished, and the device can run again', async ({ page }) => {
  await page.goto(`${program.origin}/j/${program.code}`);
  await answer(page, { name: 'Cancelled laptop', reach: 'out to the internet' });
  await measure(page);
  await inPhase(page, /Downloading/);
  await page.getByRole('button', { name: 'Cancel' }).click();
  await expect(page.getByRole('heading', { name: 'The run was cancelled.' })).toBeVisible();
  await expect(page.getByRole('button', { name: /Run again/ })).toBeVisible();
  await expect(await newestRow(page, 'Cancelled laptop')).toContainText('unfinished · The run was cancelled.');
});

test('a closed tab leaves an unfinished run that says so', async ({ page, context }) => {
  const tab = await context.newPage();
  await tab.goto(`${program.origin}/j/${program.code}`);
  await answer(tab, { name: 'Closed tablet', reach: 'out to the internet' });
  await measure(tab);
  await inPhase(tab, /Downloading/);
  await tab.close({ runBeforeUnload: false });
  await expect(await newestRow(page, 'Closed tablet')).toContainText('The page was closed while it measured.');
});

test('going back in the middle ends the run at once, and nobody waits for it', async ({ page, context }) => {
  const leaving = await context.newPage();
  await leaving.goto(`${program.origin}/trust`);
  await leaving.goto(`${program.origin}/j/${program.code}`);
  await answer(leaving, { name: 'Restless tablet', reach: 'out to the internet' });
  await measure(leaving);
  await inPhase(leaving, /Downloading/);
  await leaving.goBack();
  const next = await (await context.browser()!.newContext()).newPage();
  await next.goto(`${program.origin}/j/${program.code}?profile=quick`);
  await answer(next, { name: 'Patient tablet', reach: 'out to the internet' });
  await measure(next);
  await expect(next.getByRole('heading', { name: /Downloading/ })).toBeVisible({ timeout: 10_000 });
  await resultShown(next);
  await next.context().close();
  await expect(await newestRow(page, 'Restless tablet')).toContainText('The page was closed while it measured.');
});

test('a second tab of a device that measures is told to wait', async ({ context }) => {
  const [first, second] = [await context.newPage(), await context.newPage()];
  await first.goto(`${program.origin}/j/${program.code}?profile=quick`);
  await answer(first, { name: 'Twice opened', reach: 'out to the internet' });
  await measure(first);
  await inPhase(first, /Downloading/);
  await second.goto(`${program.origin}/j/${program.code}?profile=quick`);
  await answer(second, { name: 'Twice opened', reach: 'out to the internet' });
  await measure(second);
  await expect(second.getByText('Twice opened is measuring already, in another tab or window.')).toBeVisible();
  await resultShown(first);
});

test('a peer that stops in the middle ends the run with the reason, and the next run works', async ({ page }) => {
  await page.goto(`${program.origin}/j/${program.code}?profile=quick`);
  await answer(page, { name: 'Peerless laptop' });
  await measure(page);
  await inPhase(page, /Downloading/);
  const [outsidePeer] = program.childrenWith('Hilltop');
  process.kill(outsidePeer!, 'SIGKILL');
  await expect(page.getByRole('heading', { name: 'The connection to the peer broke during the run.' })).toBeVisible();
  await expect(await newestRow(page, 'Peerless laptop')).toContainText('unfinished');
  await expect.poll(() => program.output()).toContain('The outside peer is back.');
  await page.goto(`${program.origin}/j/${program.code}?profile=quick`);
  await measure(page);
  await resultShown(page);
});

test('a console that stops in the middle costs nothing: the device keeps the result and hands it in', async ({
  page,
}) => {
  await page.goto(`${program.origin}/j/${program.code}?profile=quick`);
  await answer(page, { name: 'Patient laptop' });
  await measure(page);
  await inPhase(page, /Uploading/);
  const [consoleProcess] = program.childrenWith('console-main');
  process.kill(consoleProcess!, 'SIGSTOP');
  await page.waitForTimeout(200);
  process.kill(consoleProcess!, 'SIGKILL');
  await resultShown(page);
  await expect(page.getByText('The plan is 500 down')).toBeVisible();
  const row = await newestRow(page, 'Patient laptop');
  await expect(row).toContainText(/\+\d+ ms (soggy|collapsed)/);
  await expect(row).not.toContainText('unfinished');
});

test('a peer that cannot be reached is said to be, and set right in the set-up', async ({ page }) => {
  await signIn(page, program, '/set-up');
  await page.getByText('Hilltop exchange').click();
  const form = page.getByRole('form', { name: 'Hilltop exchange' });
  await form.getByLabel('address').fill(':4989');
  await form.getByRole('button', { name: 'Save the peer' }).click();
  await expect(page.getByText('Nothing answers at http://127.0.0.1:4989.')).toBeVisible();
  await page.goto(`${program.origin}/j/${program.code}`);
  await answer(page, { name: 'Lost laptop' });
  await measure(page);
  await expect(page.getByRole('heading', { name: 'The peer could not be reached.' })).toBeVisible({ timeout: 20_000 });
});

test('malformed and oversized requests are refused with a code, and lose nothing', async ({ page }) => {
  const { request } = page;
  const post = async (data: string) => {
    const response = await request.post(`${program.origin}/api/v1/runs`, {
      data,
      headers: { 'Content-Type': 'application/json' },
    });
    return [response.status(), ((await response.json()) as { code: string }).code];
  };
  expect(await post('{')).toEqual([400, 'request-malformed']);
  expect(await post('{"deviceName": 5}')).toEqual([400, 'request-malformed']);
  expect(await post(`"${'x'.repeat(5_000_000)}"`)).toEqual([413, 'body-too-large']);
  const stranger = await request.get(`${program.origin}/api/v1/runs/nothing/samples`);
  expect([stranger.status(), ((await stranger.json()) as { code: string }).code]).toEqual([401, 'not-signed-in']);
  await signIn(page, program);
  const unknown = await request.get(`${program.origin}/api/v1/runs/nothing/samples`);
  expect([unknown.status(), ((await unknown.json()) as { code: string }).code]).toEqual([404, 'run-unknown']);
  const nothing = await request.get(`${program.origin}/runs/nothing`);
  expect(nothing.status()).toBe(404);
  expect(await nothing.text()).toContain('Nothing is kept at this address');
});

test('a browser that lacks what measuring stands on is told so at once, with what still works', async ({ page }) => {
  await page.addInitScript(() => {
    Reflect.deleteProperty(window, 'Worker');
    Reflect.deleteProperty(Array.prototype, 'toSorted');
  });
  await page.goto(`${program.origin}/j/${program.code}`);
  const note = page.getByRole('alert').filter({ hasText: 'too old to measure' });
  await expect(note).toContainText('Chrome or Edge 111, Firefox 128, Safari 16.4');
  await expect(note).toContainText('this one lacks: workers, arrays as of 2023.');
  await expect(note).toContainText(`npm run agent -- run ${program.origin}/j/${program.code}`);
});

test('a browser whose measuring falls silent is found out, and the run says so', async ({ page }) => {
  await page.clock.install();
  await page.addInitScript(() => {
    window.Worker = class extends EventTarget {
      postMessage() {}
      terminate() {}
    } as unknown as typeof Worker;
  });
  await page.goto(`${program.origin}/j/${program.code}`);
  await answer(page, { name: 'Mute tablet' });
  await measure(page);
  await inPhase(page, /Reaching the peer/);
  await page.clock.runFor(30_000);
  await expect(page.getByText('The browser stopped measuring in the middle, without saying why.')).toBeVisible();
  await expect(page.getByRole('button', { name: /Run again/ })).toBeVisible();
});

test('a browser whose first worker never says a word is given another, and the run says so', async ({ page }) => {
  await page.addInitScript(() => {
    const Real = window.Worker;
    let started = 0;
    window.Worker = function (...args: ConstructorParameters<typeof Worker>) {
      started += 1;
      return started === 1 ? new Real(URL.createObjectURL(new Blob(['']))) : new Real(...args);
    } as unknown as typeof Worker;
  });
  await page.goto(`${program.origin}/j/${program.code}?profile=quick`);
  await answer(page, { name: 'Late tablet', reach: 'inside the office only' });
  await measure(page);
  await inPhase(page, /Listening/);
  await page.getByRole('button', { name: 'Cancel' }).click();
  await expect(page.getByRole('heading', { name: 'The run was cancelled.' })).toBeVisible();
  await signIn(page, program, '/ledger');
  await page.getByRole('row').filter({ hasText: 'Late tablet' }).getByRole('link').first().click();
  await expect(page.getByText('the browser did not begin to measure when it was asked')).toBeVisible();
});

test('on a slow path the form waits until the page can do something with it', async ({ page }) => {
  let letThrough: () => void = () => undefined;
  const gate = new Promise<void>((resolve) => (letThrough = resolve));
  await page.route('**/_next/static/**/*.js', async (route) => {
    await gate;
    await route.continue();
  });
  await page.goto(`${program.origin}/j/${program.code}`, { waitUntil: 'commit' });
  await expect(page.getByRole('button', { name: 'One moment …' })).toBeDisabled();
  await expect(page.getByPlaceholder('for example: Reading room laptop')).toBeDisabled();
  letThrough();
  await answer(page, { name: 'Far tablet' });
  await expect(page.getByRole('button', { name: 'Measure' })).toBeEnabled();
});
