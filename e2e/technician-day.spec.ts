import { expect, test } from '@playwright/test';
import { answer, inPhase, measure, ratesIn, resultShown } from './device';
import { signIn } from './technician';
import { newPort } from './ports';
import { newDataFolder, startProgram, type Program } from './program';

test.describe.configure({ mode: 'serial' });

const data = newDataFolder();
const PORT = newPort();
let program: Program;

test.beforeAll(async () => {
  program = await startProgram({ mode: 'demo', port: PORT, data });
});
test.afterAll(() => program.interrupt());

test('a phone joins by the code, measures through the line, and reads the result in one sentence', async ({
  browser,
}) => {
  const phone = await browser.newContext({ viewport: { width: 360, height: 740 } });
  const page = await phone.newPage();
  await page.goto(`${program.origin}/j/${program.code!.toLowerCase()}`);
  await answer(page, { name: 'Reading room laptop', spot: 'Reading room', link: 'by cable', cableMbps: '1000' });
  await measure(page);
  await resultShown(page);

  // The delay is the worse of the two, so the heading says it first and what it means. The line's queue of 240 ms is
  // between 72 and 100 % full (docs/practice-lines.md).
  const sentence = await page.getByRole('heading', { level: 1 }).innerText();
  expect(sentence).toMatch(/But while somebody uploads, everything waits (1[789]\d|2[0-4]\d) ms longer .* calls/);
  await expect(page.getByText('The plan is 500 down and 100 up: as paid for both ways.')).toBeVisible();
  const { down, up } = ratesIn(sentence);
  expect(down / 500).toBeGreaterThan(0.95);
  expect(down / 500).toBeLessThan(1.05);
  expect(up / 100).toBeGreaterThan(0.95);
  expect(up / 100).toBeLessThan(1.05);
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(360);
  await phone.close();
});

