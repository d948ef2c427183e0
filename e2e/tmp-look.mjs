import { chromium } from '@playwright/test';
import { spawn } from 'node:child_process';
import { mkdtempSync } from 'node:fs';
const data = process.env.DATA ?? mkdtempSync('/tmp/look-');
const child = spawn(process.execPath, ['dist/launch.js', 'demo', '--port', '4881', '--data', data], {
  stdio: ['ignore', 'pipe', 'inherit'],
});
let out = '';
child.stdout.on('data', (p) => (out += p));
while (!/Stop with Ctrl-C/.test(out)) await new Promise((r) => setTimeout(r, 200));
const passphrase = /passphrase: (.+)/.exec(out)[1].trim();
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox', '--disable-gpu'] });
const O = 'http://localhost:4881';
async function signIn(context, name, pass) {
  const page = await context.newPage();
  await page.goto(O + '/sign-in');
  await page.getByLabel('your name').fill(name);
  await page.getByLabel('passphrase').fill(pass);
  await page.getByRole('button', { name: 'Sign in' }).click();
  await page.waitForURL(O + '/');
  return page;
}
const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
const page = await signIn(context, 'Ines', passphrase);
const other = await signIn(
  await browser.newContext({
    userAgent: 'Mozilla/5.0 (Windows NT 10.0; Win64; x64; rv:140.0) Gecko/20100101 Firefox/140.0',
  }),
  'Ines',
  passphrase,
);
await page.goto(O + '/people');
await page.getByRole('form', { name: 'Add somebody' }).getByLabel('name').fill('Tom');
await page.getByRole('button', { name: 'Add somebody' }).click();
await page.getByText('Give this link to Tom').waitFor();
await page.waitForTimeout(400);
await page.screenshot({ path: '/tmp/p-people.png' });
const link = await page.getByText(/\/passphrase\//).innerText();
const tom = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
await tom.goto(new URL(link).pathname.replace(/^/, O));
await tom.screenshot({ path: '/tmp/p-passphrase.png' });
await tom.getByLabel('passphrase', { exact: true }).fill('password1234');
await tom.getByLabel('the same again').fill('x');
await tom.getByRole('button', { name: 'Set it and sign in' }).click();
await tom.waitForTimeout(400);
await tom.screenshot({ path: '/tmp/p-passphrase-bad.png' });
await tom.getByLabel('passphrase', { exact: true }).fill('four thirsty anvils here');
await tom.getByLabel('the same again').fill('four thirsty anvils here');
await tom.getByRole('button', { name: 'Set it and sign in' }).click();
await tom.waitForURL(O + '/');
await tom.goto(O + '/people');
await tom.screenshot({ path: '/tmp/p-people-tom.png', fullPage: true });
await page.goto(O + '/set-up');
await page.getByRole('form', { name: 'New token' }).getByLabel('what is the script called').fill('weekly report');
await page.getByRole('button', { name: 'Make a token' }).click();
await page.waitForTimeout(600);
await page.screenshot({ path: '/tmp/p-setup.png', fullPage: true });
await page.goto(O + '/people');
await page.waitForTimeout(300);
await page.screenshot({ path: '/tmp/p-people2.png', fullPage: true });
await page.goto(O + '/happened');
await page.waitForTimeout(300);
await page.screenshot({ path: '/tmp/p-happened.png' });
await page.emulateMedia({ colorScheme: 'dark' });
await page.screenshot({ path: '/tmp/p-happened-dark.png' });
await browser.close();
child.kill('SIGINT');
