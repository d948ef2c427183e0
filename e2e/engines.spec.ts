import { expect, test, type Page } from '@playwright/test';
import { ENGINE_NAMES, openEngine, type EngineBrowser } from './engines/engine-browser';
import { choose, press, resultOrEnd, seen, type as typeInto, untilSeen } from './engines/person';
import { ratesIn } from './device';
import { addPageLane, endLane, expectHeard } from './page-lane';
import { newPort } from './ports';
import { newDataFolder, startProgram, type Program } from './program';
import { signIn } from './technician';

test.describe.configure({ mode: 'serial' });

let program: Program;
test.beforeAll(async () => {
  program = await startProgram({ mode: 'demo', port: newPort(), data: newDataFolder() });
});
test.afterAll(() => program.interrupt());

/** As the board's button does, with fewer seconds of measuring: what is seen here is that it is asked, and does it. */
async function askForRun(page: Page, device: string): Promise<void> {
  const read = async <Document>(path: string) =>
    (await (await page.request.get(`${program.origin}/api/v1/sites${path}`)).json()) as Document;
  const [site] = (await read<{ id: string; joinCode: string }[]>('')).filter(
    ({ joinCode }) => joinCode === program.code,
  );
  const { devices } = await read<{ devices: { id: string; name: string }[] }>(`/${site!.id}`);
  const asked = await page.request.post(`${program.origin}/api/v1/turns`, {
    data: {
      ...{ siteId: site!.id, deviceIds: [devices.find(({ name }) => name === device)!.id], reaches: ['local'] },
      ...{ times: 1, profile: 'quick' },
    },
    headers: { Origin: program.origin },
  });
  expect(asked.status()).toBe(201);
}

const rowOf = (page: Page, name: string) => page.getByRole('row').filter({ hasText: name });

for (const name of ENGINE_NAMES)
  test.describe(`in ${name}`, () => {
    let browser: EngineBrowser;
    const device = `${name} phone`;
    test.beforeAll(async () => {
      browser = await openEngine(name);
    });
    test.afterAll(() => browser.close());

    test('a stranger joins, measures, and reads what the line gives, within half a minute of opening the page', async () => {
      const openedMs = performance.now();
      await browser.open(`${program.origin}/j/${program.code}`);
      await typeInto(browser, 'Reading room laptop', device);
      await choose(browser, 'out to the internet');
      await press(browser, 'Measure');
      await untilSeen(browser, 'watching the delay');
      const text = await resultOrEnd(browser);
      const tookMs = performance.now() - openedMs;
      expect(text).toContain('The plan is 500 down and 100 up');
      const { down, up } = ratesIn(text);
      expect(Math.abs(down / 500 - 1)).toBeLessThan(0.05);
      expect(Math.abs(up / 100 - 1)).toBeLessThan(0.05);
      expect(text).toMatch(/while somebody uploads, everything waits \d+ ms longer/);
      expect(tookMs).toBeLessThan(30_000);
    });

    test('it stands by, is asked by the technician, and measures again', async ({ page }) => {
      await untilSeen(browser, 'Standing by');
      await signIn(page, program);
      await expect(rowOf(page, device).getByText('stands by')).toBeVisible();
      await askForRun(page, device);
      await untilSeen(browser, 'Ines asks this device to measure');
      await untilSeen(browser, 'watching the delay');
      expect(await resultOrEnd(browser)).toMatch(/Mb\/s down and [\d.]+( to [\d.]+)? up/);
    });

    test('its page asks a peer once a second, which is seen live, until that is ended', async ({ page }) => {
      await signIn(page, program, '/watch?span=60000');
      const row = await addPageLane(page, device);
      await untilSeen(browser, 'Meanwhile it asks Hilltop exchange once a second');
      await expectHeard(page, device);
      await endLane(row);
      await expect.poll(() => seen(browser)).not.toContain('Meanwhile it asks');
    });

    test('the console can be used in it: sign in, board, ledger, a run', async ({ page }) => {
      await signIn(page, program);
      const cookies = await page.context().cookies();
      const signedIn = cookies.find(({ httpOnly, name: cookie }) => httpOnly && cookie.includes('sign-in'))!;
      expect(signedIn).toBeDefined();
      await browser.open(`${program.origin}/sign-in`);
      const passphrase = /passphrase: (.+)/.exec(program.output())![1]!.trim();
      await browser.evaluate(`(() => {
        const fields = [...document.querySelectorAll('input:not([type=hidden])')];
        const set = (input, text) => {
          Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value').set.call(input, text);
          input.dispatchEvent(new Event('input', { bubbles: true }));
        };
        set(fields[0], 'Ines');
        set(fields[1], ${JSON.stringify(passphrase)});
        return null;
      })()`);
      await press(browser, 'Sign in');
      await untilSeen(browser, 'Press desk');
      for (const path of ['/ledger', '/set-up', '/sites']) {
        await browser.open(program.origin + path);
        await untilSeen(browser, 'Mill Lane');
        expect(await seen(browser)).not.toMatch(/went wrong|Application error/);
      }
    });
  });
