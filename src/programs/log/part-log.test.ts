import {
  closeSync,
  mkdtempSync,
  openSync,
  renameSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { basename, join } from 'node:path';
import type { PeerEvent } from '@/peer';
import { loggedPath } from '@/peer';
import { LineBudget } from './line-budget';
import { FILE_BYTES, OLDER_FILES, openLog } from './part-log';
import { peerLog } from './peer-log';

describe('the log of a part', () => {
  let folder: string;
  beforeEach(() => {
    folder = mkdtempSync(join(tmpdir(), 'bent-straw-log-'));
  });
  afterEach(() => rmSync(folder, { recursive: true, force: true }));

  const files = () => readdirSync(folder, { recursive: true }).map((name) => join(folder, String(name)));
  const text = () =>
    files()
      .filter((file) => statSync(file).isFile())
      .map((file) => readFileSync(file, 'utf8'))
      .join('');
  const lines = () =>
    text()
      .trim()
      .split('\n')
      .filter(Boolean)
      .map((line) => JSON.parse(line) as Record<string, unknown>);
  it('is one line of JSON an event, with level, moment, part and facts', () => {
    const log = openLog({ folder, level: 'info' }, 'door');
    log.info({ port: 4870 }, 'listening');
    log.debug({}, 'too much');
    log.warn({}, 'last');
    expect(lines()).toHaveLength(2);
    expect(lines()[0]).toMatchObject({ level: 'info', part: 'door', event: 'listening', port: 4870 });
    expect(Date.parse(String(lines()[0]!['time']))).not.toBeNaN();
  });

  it('holds nothing that lets somebody in', () => {
    const log = openLog({ folder, level: 'debug' }, 'console');
    const secret = 'seven quires of vellum';
    for (const name of ['passphrase', 'token', 'ticket', 'cookie', 'authorization', 'runKey', 'turnKey', 'code'])
      log.error({ [name]: secret, request: { [name]: secret } }, 'odd');
    expect(lines()).toHaveLength(8);
    expect(text()).not.toContain(secret);
  });

  it('fills no more than its files', () => {
    const long = 'x'.repeat(1000);
    // A part that is started again goes on where it was.
    for (const start of [1, 2, 3]) {
      const log = openLog({ folder, level: 'info' }, 'door', 100_000);
      for (let line = 0; line < 600; line += 1) log.info({ long, start }, 'flood');
    }
    expect(
      files()
        .map((file) => basename(file))
        .sort(),
    ).toEqual(['door.1.log', 'door.2.log', 'door.3.log', 'door.log']);
    for (const file of files()) expect(statSync(file).size).toBeLessThan(102_000);
    expect(lines().every((each) => each['start'] === 3)).toBe(true);
  });

  it('says of an error what it was, and nothing of the statement that failed', () => {
    const log = openLog({ folder, level: 'info' }, 'console');
    const error = Object.assign(new Error('SQLITE_CONSTRAINT'), {
      sql: "INSERT 'seven quires'",
      parent: { sql: 'seven quires' },
    });
    log.error({ err: error }, 'unexpected');
    expect(lines()[0]).toMatchObject({ err: { name: 'Error', message: 'SQLITE_CONSTRAINT' } });
    expect(text()).toContain('part-log.test.ts');
    expect(text()).not.toContain('seven quires');
  });

  it('goes on when its folder was away, and meanwhile writes into no file of somebody else', () => {
    const log = openLog({ folder: join(folder, 'log'), level: 'info' }, 'door', 1000);
    log.info({ long: 'x'.repeat(1200) }, 'full');
    renameSync(join(folder, 'log'), join(folder, 'away'));
    log.info({}, 'lost');
    // It gets the number of the file that was closed.
    const other = join(folder, 'other');
    const descriptor = openSync(other, 'w');
    log.info({}, 'lost too');
    closeSync(descriptor);
    expect(readFileSync(other, 'utf8')).toBe('');
    renameSync(join(folder, 'away'), join(folder, 'log'));
    log.info({}, 'back');
    log.info({}, 'and on');
    // The one that was full was left for the next, once.
    expect(text()).toContain('"event":"back"');
    expect(readFileSync(join(folder, 'log', 'door.log'), 'utf8')).toContain('"event":"and on"');
  });

  it('is four files of 5 MB in all, for each part', () =>
    expect([FILE_BYTES, 1 + OLDER_FILES]).toEqual([5_000_000, 4]));

  it('is written nowhere where there is no folder for it, or none can be made', () => {
    const nowhere = openLog({ folder: null, level: 'debug' }, 'peer');
    nowhere.error({}, 'said to nobody');
    const file = join(folder, 'a file, not a folder');
    writeFileSync(file, '');
    const unwritable = openLog({ folder: join(file, 'log'), level: 'debug' }, 'door');
    expect(() => unwritable.error({}, 'lost')).not.toThrow();
    expect(files()).toEqual([file]);
  });
});

describe('lines that anybody can cause', () => {
  it('are so many a minute and no more; what was held back is counted', () => {
    let nowMs = 0;
    const held: number[] = [];
    const budget = new LineBudget(
      () => nowMs,
      (count) => held.push(count),
    );
    const taken = Array.from({ length: 500 }, () => budget.take()).filter(Boolean).length;
    expect(taken).toBe(120);
    nowMs = 60_000;
    expect(budget.take()).toBe(true);
    expect(held).toEqual([380]);
  });

  it('of a peer are those that a stranger can cause; sessions and failures are all told', () => {
    const written: string[] = [];
    const write = (level: string) => (_: object, event: string) => written.push(`${level} ${event}`);
    const log = { debug: write('debug'), info: write('info'), warn: write('warn'), error: write('error') };
    const tell = peerLog(log as never, () => 0);
    const request = { id: 'a', method: 'GET', path: '/', status: 404, tookMs: 1, address: null };
    const all = (event: PeerEvent, times: number) => {
      for (let time = 0; time < times; time += 1) tell(event);
      return written.splice(0).length;
    };
    expect(all({ kind: 'request', request }, 1000)).toBe(120);
    expect(all({ kind: 'ticket-refused', code: 'ticket-forged', address: null }, 1000)).toBe(0);
    expect(all({ kind: 'request', request: { ...request, status: 500 } }, 300)).toBe(300);
    expect(all({ kind: 'session-opened', run: 'r', session: 's', address: null }, 300)).toBe(300);
  });
});

describe('a path in the log', () => {
  it('leaves out what lets somebody in', () => {
    expect(loggedPath('/j/KMT4QX')).toBe('/j/…');
    expect(loggedPath('/s/run/proof')).toBe('/s/…');
    expect(loggedPath('/passphrase/abc.def')).toBe('/passphrase/…');
    expect(loggedPath('/runs/abc')).toBe('/runs/abc');
    expect(loggedPath(`/${'x'.repeat(5000)}`)).toHaveLength(200);
  });
});
