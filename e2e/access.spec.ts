import { once } from 'node:events';
import { connect } from 'node:tls';
import { expect, test } from '@playwright/test';
import { answer, measure, resultShown } from './device';
import { newPort } from './ports';
import { newDataFolder, startProgram, type Program } from './program';
import { FIRST_PASSPHRASE, signIn } from './technician';

test.describe.configure({ mode: 'serial' });

const PORT = newPort();
let program: Program;
test.beforeAll(async () => {
  const more = ['--office', 'Larkspur Bindery'];
  program = await startProgram({ mode: 'start', port: PORT, data: newDataFolder(), more });
});
test.afterAll(() => program.interrupt());

test('the first start prints a link that sets the passphrase, once; nothing is seen before', async ({ page }) => {
  const link = /http:\S+\/welcome\/\S+/.exec(program.output())![0];
  for (const place of ['/', '/ledger', '/set-up', '/runs/any']) {
    await page.goto(program.origin + place);
    await expect(page.getByRole('heading', { name: 'No passphrase yet' })).toBeVisible();
    await expect(page.getByText('Larkspur')).toHaveCount(0);
  }
  await page.goto(`${link.slice(0, -3)}abc`);
  await expect(page.getByRole('heading', { name: 'This link opens nothing' })).toBeVisible();

  await page.goto(link);
  await page.getByLabel('your name').fill('Ines');
  await page.getByLabel('passphrase', { exact: true }).fill('short');
  await page.getByLabel('the same again').fill('short');
  const open = page.getByRole('button', { name: 'Open the console' });
  await open.click();
  await expect(page.getByRole('alert').filter({ hasText: 'At least 10 characters' })).toBeVisible();
  await expect(open).toBeEnabled();
  await page.getByLabel('passphrase', { exact: true }).fill(FIRST_PASSPHRASE);
  await page.getByLabel('the same again').fill('something else');
  await open.click();
  await expect(page.getByText('The two are not the same.')).toBeVisible();
  await expect(open).toBeEnabled();
  await expect(page.getByLabel('your name')).toHaveValue('Ines');
  await page.getByLabel('passphrase', { exact: true }).fill(FIRST_PASSPHRASE);
  await page.getByLabel('the same again').fill(FIRST_PASSPHRASE);
  await open.click();
  await expect(page.getByRole('heading', { name: 'No device has been here yet' })).toBeVisible();

  await page.context().clearCookies();
  await page.goto(link);
  await expect(page.getByRole('heading', { name: 'This link opens nothing' })).toBeVisible();
});

test('a wrong passphrase is refused, the right one leads back to where one wanted to go, and sign-out ends it', async ({
  page,
}) => {
  await page.goto(`${program.origin}/set-up`);
  await page.getByLabel('your name').fill('Ines');
  await page.getByLabel('passphrase').fill('seven quires of paper');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByText('That name and passphrase do not belong together.')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Sign in' })).toBeEnabled();
  await page.getByLabel('passphrase').fill(FIRST_PASSPHRASE);
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByRole('heading', { name: 'Set-up' })).toBeVisible();
  await page.getByRole('button', { name: 'sign out' }).click();
  await expect(page).toHaveURL(/sign-in/);
  await page.goto(`${program.origin}/set-up`);
  await expect(page.getByRole('heading', { name: 'Sign in' })).toBeVisible();
});

test('a return address of another site is not followed', async ({ page }) => {
  await page.goto(`${program.origin}/sign-in?to=//example.invalid/`);
  await page.getByLabel('your name').fill('Ines');
  await page.getByLabel('passphrase').fill(FIRST_PASSPHRASE);
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page).toHaveURL(`${program.origin}/`);
});

