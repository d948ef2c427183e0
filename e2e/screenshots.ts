import { mkdirSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { startBrowser } from './browser';
import { answer, inPhase, measure, resultShown } from './device';
import { signIn } from './technician';
import { newDataFolder, startProgram } from './program';

/** Takes one picture of each main view from fresh demo data, for docs/screenshots/, or a folder that is named. */
const FOLDER = process.argv[2] ?? 'docs/screenshots';
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.once(signal, () => process.exit(130));
const PORT = 4950;
const SETTLE_MS = 600;
const DESK = { width: 1280, height: 800 };
const PHONE = { width: 390, height: 844 };

mkdirSync(FOLDER, { recursive: true });
const program = await startProgram({ mode: 'demo', port: PORT, data: newDataFolder() });
const browser = await startBrowser();

async function shoot(page: Page, name: string): Promise<void> {
  await page.evaluate(() => document.fonts.ready);
  // The board holds a stream open, so the network is never idle.
  await page.waitForTimeout(SETTLE_MS);
  await page.screenshot({ path: `${FOLDER}/${name}.png` });
  console.log(`${FOLDER}/${name}.png`);
}

try {
  const phone = await browser.newPage({ viewport: PHONE });
  await phone.goto(`${program.origin}/j/${program.code}`);
  await answer(phone, { name: 'Press desk' });
  await shoot(phone, 'device-before');
  await measure(phone);
  await inPhase(phone, /Uploading/);
  await phone.waitForTimeout(2500);
  await shoot(phone, 'device-during');
  await resultShown(phone);
  await shoot(phone, 'device-after');
  await phone.waitForTimeout(1000);

  const desk = await browser.newPage({ viewport: DESK });
  await signIn(desk, program);
  await desk.getByRole('button', { name: 'Run internet on Press desk' }).click();
  await phone.getByRole('heading', { name: /asks this device/ }).waitFor();
  await shoot(phone, 'device-asked');
  await phone.close();
  // Its devices of the demo stand by; the phone's run is over.
  await desk.goto(program.origin);
  await shoot(desk, 'board');
  await desk.getByRole('link', { name: /^Scan room workstation, wired · internet/ }).click();
  await desk.getByRole('heading', { level: 1, name: 'Scan room workstation' }).waitFor();
  await shoot(desk, 'run');
  for (const place of ['ledger', 'set-up', 'sites', 'agent', 'look']) {
    await desk.goto(`${program.origin}/${place}`);
    await shoot(desk, place);
  }
  await desk.goto(`${program.origin}/side`);
  await desk.getByLabel('Runs of tray A').fill('device="press desk" link=wired reach=local');
  await desk.getByLabel('Runs of tray B').fill('device=bench link=wired reach=local');
  await desk.getByRole('button', { name: 'Hold them side by side' }).click();
  await desk.getByRole('table', { name: 'Each quantity side by side' }).waitFor();
  await shoot(desk, 'side-by-side');
  await desk.goto(`${program.origin}/time`);
  await desk.locator('[data-drawn="true"]').waitFor();
  await shoot(desk, 'over-time');
  await desk.goto(`${program.origin}/case`);
  const opening = desk.getByRole('form', { name: 'New case' });
  await opening.getByLabel('usual down').fill('480');
  await opening
    .getByRole('textbox', { name: 'runs count from' })
    .fill(new Date(Date.now() - 6 * 24 * 3600_000).toISOString().slice(0, 10));
  await opening.getByRole('button', { name: 'Open the case' }).click();
  await desk.getByRole('list', { name: 'Figures of the contract' }).waitFor();
  await shoot(desk, 'case');
  await desk.goto(`${program.origin}/watch?span=86400000`);
  await desk.getByRole('slider', { name: 'Lanes of Attic agent' }).waitFor();
  await shoot(desk, 'watch');
  await desk.goto(`${program.origin}/air`);
  await desk.getByRole('table', { name: 'Spots, the worst first' }).waitFor();
  await shoot(desk, 'air');
  await desk.goto(program.origin);
  const finding = desk.getByRole('listitem').filter({ hasText: 'glue room ceiling' });
  await finding.getByRole('button', { name: 'hunt' }).click();
  await desk.getByRole('heading', { level: 1 }).filter({ hasText: 'glue room ceiling' }).waitFor();
  await shoot(desk, 'hunt');
  const hand = await browser.newPage({ viewport: PHONE });
  await signIn(hand, program);
  await hand.goto(program.origin);
  await hand.getByRole('list', { name: /worst place/ }).waitFor();
  await shoot(hand, 'board-phone');
  await hand.close();
  await desk.close();

  const dark = await browser.newPage({ viewport: DESK, colorScheme: 'dark' });
  await signIn(dark, program);
  await dark.goto(program.origin);
  await shoot(dark, 'board-dark');
} finally {
  await browser.close();
  await program.interrupt();
}
