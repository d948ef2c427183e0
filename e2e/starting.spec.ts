import { execFileSync } from 'node:child_process';
import { mkdirSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import { newPort } from './ports';
import { FIRST_PASSPHRASE, signIn } from './technician';
import { launch, newDataFolder, startProgram } from './program';

const PORT = newPort();
const ENDED = /$^/;

async function refusal(options: { mode?: 'demo' | 'start'; data?: string; port?: number; more?: string[] }) {
  const started = await launch({ mode: 'start', port: PORT, data: newDataFolder(), ...options }, ENDED);
  return { exitCode: await started.ended, said: started.output() };
}

test('a busy port is named, with the way to choose another', async () => {
  const other = createServer().listen(PORT);
  const { exitCode, said } = await refusal({});
  other.close();
  expect(exitCode).toBe(1);
  expect(said).toContain(
    `Port ${PORT} is taken by another program. Stop that one, or choose another port: --port ${PORT + 10}.`,
  );
});

test('a port of the practice line that is busy is named too', async () => {
  const other = createServer().listen(PORT + 1);
  const { said } = await refusal({ mode: 'demo' });
  other.close();
  expect(said).toContain(`Port ${PORT + 1} is taken`);
});

test('what is typed wrong is refused before anything is opened, with how it is meant', async () => {
  expect((await refusal({ port: 99_999 })).said).toContain('99999 is not a port');
  const wrong = {
    'log-level-invalid': ['--log-level', 'chatty'],
    'port-range-invalid': ['--channel-ports', '4931-4900'],
    'certificate-half': ['--tls-cert', 'certificate.pem'],
    'certificate-unusable': ['--tls-cert', 'package.json', '--tls-key', 'package.json'],
  };
  for (const [code, more] of Object.entries(wrong)) {
    const { said, exitCode } = await refusal({ more });
    expect([said, exitCode]).toEqual([expect.stringMatching(new RegExp(`^.+\\. \\[${code}\\]$`, 'm')), 1]);
    expect(said).not.toMatch(/\n {4}at /);
  }
});

test('a data folder that cannot be written is named with the reason', async () => {
  const file = join(newDataFolder(), 'a-file');
  writeFileSync(file, '');
  const { exitCode, said } = await refusal({ data: join(file, 'data') });
  expect(exitCode).toBe(1);
  expect(said).toMatch(/The data folder .*a-file\/data cannot be written \(ENOTDIR\).*\[data-not-writable\]/);
});

test.describe('on a disk of its own', () => {
  const mounted: string[] = [];
  const mount = (options: string) => {
    const folder = join(newDataFolder(), 'disk');
    mkdirSync(folder);
    try {
      execFileSync('mount', ['-t', 'tmpfs', '-o', options, 'tmpfs', folder], { stdio: 'pipe' });
    } catch {
      test.skip(true, 'this machine does not let a disk be mounted');
    }
    mounted.push(folder);
    return folder;
  };
  test.afterAll(() => {
    for (const folder of mounted) execFileSync('umount', [folder]);
  });

  test('a full disk is said to be full', async () => {
    const { exitCode, said } = await refusal({ data: mount('size=64k') });
    expect(exitCode).toBe(1);
    expect(said).toMatch(/The disk of the data folder .* is full\. Make room, or choose another/);
  });

  test('a read-only disk is said to be read-only', async () => {
    const { exitCode, said } = await refusal({ data: mount('ro') });
    expect(exitCode).toBe(1);
    expect(said).toMatch(/cannot be written \(EROFS\)/);
  });

  test('one that fills up while the console runs is said to be full by all that would write, and is used again when there is room', async ({
    page,
    playwright,
  }) => {
    const data = mount('size=24m');
    const program = await startProgram({
      mode: 'start',
      port: newPort(),
      data,
      more: ['--office', 'Larkspur Bindery'],
    });
    try {
      await signIn(page, program, '/set-up');
      const form = page.getByRole('form', { name: 'New token' });
      await form.getByLabel('what is the script called').fill('writer');
      await form.getByLabel('what may it do').selectOption({ label: 'do everything but add people' });
      await form.getByRole('button', { name: 'Make a token' }).click();
      const token = await page.getByText(/^straw_\S+$/).innerText();
      const script = await playwright.request.newContext({ extraHTTPHeaders: { Authorization: `Bearer ${token}` } });
      const api = `${program.origin}/api/v1`;
      const [{ id: site }] = (await (await script.get(`${api}/sites`)).json()) as [{ id: string }];
      const filler = join(data, 'filler');
      execFileSync('sh', ['-c', `dd if=/dev/zero of='${filler}' bs=64k 2>/dev/null; true`]);
      const code = async (answer: { json(): Promise<unknown> }) => ((await answer.json()) as { code?: string }).code;
      const addDevice = (name: string) =>
        script.post(`${api}/sites/${site}/devices`, {
          data: { name, spotName: 'Workshop', linkChoice: 'wired', negotiatedMbps: 1000 },
        });
      // What the database had set aside is used up first.
      await expect
        .poll(async () => code(await addDevice(`device ${Math.random()}`)), { timeout: 60_000 })
        .toBe('store-full');
      const asked = await script.post(`${api}/runs`, {
        data: {
          ...{ code: program.code, deviceId: null, deviceName: 'Late laptop', spotName: '' },
          ...{ link: { medium: 'unknown' }, reach: 'local' },
        },
      });
      expect([asked.status(), await code(asked)]).toEqual([507, 'store-full']);
      const renamed = await script.put(`${api}/sites/${site}`, { data: { name: 'Larkspur Bindery, upstairs' } });
      expect([renamed.status(), await code(renamed)]).toEqual([507, 'store-full']);
      const person = await (await page.context().browser()!.newContext()).newPage();
      await person.goto(`${program.origin}/sign-in`);
      await person.getByLabel('your name').fill('Ines');
      await person.getByLabel('passphrase').fill(FIRST_PASSPHRASE);
      await person.getByRole('button', { name: 'Sign in' }).click();
      await expect(person.getByText('The console cannot write to its data folder')).toBeVisible();
      // Reading goes on.
      expect((await script.get(`${api}/sites/${site}`)).status()).toBe(200);
      rmSync(filler);
      expect((await addDevice('Roomy laptop')).status()).toBe(201);
      await person.getByLabel('passphrase').fill(FIRST_PASSPHRASE);
      await person.getByRole('button', { name: 'Sign in' }).click();
      await expect(person).toHaveURL(`${program.origin}/`);
    } finally {
      await program.interrupt();
    }
  });
});

test('one data folder serves one console at a time', async () => {
  const data = newDataFolder();
  const first = await startProgram({ mode: 'start', port: PORT, data });
  const { said } = await refusal({ data, port: PORT + 5 });
  await first.interrupt();
  expect(said).toMatch(/is in use by process \d+/);
});

test('a broken database is not written over', async () => {
  const data = newDataFolder();
  const file = join(data, 'bent-straw.sqlite');
  writeFileSync(file, 'this is no database, but somebody may want it back'.repeat(100));
  const { exitCode, said } = await refusal({ data });
  expect(exitCode).toBe(1);
  expect(said).toMatch(/is damaged \([^]*\)\. Put a copy back: npm run restore -- .*\[store-damaged\]/);
  expect(execFileSync('head', ['-c', '19', file], { encoding: 'utf8' })).toBe('this is no database');
});

test('Ctrl-C ends every part, and nothing listens any more', async () => {
  const program = await startProgram({ mode: 'demo', port: PORT, data: newDataFolder() });
  await expect.poll(() => program.childrenWith('dist/').length).toBe(6);
  const parts = program.childrenWith('dist/');
  expect(await program.interrupt()).toBe(0);
  for (const pid of parts) expect(() => process.kill(pid, 0)).toThrow();
  await expect(fetch(program.origin)).rejects.toThrow();
});

test('the parts do not outlive a launcher that was killed', async () => {
  const program = await startProgram({ mode: 'start', port: PORT, data: newDataFolder() });
  const parts = program.childrenWith('dist/');
  const launcher = Number(execFileSync('ps', ['-o', 'ppid=', '-p', String(parts[0])], { encoding: 'utf8' }));
  process.kill(launcher, 'SIGKILL');
  const alive = () =>
    parts.filter((pid) => {
      try {
        process.kill(pid, 0);
        return true;
      } catch {
        return false;
      }
    }).length;
  await expect.poll(alive).toBe(0);
});
