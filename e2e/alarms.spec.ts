import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { createHmac } from 'node:crypto';
import { expect, type Page } from '@playwright/test';
import { openMailStandIn } from '@/services/alarms/mail-for-tests';
import { test } from './one-browser';
import { newPort } from './ports';
import { newDataFolder, startProgram, type Program } from './program';
import { signIn } from './technician';

test.describe.configure({ mode: 'serial' });

let program: Program;
let mail: Awaited<ReturnType<typeof openMailStandIn>>;
let hooks: Server;
const posted: { readonly body: string; readonly signature: string }[] = [];

test.beforeAll(async () => {
  program = await startProgram({ mode: 'demo', port: newPort(), data: newDataFolder(), slowLines: true });
  mail = await openMailStandIn();
  hooks = createServer((request, response) => {
    let body = '';
    request.on('data', (part: Buffer) => (body += part.toString()));
    request.on('end', () => {
      posted.push({ body, signature: String(request.headers['x-bent-straw-signature']) });
      response.writeHead(204).end();
    });
  });
  await new Promise<void>((resolve) => hooks.listen(0, '127.0.0.1', resolve));
});
test.afterAll(async () => {
  await program.interrupt();
  await mail.close();
  await new Promise((resolve) => hooks.close(resolve));
});

const told = async (page: Page) => {
  await signIn(page, program, '/told');
};
const rowOf = (page: Page, target: string) => page.getByRole('listitem', { name: target });

test('somebody is told by mail: added, tried, and seen to have arrived', async ({ page }) => {
  await told(page);
  const form = page.getByRole('form', { name: 'Tell somebody' });
  await form.getByLabel('address of mail').fill('ines at quill');
  await form.getByLabel('quiet from').fill('22');
  await form.getByRole('button', { name: 'Tell them' }).click();
  await expect(form.getByText('An address of mail, or a URL')).toBeVisible();
  await expect(form.getByText('Say both, or neither.')).toBeVisible();
  // What was typed is still there.
  await expect(form.getByLabel('address of mail')).toHaveValue('ines at quill');
  await form.getByLabel('address of mail').fill('ines@quill.example');
  await form.getByLabel('quiet from').fill('');
  await form.getByRole('button', { name: 'Tell them' }).click();
  await expect(rowOf(page, 'ines@quill.example')).toContainText('Nothing was told yet');
  await expect(page.getByText('No mail server is named yet')).toBeVisible();
  await rowOf(page, 'ines@quill.example').getByRole('button', { name: 'Try it' }).click();
  await expect(rowOf(page, 'ines@quill.example')).toContainText('no mail server is named');

  const server = page.getByRole('form', { name: 'Mail server' });
  await server.getByLabel('host').fill('127.0.0.1');
  await server.getByLabel('secured').selectOption('none');
  await server.getByLabel('port').fill(String(mail.port));
  await server.getByLabel('messages come from').fill('straw@quill.example');
  await server.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText(`127.0.0.1:${mail.port}`)).toBeVisible();
  await rowOf(page, 'ines@quill.example').getByRole('button', { name: 'Try it' }).click();
  await expect(rowOf(page, 'ines@quill.example')).toContainText('arrived');
  expect(mail.taken.at(-1)).toContain('Subject: Bent Straw: a try');
});

test('a program is told by a signed webhook; one inside the network only where that is allowed', async ({ page }) => {
  await told(page);
  const url = `http://127.0.0.1:${(hooks.address() as AddressInfo).port}/straw`;
  const add = async (allowed: boolean) => {
    await page.getByText('Tell somebody', { exact: true }).click();
    const form = page.getByRole('form', { name: 'Tell somebody' });
    await form.getByLabel('a program, by a signed webhook').check();
    await form.getByLabel('URL').fill(url);
    if (allowed) await form.getByLabel('it may be at an address of this network').check();
    await form.getByRole('button', { name: 'Tell them' }).click();
    await expect(page.getByText('It is shown this once')).toBeVisible();
    return form.locator('code').last().innerText();
  };
  await add(false);
  await rowOf(page, url).getByRole('button', { name: 'Try it' }).click();
  await expect(rowOf(page, url)).toContainText('its address is private');
  expect(posted).toEqual([]);
  await rowOf(page, url).getByRole('button', { name: 'Remove' }).click();
  await page.getByRole('alertdialog').getByRole('button', { name: 'Remove' }).click();
  await expect(rowOf(page, url)).toHaveCount(0);

  await page.reload();
  const secret = await add(true);
  await rowOf(page, url).getByRole('button', { name: 'Try it' }).click();
  await expect(rowOf(page, url)).toContainText('arrived');
  const [{ body, signature }] = posted as [(typeof posted)[number]];
  expect(signature).toBe(`sha256=${createHmac('sha256', secret).update(body).digest('hex')}`);
  expect(JSON.parse(body)).toMatchObject({ phase: 'test', office: 'Larkspur Bindery · Mill Lane' });
  // It was shown once.
  await page.reload();
  await expect(page.getByText(secret)).toHaveCount(0);
});