test('a device sees its own result and nothing else', async ({ browser, page }) => {
  await signIn(page, program);
  const device = await browser.newContext();
  const screen = await device.newPage();
  await screen.goto(`${program.origin}/j/${program.code}?profile=quick`);
  await answer(screen, { name: 'Curious laptop' });
  await measure(screen);
  await resultShown(screen);
  await page.reload();
  await page.getByRole('link', { name: /^Curious laptop/ }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Curious laptop' })).toBeVisible();

  await screen.goto(page.url());
  await expect(screen.getByRole('heading', { level: 1, name: 'Curious laptop' })).toBeVisible();
  await expect(screen.getByRole('navigation', { name: 'Places' })).toHaveCount(0);
  await screen.goto(program.origin);
  await expect(screen.getByRole('heading', { name: 'Sign in' })).toBeVisible();
  const other = await browser.newContext();
  const stranger = await other.newPage();
  await stranger.goto(page.url());
  await expect(stranger.getByRole('heading', { name: 'Sign in' })).toBeVisible();
  await Promise.all([device.close(), other.close()]);
});

test('a script does over the API what its token allows, until the token is revoked', async ({ page, playwright }) => {
  await signIn(page, program, '/set-up');
  const form = page.getByRole('form', { name: 'New token' });
  await form.getByRole('button', { name: 'Make a token' }).click();
  await expect(form.getByRole('alert')).toContainText('Give the script a name.');
  await form.getByLabel('what is the script called').fill('weekly report');
  await form.getByLabel('what may it do').selectOption({ label: 'do everything but add people' });
  await form.getByRole('button', { name: 'Make a token' }).click();
  const token = await page.getByText(/^straw_\S+$/).innerText();
  const script = await playwright.request.newContext({ extraHTTPHeaders: { Authorization: `Bearer ${token}` } });
  const ledger = await script.get(`${program.origin}/api/v1/runs`);
  expect(ledger.status()).toBe(200);
  expect(ledger.headers()['cache-control']).toBe('no-store');
  expect(await ledger.json()).toMatchObject({
    total: 1,
    isMore: false,
    next: null,
    leftOut: [],
    runs: [{ device: 'Curious laptop', reach: 'local' }],
  });
  const nonsense = await script.get(`${program.origin}/api/v1/runs?reach=moon`);
  expect([nonsense.status(), ((await nonsense.json()) as { code: string }).code]).toEqual([400, 'request-malformed']);
  const described = (await (await script.get(`${program.origin}/api/v1/openapi.json`)).json()) as { openapi: string };
  expect(described.openapi).toBe('3.1.0');

  await test.step('what the set-up, the board and a run’s page do', async () => {
    const api = async (method: 'get' | 'post' | 'put' | 'delete', path: string, data?: unknown) => {
      const answer = await script[method](`${program.origin}/api/v1${path}`, data === undefined ? {} : { data });
      const text = await answer.text();
      return { status: answer.status(), body: text === '' ? null : (JSON.parse(text) as unknown) };
    };
    const { body: sites } = await api('get', '/sites');
    const [{ id: site }] = sites as [{ id: string }];
    const plan = { lineName: 'Tarnfell', provider: '', downMbps: 500, upMbps: 100, basis: 'payload' };
    const line = { ...plan, leastDownMbps: null, leastUpMbps: null, fullFromPercent: 90 };
    expect(await api('post', `/sites/${site}/lines`, { ...line, downMbps: 0 })).toMatchObject({
      status: 400,
      body: { code: 'request-malformed' },
    });
    expect((await api('post', `/sites/${site}/lines`, line)).status).toBe(201);
    const desk = { name: 'Press desk', spotName: 'Workshop', linkChoice: 'wired', negotiatedMbps: 1000 };
    const device = await api('post', `/sites/${site}/devices`, desk);
    const { id } = device.body as { id: string };
    expect(await api('post', `/sites/${site}/devices`, desk)).toMatchObject({
      status: 409,
      body: { code: 'name-taken' },
    });
    expect((await api('put', `/sites/${site}/devices/${id}`, { ...desk, kind: 'desktop', vlan: true })).status).toBe(
      200,
    );
    expect((await api('get', `/sites/${site}`)).body).toMatchObject({
      lines: [{ name: 'Tarnfell', inUse: true, plan: { downBps: 500e6 } }],
      devices: [{ name: 'Curious laptop' }, { name: 'Press desk', kind: 'desktop', link: { vlan: true } }],
    });
    expect((await api('delete', `/sites/${site}/devices/${id}`)).status).toBe(204);
    expect((await api('post', `/removals/${id}/undo`)).status).toBe(204);
    const { body: board } = await api('get', `/sites/${site}/board`);
    const measured = (board as { cells: { runId: string }[] }[]).flatMap(({ cells }) => cells);
    const run = `/runs/${measured[0]!.runId}`;
    expect((await api('put', `${run}/notes`, { notes: 'by script' })).status).toBe(204);
    expect((await api('get', run)).body).toMatchObject({
      ...{ device: 'Curious laptop', status: 'finished', notes: 'by script', sharePath: null },
      sentence: { held: expect.stringContaining('one machine') },
    });
    const shared = (await api('post', `${run}/share`)).body as { path: string };
    expect(
      (await playwright.request.newContext().then((anybody) => anybody.get(program.origin + shared.path))).status(),
    ).toBe(200);
    expect((await api('get', `/sites/${site}/queue`)).body).toEqual([]);
    expect(await api('get', '/nothing')).toMatchObject({ status: 404, body: { code: 'operation-unknown' } });
  });
  await page.reload();
  await page.getByRole('button', { name: 'Revoke' }).click();
  await page.getByRole('button', { name: 'Revoke it' }).click();
  await expect(page.getByRole('button', { name: 'Revoke' })).toHaveCount(0);
  expect((await script.get(`${program.origin}/api/v1/runs`)).status()).toBe(401);
  await script.dispose();
});

test('a new code makes the old one worthless at once', async ({ page }) => {
  await signIn(page, program, '/set-up');
  await page.getByRole('button', { name: /Make a new code/ }).click();
  await expect(page.getByText(program.code!)).toHaveCount(0);
  await page.goto(`${program.origin}/j/${program.code}`);
  await expect(page.getByText(`No office here has the code ${program.code}.`)).toBeVisible();
});

test('what another site sends is not carried out, and pages allow only their own scripts', async ({ request }) => {
  const sent = await request.post(`${program.origin}/api/v1/runs`, {
    data: {},
    headers: { Origin: 'http://evil.invalid' },
  });
  expect([sent.status(), ((await sent.json()) as { code: string }).code]).toEqual([403, 'cross-site']);
  const page = await request.get(`${program.origin}/sign-in`);
  const policy = page.headers()['content-security-policy']!;
  const scripts = /script-src ([^;]+)/.exec(policy)![1]!;
  expect(scripts).not.toContain('unsafe');
  expect(policy).toContain("frame-ancestors 'none'");
  const [, nonce] = /'nonce-([^']+)'/.exec(scripts)!;
  const tags = (await page.text()).match(/<script[^>]*>/g)!;
  expect(tags.length).toBeGreaterThan(1);
  for (const tag of tags) expect(tag).toContain(`nonce="${nonce}"`);
  expect(page.headers()['x-content-type-options']).toBe('nosniff');
});

