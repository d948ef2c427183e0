import { startBrowser } from './browser';
const [url, out, w = '1280', h = '800', dark = '', full = ''] = process.argv.slice(2) as string[];
const b = await startBrowser();
const c = await b.newContext({ viewport: { width: Number(w), height: Number(h) }, colorScheme: dark === 'dark' ? 'dark' : 'light' });
const p = await c.newPage();
const origin = new URL(url!).origin;
if (process.env.PASS) {
  await p.goto(origin + '/sign-in');
  await p.getByLabel('your name').fill('Ines');
  await p.getByLabel('passphrase').fill(process.env.PASS);
  await p.getByRole('button', { name: 'Sign in' }).click();
  await p.waitForTimeout(2500); console.log(p.url(), (await p.locator('body').innerText()).slice(0, 300));
}
await p.goto(url!);
await p.waitForTimeout(1500);
await p.screenshot({ path: out!, fullPage: full === 'full' });
await b.close();
process.exit(0);