test('what stands out in the demo was told, and is written down with when it began', async ({ page }) => {
  await told(page);
  const happened = page.getByRole('region', { name: 'What was told' });
  await expect(happened).toContainText('goes on', { timeout: 30_000 });
  await expect(happened.getByText(/Scan room workstation came up at 100 Mb\/s/)).toBeVisible();
  // What is to be told is looked for every 20 s.
  await expect.poll(() => mail.taken.some((each) => each.includes('Scan room')), { timeout: 60_000 }).toBe(true);
});

test('what one wants to be told of is changed, and refused where it cannot be', async ({ page }) => {
  await told(page);
  const rules = page.getByRole('form', { name: 'Of what' });
  await rules.getByLabel('load adds more delay than').fill('0');
  await rules.getByRole('button', { name: 'Save' }).click();
  await expect(rules.getByText('A whole number of ms')).toBeVisible();
  await rules.getByLabel('load adds more delay than').fill('100');
  await rules.getByLabel('something stands out').uncheck();
  await rules.getByRole('button', { name: 'Save' }).click();
  await expect(rules.getByText('Saved.')).toBeVisible();
  await page.reload();
  await expect(rules.getByLabel('load adds more delay than')).toHaveValue('100');
  // The line adds more than that, and nobody wants to hear of findings any more.
  const happened = page.getByRole('region', { name: 'What was told' });
  await expect(happened.getByText(/under load everything waits/)).toBeVisible({ timeout: 45_000 });
  await expect(happened.getByText('goes on')).toHaveCount(1);
});

test('all offices at a glance: a line each, the one with the most trouble first, and each opens', async ({ page }) => {
  await signIn(page, program, '/sites');
  const rows = page.getByRole('table', { name: 'All offices at a glance' }).getByRole('row');
  await expect(rows).toHaveCount(3);
  await expect(rows.nth(1)).toContainText('Mill Lane');
  await expect(rows.nth(1)).toContainText(/\d+ % of \d+/);
  await expect(rows.nth(1)).toContainText('Whoever uploads makes everybody wait');
  await expect(rows.nth(2)).toContainText('Shop agent is silent');
  await rows.nth(2).getByRole('button', { name: 'Larkspur Bindery · Quay Street' }).click();
  await expect(page).toHaveURL(`${program.origin}/`);
  await expect(page.getByRole('banner')).toContainText('Quay Street');
});

test('figures for a program that gathers them need a token, and are OpenMetrics', async ({ page, request }) => {
  const refused = await request.get(`${program.origin}/metrics`);
  expect(refused.status()).toBe(401);
  await signIn(page, program);
  const answer = await page.request.get(`${program.origin}/metrics`);
  expect(answer.headers()['content-type']).toContain('application/openmetrics-text');
  const text = await answer.text();
  expect(text).toMatch(
    /^bent_straw_line_plan_bps\{office="Larkspur Bindery · Mill Lane",line="Tarnfell Fibre 500\/100",direction="down"\} 500000000$/m,
  );
  expect(text).toMatch(/^bent_straw_line_rate_bps\{.*direction="up"\} 9\d{7}/m);
  expect(text).toMatch(/^bent_straw_agent_present\{.*agent="Attic agent"\} 1$/m);
  expect(text).toMatch(/^bent_straw_agent_present\{.*agent="Shop agent"\} 0$/m);
  expect(text.trimEnd().endsWith('# EOF')).toBe(true);
});
