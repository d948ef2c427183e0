import { fork, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { lockFolder } from './folder-lock';

/** Has the lock in a process of its own, which can be killed. */
const OWNER = `
  const sqlite3 = require(process.argv[3]);
  const database = new sqlite3.Database(process.argv[2], () =>
    database.exec('BEGIN EXCLUSIVE', (error) => process.send(error === null ? 'has it' : String(error))));
  setInterval(() => undefined, 1000);
`;

describe('the lock of a data folder', () => {
  let folder: string;
  const owners: ChildProcess[] = [];
  beforeEach(() => (folder = mkdtempSync(join(tmpdir(), 'bent-straw-lock-'))));
  afterEach(() => {
    for (const each of owners.splice(0)) each.kill('SIGKILL');
    rmSync(folder, { recursive: true });
  });

  const owner = async (): Promise<ChildProcess> => {
    const script = join(folder, 'owner.cjs');
    writeFileSync(script, OWNER);
    const child = fork(script, [join(folder, 'in-use.lock'), require.resolve('sqlite3')]);
    owners.push(child);
    expect(await once(child, 'message')).toEqual(['has it', undefined]);
    return child;
  };

  it('is held by one at a time, says by which process, and is free again once let go', async () => {
    const first = await lockFolder(folder);
    expect(await lockFolder(folder)).toEqual({ heldBy: process.pid });
    if (!('release' in first)) throw new Error('not taken');
    first.release();
    expect(await lockFolder(folder)).toHaveProperty('release');
  });

  it('goes with the process that had it, however that ended, and whoever has its number now', async () => {
    const child = await owner();
    writeFileSync(join(folder, 'in-use.pid'), String(child.pid));
    expect(await lockFolder(folder)).toEqual({ heldBy: child.pid });
    child.kill('SIGKILL');
    await once(child, 'exit');
    // As after a restart of the machine: the number that is left belongs to somebody who lives.
    writeFileSync(join(folder, 'in-use.pid'), String(process.ppid));
    expect(await lockFolder(folder)).toHaveProperty('release');
  });

  it('is had by exactly one of eight that come at once upon what a dead one left', async () => {
    const child = await owner();
    child.kill('SIGKILL');
    await once(child, 'exit');
    const locks = await Promise.all(Array.from({ length: 8 }, () => lockFolder(folder)));
    expect(locks.filter((lock) => 'release' in lock)).toHaveLength(1);
    expect(await lockFolder(folder)).toEqual({ heldBy: process.pid });
  });
});
