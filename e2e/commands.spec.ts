import { spawn } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import { launch, newDataFolder, startProgram } from './program';

/** Every command that the README or package.json names is started here, in its shortest form. */
const PACKAGE = JSON.parse(readFileSync('package.json', 'utf8')) as { scripts: Record<string, string> };

interface Ran {
  readonly exit: number | null;
  readonly said: string;
}

/** Runs `npm run NAME -- ARGS` to its end, or until it has said something and is interrupted. */
function command(
  name: string,
  args: readonly string[] = [],
  more: { env?: object; until?: RegExp } = {},
): Promise<Ran> {
  return new Promise((resolve) => {
    const child = spawn('npm', ['run', '--silent', name, '--', ...args], {
      env: { ...process.env, ...more.env },
      detached: true,
    });
    let said = '';
    let interrupted = false;
    const hear = (part: Buffer) => {
      said += part.toString();
      if (interrupted || !more.until?.test(said)) return;
      interrupted = true;
      // As Ctrl-C does: the whole group hears it.
      process.kill(-child.pid!, 'SIGINT');
    };
    child.stdout.on('data', hear);
    child.stderr.on('data', hear);
    child.once('close', (exit) => resolve({ exit, said }));
  });
}

/** What runs on this machine with a word in its command line. */
function running(word: string): string[] {
  return readdirSync('/proc')
    .filter((name) => /^\d+$/.test(name))
    .flatMap((pid) => {
      try {
        const line = readFileSync(`/proc/${pid}/cmdline`, 'utf8').replaceAll('\0', ' ');
        return line.includes(word) && !line.includes('playwright') ? [line] : [];
      } catch {
        return [];
      }
    });
}

test('each command of the README is one of package.json, and each of package.json is started here or by the tests', () => {
  const here = readFileSync('e2e/commands.spec.ts', 'utf8');
  const named = [...readFileSync('README.md', 'utf8').matchAll(/npm (?:run )?([a-z][a-z-]+)/g)].map(
    ([, name]) => name!,
  );
  for (const name of named) expect([...Object.keys(PACKAGE.scripts), 'run']).toContain(name);
  const byTheTests = ['test', 'build', 'format'];
  for (const name of Object.keys(PACKAGE.scripts).filter((each) => !byTheTests.includes(each)))
    expect(here, `${name} is started`).toMatch(new RegExp(`command\\(\\s*'${name}'`));
});

test('demo and start say where they are, and end in order', async () => {
  const demo = await command('demo', ['--port', '4975', '--data', newDataFolder()], { until: /Stop with Ctrl-C/ });
  expect(demo.said).toMatch(/http:\/\/\S+:4975\/j\/\w{6}/);
  await expect.poll(() => running('--port 4975')).toEqual([]);
  const start = await command('start', ['--port', '4975', '--data', newDataFolder()], { until: /Stop with Ctrl-C/ });
  expect(start.said).toMatch(/\/welcome\/\S+/);
  await expect.poll(() => running('--port 4975')).toEqual([]);
});

test('peer asks for the key that it needs, and is ready with one', async () => {
  const without = await command('peer', ['--port', '4976']);
  expect(without.said).toMatch(/\[trust-missing\]/);
  expect(without.exit).toBe(1);
  const key = 'A'.repeat(42) + 'A';
  const args = ['--port', '4976', '--trust', key, '--key', join(newDataFolder(), 'key.pem')];
  const ready = await command('peer', args, { until: /Stop with Ctrl-C/ });
  expect(ready.said).toContain('The peer outside peer is ready.');
});

test('agent measures once, and recompute says what it did to what that left', async () => {
  const data = newDataFolder();
  const program = await startProgram({ mode: 'demo', port: 4977, data });
  const state = mkdtempSync(join(tmpdir(), 'bent-straw-e2e-'));
  const address = `${program.origin}/j/${program.code}`;
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
  const program = await startProgram({ mode: 'start', port: 4978, data, more: ['--office', 'Larkspur Bindery'] });
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
  const again = await startProgram({ mode: 'start', port: 4978, data });
  expect(again.code).toBe(program.code);
  await again.interrupt();
});

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
  const { said } = await command('bench-console', ['400', '2'], { until: /layout shift / });
  expect(said).toMatch(/\| data of the board \| 400 \| \d+ \|/);
  expect(said).toMatch(/layout shift [\d.]+/);
});

test('measure, first-load and screenshots drive the demo in a browser', async () => {
  test.setTimeout(240_000);
  const measured = await command('measure', ['1']);
  expect(measured.said).toMatch(/\| download, practice line \| 500 Mb\/s \| \d+/);
  expect(measured.exit).toBe(0);
  const load = await command('first-load', ['1'], { until: /device page .* over the empty page: [\d.]+ kB/ });
  expect(load.said).toMatch(/device page\s+[\d.]+ kB, over the empty page: [\d.]+ kB/);
  const folder = newDataFolder();
  const pictures = await command('screenshots', [folder], { until: /device-after\.png/ });
  expect(pictures.said).toContain('device-during.png');
  expect(readdirSync(folder)).toContain('device-before.png');
});

test('lab measures one line against the kernel, and prove-statistics simulates', async () => {
  test.setTimeout(180_000);
  const lab = await command('lab', ['rates', '--runs', '1'], { env: { LAB_LINES: '50/50', LAB_CLIENT: 'Node' } });
  expect(lab.said).toMatch(/\| 50\/50 \| Node \| down \| 47\.8 \|/);
  const proof = await command('prove-statistics', [], { env: { PROVE_DRAWS: '100' } });
  expect(proof.said).toMatch(/Seed \d+/);
  expect(proof.said).toMatch(/10 and 10/);
});

test('prove-reliability kills, sends what is hostile, holds strangers, and says what held', async () => {
  test.setTimeout(240_000);
  const { said } = await command('prove-reliability', ['2', '120', '60', '1']);
  expect(said).toContain('held: results lost: 0');
  expect(said).toContain('held: half-written: 0');
  expect(said).toContain('held: no part crashed');
  expect(said).toContain('held: no stack was shown');
  expect(said).toMatch(/[3-6]\d of 60 strangers held a connection/);
  expect(said).toMatch(/\| amid strangers \| [\d.]+ \| [\d.]+ \|/);
});

test('an interrupted launcher ends what it started', async () => {
  const { child, ended } = await launch({ mode: 'start', port: 4979, data: newDataFolder() }, /Stop with Ctrl-C/);
  child.kill('SIGTERM');
  expect(await ended).toBe(0);
});
