import { existsSync, mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import { command, running } from './command';
import { newPort } from './ports';
import { launch, newDataFolder, newDemoFolder, startProgram } from './program';
import { signIn } from './technician';

/** Every command that the README or package.json names is started here or in tools.spec.ts, in its shortest form. */
const PACKAGE = JSON.parse(readFileSync('package.json', 'utf8')) as { scripts: Record<string, string> };

test('each command of the README is one of package.json, and each of package.json is started here or by the tests', () => {
  const here = ['commands', 'people', 'tools'].map((name) => readFileSync(`e2e/${name}.spec.ts`, 'utf8')).join('\n');
  const named = [...readFileSync('README.md', 'utf8').matchAll(/npm (?:run )?([a-z][a-z-]+)/g)].map(
    ([, name]) => name!,
  );
  for (const name of named) expect([...Object.keys(PACKAGE.scripts), 'run']).toContain(name);
  const byTheTests = ['test', 'build', 'format'];
  for (const name of Object.keys(PACKAGE.scripts).filter((each) => !byTheTests.includes(each)))
    expect(here, `${name} is started`).toMatch(new RegExp(`command\\(\\s*'${name}'`));
});

test('demo and start say where they are, and end in order', async () => {
  const port = newPort();
  const demo = await command('demo', ['--port', String(port), '--data', await newDemoFolder()], {
    until: /Stop with Ctrl-C/,
  });
  expect(demo.said).toMatch(new RegExp(`http://\\S+:${port}/j/\\w{6}`));
  await expect.poll(() => running(`--port ${port}`)).toEqual([]);
  const start = await command('start', ['--port', String(port), '--data', newDataFolder()], {
    until: /Stop with Ctrl-C/,
  });
  expect(start.said).toMatch(/\/welcome\/\S+/);
  await expect.poll(() => running(`--port ${port}`)).toEqual([]);
});

test('peer asks for the key that it needs, and is ready with one', async () => {
  const without = await command('peer', ['--port', String(newPort())]);
  expect(without.said).toMatch(/\[trust-missing\]/);
  expect(without.exit).toBe(1);
  const wrong = await command('peer', ['--port', String(newPort()), '--trust', 'A'.repeat(42)]);
  expect([wrong.said, wrong.exit]).toEqual([expect.stringMatching(/Copy all 43 characters .*\[trust-invalid\]/), 1]);
  const key = 'A'.repeat(42) + 'A';
  const empty = join(newDataFolder(), 'stamp-key');
  writeFileSync(empty, '\n');
  const trusted = ['--port', String(newPort()), '--trust', key];
  const keyless = await command('peer', [...trusted, '--udp', String(newPort()), '--udp-key', empty]);
  expect([keyless.said, keyless.exit]).toEqual([expect.stringMatching(/no key in .*\[udp-key-unusable\]/), 1]);
  const portless = await command('peer', [...trusted, '--udp-key', empty]);
  expect([portless.said, portless.exit]).toEqual([expect.stringMatching(/\[udp-port-missing\]/), 1]);
  const args = ['--port', String(newPort()), '--trust', key, '--key', join(newDataFolder(), 'key.pem')];
  const ready = await command('peer', args, { until: /Stop with Ctrl-C/ });
  expect(ready.said).toContain('The peer outside peer is ready.');
});

test('unit prints what systemd is to keep running', async () => {
  const console = await command('unit', ['console', '--', '--port', '4871']);
  expect(console.said).toMatch(
    /^ExecStart=\S+ \S+\/dist\/launch\.js start --data \/var\/lib\/bent-straw-console --port 4871$/m,
  );
  expect(console.exit).toBe(0);
  expect((await command('unit', ['peer'])).said).toMatch(/^StateDirectory=bent-straw-peer$/m);
});

test('agent measures once, and recompute says what it did to what that left', async () => {
  const data = newDataFolder();
  const program = await startProgram({ mode: 'demo', port: newPort(), data, slowLines: true });
  const state = mkdtempSync(join(tmpdir(), 'bent-straw-e2e-'));
  const address = `${program.origin}/j/${program.code}`;
  expect((await command('agent', ['look'])).said).toMatch(/Links\n {2}\w+: \w+/);
  expect((await command('agent', ['look', '--path', '127.0.0.1'])).said).toContain('127.0.0.1 is 1 hop away.');
  const share = await command('agent', ['share', newDataFolder(), '--size', '8']);
  expect(share.said).toMatch(/takes [\d.]+ Mb\/s, and it .* of the machine itself/);
  const agent = await command('agent', ['run', address, '--profile', 'quick', '--name', 'Smoke box'], {
    env: { XDG_STATE_HOME: state },
  });
  expect(agent.said).toMatch(/Mb\/s down and [\d.]+ up\./);
  await program.interrupt();
  const again = await command('recompute', ['--data', data]);
  expect(again.said).toMatch(/All \d+ runs are of method version \d+: nothing to do\./);
  expect(again.exit).toBe(0);
  const all = await command('recompute', ['--data', data, '--all', '--dry']);
  expect(all.said).toMatch(/0 would change, \d{2,} the same/);
});

test('backup copies what runs, check looks at it, and restore puts it back when nothing runs', async () => {
  const data = newDataFolder();
  const port = newPort();
  const program = await startProgram({ mode: 'start', port, data, more: ['--office', 'Larkspur Bindery'] });
  const to = join(newDataFolder(), 'copy');
  const copy = await command('backup', [to, '--data', data]);
  expect(copy.said).toContain(`and looked at the copy: it is whole.`);
  expect(copy.exit).toBe(0);
  const taken = await command('restore', [to, '--data', data]);
  expect(taken.said).toMatch(/is in use by process \d+.*\[data-in-use\]/);
  await program.interrupt();
  const restored = await command('restore', [to, '--data', data]);
  expect(restored.exit).toBe(0);
  expect(restored.said).toMatch(/before-restore-/);
  const looked = await command('check', ['--data', data]);
  expect(looked.said).toContain('Whole, and nothing hangs loose');
  expect(looked.exit).toBe(0);
  const again = await startProgram({ mode: 'start', port, data });
  expect(again.code).toBe(program.code);
  await again.interrupt();
});

test('an interrupted launcher ends what it started', async () => {
  const { child, ended } = await launch({ mode: 'start', port: newPort(), data: newDataFolder() }, /Stop with Ctrl-C/);
  child.kill('SIGTERM');
  expect(await ended).toBe(0);
});

test('a demo whose first start was interrupted says nothing of it, and is whole the next time', async ({ page }) => {
  const data = newDataFolder();
  const port = newPort();
  const { child, ended, output } = await launch({ mode: 'demo', port, data }, /is starting/);
  // Its history is being written.
  await expect.poll(() => existsSync(join(data, 'bent-straw.sqlite-wal'))).toBe(true);
  child.kill('SIGINT');
  await ended;
  expect(output()).not.toMatch(/Error|\n {4}at /);
  const program = await startProgram({ mode: 'demo', port, data });
  await signIn(page, program);
  await expect(page.getByRole('region', { name: 'What stands out' }).getByRole('listitem')).toHaveCount(3);
  await page.goto(`${program.origin}/watch`);
  await expect(page.getByRole('slider', { name: 'Lanes of Attic agent' })).toBeVisible();
  await program.interrupt();
});

test('a demo that is interrupted while it is still starting leaves nothing behind', async () => {
  const folder = await newDemoFolder();
  // The devices of the demo are started last, when the console is there: they load while their launcher ends.
  await command('demo', ['--port', String(newPort()), '--data', folder], { until: /Ready\./ });
  await expect.poll(() => running(folder), { timeout: 20_000 }).toEqual([]);
});