test('guessing codes ends in waiting', async ({ request }) => {
  const texts: string[] = [];
  for (let guess = 0; guess < 11; guess += 1)
    texts.push(await (await request.get(`${program.origin}/j/GUESS${guess}`)).text());
  expect(texts[0]).toContain('No office here has the code');
  expect(texts[10]).toContain('Too many wrong tries');
});

test('https works on the same port, with the certificate whose fingerprint the program shows', async ({ browser }) => {
  const context = await browser.newContext({ ignoreHTTPSErrors: true });
  const page = await context.newPage();
  await page.goto(`${program.origin}/trust`);
  const shown = await page.getByText(/^([0-9A-F]{2}:){31}[0-9A-F]{2}$/).innerText();
  const socket = connect({ port: PORT, host: '127.0.0.1', rejectUnauthorized: false });
  await once(socket, 'secureConnect');
  expect(socket.getPeerX509Certificate()!.fingerprint256).toBe(shown);
  socket.destroy();

  const secured = { ...program, origin: program.origin.replace('http:', 'https:') };
  await signIn(page, secured);
  const cookies = await context.cookies();
  expect(cookies.find(({ name }) => name === 'bent-straw-sign-in')).toMatchObject({ secure: true, httpOnly: true });
  // The code was changed above, and guessed at: the link of this machine's terminal needs none.
  await page.goto(secured.origin + /\/here\/\S+/.exec(program.output())![0]);
  await page.goto(`${secured.origin}/j?profile=quick`);
  await answer(page, { name: 'Careful laptop' });
  await measure(page);
  await resultShown(page);
  await expect(page.getByText('Standing by: the technician can start the next run')).toBeVisible();
  await expect(page.getByText('The screen may go dark')).toHaveCount(0);
  // It opens once: whoever reads it over a shoulder is asked for the code.
  const other = await browser.newContext({ ignoreHTTPSErrors: true });
  const stranger = await other.newPage();
  await stranger.goto(secured.origin + /\/here\/\S+/.exec(program.output())![0]);
  await expect(stranger.getByLabel(/code/i)).toBeVisible();
  await other.close();
  await context.close();
});