test('the run is on the board, in the ledger, and on a page of its own with its arithmetic and samples', async ({
  page,
}) => {
  await signIn(page, program);
  await page.getByRole('link', { name: /^Reading room laptop, wired · internet: full\./ }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Reading room laptop' })).toBeVisible();
  await expect(
    page.getByText('1000 Mb/s Ethernet × 1448/1538 = 941 Mb/s').or(page.getByText('× 1428/1538 = 928 Mb/s')).first(),
  ).toBeVisible();
  await expect(page.getByText('A practice line stood in for')).toBeVisible();
  await expect(page.getByText('loss not measured · TCP hides it')).toBeVisible();

  const link = page.getByRole('link', { name: 'Raw samples as JSON' });
  const document = (await (await page.request.get(program.origin + (await link.getAttribute('href'))!)).json()) as {
    samples: { download: { bytes: number[][] }; probes: { rttMs: number[] } };
  };
  expect(document.samples.download.bytes.length).toBeGreaterThanOrEqual(3);
  expect(document.samples.download.bytes.length).toBeLessThanOrEqual(5);
  expect(document.samples.probes.rttMs.length).toBeGreaterThan(100);

  await page.keyboard.press('l');
  await expect(page).toHaveURL(/ledger/);
  const narrow = page.getByLabel('Narrow the ledger');
  await narrow.fill('reading');
  await expect(page.getByRole('status').filter({ hasText: '1 run match' })).toBeVisible();
  await narrow.fill('reading reach=local');
  await expect(page.getByText('No run matches.')).toBeVisible();
});

test('three runs under the same conditions are one set, judged by their median', async ({ page }) => {
  await signIn(page, program);
  await page.getByRole('link', { name: /^Accounts laptop, 5 GHz · internet: thin/ }).click();
  const set = page.getByRole('region', { name: 'Set' });
  await expect(set).toContainText(/median of 3 runs/);
  await expect(set.getByRole('row')).toHaveCount(4);
  await expect(page.getByText('this is one run')).toHaveCount(0);
  await page.getByRole('link', { name: 'the one before' }).click();
  await expect(page.getByRole('link', { name: 'the one after' })).toBeVisible();
});

test('a run of a page measures loss too where the peer opens data channels, or says why it could not', async ({
  page,
}) => {
  const channels = newPort();
  const own = await startProgram({
    ...{ mode: 'start', port: newPort(), data: newDataFolder() },
    more: ['--channel-ports', `${channels}-${channels + 9}`, '--office', 'Counting house'],
  });
  try {
    await page.goto(`${own.origin}/j/${own.code}?profile=delay`);
    await answer(page, { name: 'Counting laptop' });
    await measure(page);
    await resultShown(page);
    await signIn(page, own, '/ledger');
    await page.getByRole('row').filter({ hasText: 'Counting laptop' }).getByRole('link').first().click();
    await expect(page.getByText(/messages over an unordered data channel/)).toContainText(/0\.\d\d %/);

    // An engine in which the channel hangs measures without it, and the run says why.
    await page.addInitScript(() => {
      window.RTCPeerConnection = class {
        createDataChannel = () => ({});
        createOffer = () => new Promise(() => undefined);
        close = () => undefined;
      } as unknown as typeof RTCPeerConnection;
    });
    await page.goto(`${own.origin}/j/${own.code}?profile=delay`);
    await answer(page, { name: 'Counting laptop' });
    await measure(page);
    await inPhase(page, /Listening/);
    await page.getByRole('button', { name: 'Cancel' }).click();
    await expect(page.getByRole('heading', { name: 'The run was cancelled.' })).toBeVisible();
    await page.goto(`${own.origin}/ledger`);
    await page.getByRole('row').filter({ hasText: 'Counting laptop' }).getByRole('link').first().click();
    await expect(page.getByRole('region', { name: 'Trouble' })).toContainText('The data channel did not open in time');
  } finally {
    await own.interrupt();
  }
});

test('everything is still there after every process was killed and the program started again', async ({ page }) => {
  const code = program.code;
  await program.killAll();
  program = await startProgram({ mode: 'demo', port: PORT, data });
  expect(program.code).toBe(code);
  await signIn(page, program, '/ledger');
  await expect(page.getByRole('row').filter({ hasText: 'Reading room laptop' }).getByText('full')).toBeVisible();
});

test('the way through the console is found with the keyboard alone', async ({ page }) => {
  await signIn(page, program);
  await page.keyboard.press('t');
  await expect(page.getByRole('heading', { name: 'Set-up' })).toBeVisible();
  await page.keyboard.press('b');
  await page.keyboard.press('Tab');
  const join = page.getByRole('button', { name: 'Join a device' });
  await join.focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('dialog', { name: 'Join a device' })).toContainText(program.code!);
  await page.keyboard.press('Escape');
  await expect(join).toBeFocused();
  // An empty place says what is wanted there; pressing another moves the slip to that one.
  const emptyAt = (place: string) =>
    page.getByRole('button', { name: `Nothing measured yet: ${place}. Show the code.`, exact: true });
  await emptyAt('Accounts laptop, 2.4 GHz · local').focus();
  await page.keyboard.press('Enter');
  const slip = page.getByRole('dialog', { name: 'Join a device' });
  await expect(slip).toContainText('Nothing measured yet: Accounts laptop, 2.4 GHz · local.');
  await emptyAt('Accounts laptop, wired · local').click();
  await expect(slip).toContainText('Nothing measured yet: Accounts laptop, wired · local.');
  await page.keyboard.press('Escape');
  await expect(slip).toHaveCount(0);
  await expect(emptyAt('Accounts laptop, wired · local')).toBeFocused();
  // In a field, letters are letters.
  await page.goto(`${program.origin}/set-up`);
  await page.getByRole('form', { name: 'Line and plan' }).getByLabel('provider').press('b');
  await expect(page).toHaveURL(/set-up/);
});
