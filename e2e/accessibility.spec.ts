import AxeBuilder from '@axe-core/playwright';
import { expect, type Page } from '@playwright/test';
import { test } from './one-browser';
import type { Program } from './program';
import { signIn } from './technician';

test.describe.configure({ mode: 'serial' });

let program: Program;
test.beforeAll(({ demo }) => {
  program = demo;
});

/** What axe finds against WCAG 2.2 AA that is serious or worse, each with the place. */
async function findings(page: Page, colorScheme: 'light' | 'dark'): Promise<string[]> {
  // What holds is not told: it would all be gathered for nothing.
  const axe = new AxeBuilder({ page }).options({ resultTypes: ['violations'] });
  // In the dark the same parts have other colours, and nothing else is another.
  const { violations } = await (
    colorScheme === 'dark'
      ? axe.withRules(['color-contrast', 'link-in-text-block'])
      : axe.withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'])
  ).analyze();
  return violations
    .filter(({ impact }) => impact === 'serious' || impact === 'critical')
    .flatMap(({ id, nodes }) => nodes.map(({ target }) => `${id}: ${target.join(' ')}`));
}

for (const colorScheme of ['light', 'dark'] as const) {
  test(`no screen of the console has a serious finding, ${colorScheme}`, async ({ browser }) => {
    test.setTimeout(120_000);
    const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 }, colorScheme })).newPage();
    await page.goto(`${program.origin}/sign-in`);
    const found: Record<string, string[]> = { '/sign-in': await findings(page, colorScheme) };
    await signIn(page, program);
    const places =
      colorScheme === 'light'
        ? ['/', '/ledger', '/time', '/case', '/agent', '/watch', '/look', '/told', '/set-up', '/sites', '/trust']
        : ['/', '/time', '/watch', '/set-up'];
    for (const place of places) {
      await page.goto(program.origin + place);
      await page.getByRole('heading', { level: 1 }).first().waitFor({ state: 'attached' });
      found[place] = await findings(page, colorScheme);
    }
    await page.goto(program.origin);
    await page.getByRole('button', { name: 'Start a round' }).click();
    found['round'] = await findings(page, colorScheme);
    await page.keyboard.press('Escape');
    await page.getByRole('link', { name: /^Scan room workstation, wired · internet/ }).click();
    await page.getByRole('heading', { level: 1, name: 'Scan room workstation' }).waitFor();
    found['run'] = await findings(page, colorScheme);
    expect(Object.entries(found).filter(([, each]) => each.length > 0)).toEqual([]);
    await page.context().close();
  });

  test(`the page on a device has no serious finding, ${colorScheme}`, async ({ browser }) => {
    const page = await (await browser.newContext({ viewport: { width: 390, height: 844 }, colorScheme })).newPage();
    await page.goto(`${program.origin}/j/${program.code}`);
    await page.getByRole('button', { name: 'Measure' }).waitFor();
    expect(await findings(page, colorScheme)).toEqual([]);
    await page.context().close();
  });
}
