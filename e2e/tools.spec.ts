import { readdirSync } from 'node:fs';
import { expect, test } from '@playwright/test';
import { command, running } from './command';
import { newDataFolder } from './program';

// Each has ports and files of its own.
test.describe.configure({ mode: 'parallel' });

test('bench holds the peer against a web server, and leaves nothing behind, also when it is interrupted', async () => {
  test.setTimeout(180_000);
  const short = await command('bench', ['1', '1']);
  expect(short.said).toMatch(/\| raw sockets \| up \| nginx \| [\d.]+ \| [\d.]+ \| [\d.]+ \|/);
  expect(short.said).toMatch(/Memory of the peer with 50 clients connected: \d+ MB/);
  expect(short.exit).toBe(0);
  expect(running('bent-straw-nginx')).toEqual([]);
  const cut = await command('bench', ['5', '3'], { until: /\| client \| way/ });
  expect(cut.exit).not.toBe(0);
  await expect.poll(() => running('bent-straw-nginx')).toEqual([]);
  await expect.poll(() => running('dist/peer-main.js {"name":"bench"')).toEqual([]);
});

test('bench-console fills a store and times its pages', async () => {
  test.setTimeout(180_000);
  const { said } = await command('bench-console', ['200', '1', '2'], { until: /layout shift / });
  expect(said).toMatch(/\| data of the board \| 200 \| \d+ \|/);
  expect(said).toMatch(/layout shift [\d.]+/);
});

test('measure holds the engine against the practice line', async () => {
  test.setTimeout(180_000);
  const measured = await command('measure', ['1', 'quick']);
  expect(measured.said).toMatch(/\| download, practice line \| 500 Mb\/s \| \d+/);
  expect(measured.exit).toBe(0);
});

test('first-load weighs the device page', async () => {
  test.setTimeout(180_000);
  // The empty page beside it would have to be built: that takes longer than all else.
  const load = await command('first-load', ['1', '--alone'], { until: /usable after [\d.]+ s/ });
  expect(load.said).toMatch(/device page\s+[\d.]+ kB/);
});

test('screenshots takes its pictures into the folder that is named', async () => {
  test.setTimeout(180_000);
  const folder = newDataFolder();
  const pictures = await command('screenshots', [folder], { until: /device-after\.png/ });
  expect(pictures.said).toContain('device-during.png');
  expect(readdirSync(folder)).toContain('device-before.png');
});

test('lab measures one line against the kernel; prove-statistics and prove-hunt simulate', async () => {
  test.setTimeout(180_000);
  const lab = await command('lab', ['rates', '--runs', '1'], { env: { LAB_LINES: '50/50', LAB_CLIENT: 'Node' } });
  expect(lab.said).toMatch(/\| 50\/50 \| Node \| down \| 1 \| 47\.8 \|/);
  const proof = await command('prove-statistics', [], { env: { PROVE_DRAWS: '30' } });
  expect(proof.said).toMatch(/Seed \d+/);
  expect(proof.said).toMatch(/10 and 10/);
  const hunt = await command('prove-hunt', [], { env: { PROVE_OFFICES: '3', PROVE_SEED: '11' } });
  expect(hunt.said).toMatch(/Seed 11/);
  expect(hunt.said).toMatch(/\| what tells most a minute \| [\d.]+ % \|/);
});

test('prove-reliability kills, sends what is hostile, holds strangers, and says what held', async () => {
  test.setTimeout(240_000);
  // Over lines of a tenth of the rate: what is shown here is that it goes through, not what it takes.
  const { said } = await command('prove-reliability', ['1', '120', '60', '1'], { env: { PROVE_SLOW: '1' } });
  expect(said).toContain('held: results lost: 0');
  expect(said).toContain('held: half-written: 0');
  expect(said).toContain('held: no part crashed');
  expect(said).toContain('held: no stack was shown');
  expect(said).toMatch(/[3-6]\d of 60 strangers held a connection/);
  expect(said).toMatch(/\| amid strangers \| ([\d.]+|no one figure) \| ([\d.]+|no one figure) \|.* 0 \|/);
});
