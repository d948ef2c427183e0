import { execFileSync, spawnSync } from 'node:child_process';
import { chmodSync, existsSync, mkdirSync, mkdtempSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { shareRateBps } from '@/core';
import { LookFault } from './look-fault';
import { mountOf, placeOf, readMounts } from './mount-of';
import { lookAtShare } from './share';

const MOUNTS = `22 1 8:1 / / rw,relatime shared:1 - ext4 /dev/sda1 rw
30 22 0:25 / /mnt/my\\040store rw,relatime shared:5 - nfs4 store.example:/volume1 rw,vers=4.2
31 22 0:26 / /mnt/my\\040store/deep rw - cifs //store.example/deep rw
32 22 0:27 / /run rw - tmpfs tmpfs rw,size=1k
33 22 0:28 / /srv/remote rw - fuse.sshfs me@far.example: rw`;

describe('what a folder lies on', () => {
  const at = (folder: string) => mountOf(readMounts(MOUNTS), folder);
  it.each([
    ['/mnt/my store/a', 'nfs4', 'network'],
    ['/mnt/my store/deep/b', 'cifs', 'network'],
    ['/mnt/my storehouse', 'ext4', 'own-disk'],
    ['/run/x', 'tmpfs', 'memory'],
    ['/srv/remote', 'fuse.sshfs', 'network'],
  ])('%s: %s, %s', (folder, fileSystem, place) => {
    expect(at(folder)).toMatchObject({ fileSystem });
    expect(placeOf(at(folder)!)).toBe(place);
  });
});

describe('a share, written and read back', () => {
  let folder: string;
  beforeEach(() => (folder = mkdtempSync(join(tmpdir(), 'bent-straw-share-'))));
  afterEach(() => rmSync(folder, { recursive: true, force: true }));
  const never = new AbortController().signal;
  const look = (facts: { megabytes?: number; streams?: number; at?: string } = {}, signal = never) =>
    lookAtShare(
      { what: 'share', folder: facts.at ?? folder, megabytes: facts.megabytes ?? 16, streams: facts.streams ?? 1 },
      signal,
    );
  const codeOf = (asked: Promise<unknown>) =>
    asked.then(
      () => 'it worked',
      (error: unknown) => (error instanceof LookFault ? error.code : error),
    );

  it.each([1, 3])('counts all bytes of %d files both ways, and leaves nothing', async (streams) => {
    const { written, read, place } = await look({ streams });
    expect(written.bytes.at(-1)).toBeGreaterThanOrEqual(16e6);
    expect(shareRateBps(written)).toBeGreaterThan(0);
    // Where the kernel did not let its memory of the files go, nothing is said of reading.
    if (read !== null) expect(read.bytes.at(-1)).toBe(written.bytes.at(-1));
    expect(place).not.toBe('network');
    expect(readdirSync(folder)).toEqual([]);
  });

  it('never takes the memory of the machine for a store: what lies there is not read back', async () => {
    const memory = mkdtempSync('/dev/shm/bent-straw-share-');
    try {
      expect(await look({ at: memory })).toMatchObject({ place: 'memory', fileSystem: 'tmpfs', read: null });
    } finally {
      rmSync(memory, { recursive: true });
    }
  });

  it('says what stands in the way: no folder, a file, too little room', async () => {
    expect(await codeOf(look({ at: join(folder, 'gone') }))).toBe('share-missing');
    writeFileSync(join(folder, 'file'), '');
    expect(await codeOf(look({ at: join(folder, 'file') }))).toBe('share-missing');
    expect(await codeOf(look({ megabytes: 1e9 }))).toBe('share-small');
  });

  const small = () => join(folder, 'small');
  const mountSmall = (options: string) => {
    mkdirSync(small());
    execFileSync('mount', ['-t', 'tmpfs', '-o', options, 'tmpfs', small()]);
  };
  const mayMount = (() => {
    const trial = mkdtempSync(join(tmpdir(), 'bent-straw-mount-'));
    const { status } = spawnSync('mount', ['-t', 'tmpfs', 'tmpfs', trial]);
    if (status === 0) spawnSync('umount', [trial]);
    rmSync(trial, { recursive: true });
    return status === 0;
  })();
  const whereMounts = mayMount ? it : it.skip;
  whereMounts('is refused where nothing may be written, and leaves nothing', async () => {
    mountSmall('size=200m,ro');
    try {
      expect(await codeOf(look({ at: small() }))).toBe('share-refused');
    } finally {
      execFileSync('umount', [small()]);
    }
  });

  whereMounts('a store that fills up meanwhile is said, and what was written is removed', async () => {
    mountSmall('size=120m');
    try {
      const asked = look({ at: small(), megabytes: 40 });
      // Somebody else takes the room while it is written.
      writeFileSync(join(small(), 'other'), Buffer.alloc(100e6));
      expect(await codeOf(asked)).toMatch(/share-full|share-small/);
      expect(readdirSync(small())).toEqual(['other']);
    } finally {
      execFileSync('umount', [small()]);
    }
  });

  it('a folder that vanishes in the middle is told as such', async () => {
    const at = join(folder, 'vanishing');
    mkdirSync(at);
    const asked = look({ at, megabytes: 400 });
    const removed = new Promise<void>((resolve) => {
      const poll = setInterval(() => {
        if (readdirSync(at).length === 0) return;
        clearInterval(poll);
        rmSync(at, { recursive: true });
        resolve();
      }, 1);
    });
    await removed;
    expect(await codeOf(asked)).toBe('share-lost');
    expect(existsSync(at)).toBe(false);
  });

  it('is stopped in the middle, and leaves nothing', async () => {
    const stop = new AbortController();
    const asked = look({ megabytes: 2000 }, stop.signal);
    while (readdirSync(folder).length === 0) await new Promise((resolve) => setImmediate(resolve));
    stop.abort();
    expect(await codeOf(asked)).toBe('look-stopped');
    expect(readdirSync(folder)).toEqual([]);
  });

  it('removes what a look left that was killed, and nothing of anybody who is alive', async () => {
    const { stdout } = { stdout: execFileSync(process.execPath, ['-e', 'console.log(process.pid)']).toString().trim() };
    const host = execFileSync('hostname').toString().trim().replace(/\W/g, '');
    mkdirSync(join(folder, `.bent-straw-${host}-${stdout}-x`));
    mkdirSync(join(folder, `.bent-straw-${host}-1-x`));
    mkdirSync(join(folder, 'theirs'));
    await look();
    expect(readdirSync(folder).sort()).toEqual([`.bent-straw-${host}-1-x`, 'theirs']);
  });

  it('gives everybody else no right to what it writes', async () => {
    chmodSync(folder, 0o777);
    const asked = look({ megabytes: 200 });
    while (readdirSync(folder).length === 0) await new Promise((resolve) => setImmediate(resolve));
    const { mode } = await import('node:fs').then(({ statSync }) => statSync(join(folder, readdirSync(folder)[0]!)));
    expect(mode & 0o077).toBe(0);
    await asked;
  });
});
