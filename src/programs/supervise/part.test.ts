import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Part, PartFailure } from './part';

describe('a part of the program', () => {
  let folder: string;
  let part: Part | null;
  beforeEach(() => {
    folder = mkdtempSync(join(tmpdir(), 'bent-straw-part-'));
    part = null;
  });
  afterEach(async () => {
    await part?.stop();
    rmSync(folder, { recursive: true });
  });

  /** A part that does this at its first, second, … start, and lives after the last. */
  const partThat = (...deeds: string[]) => {
    const place = mkdtempSync(join(folder, 'part-'));
    const script = join(place, 'part.cjs');
    const counter = join(place, 'starts');
    writeFileSync(
      script,
      `const { existsSync, readFileSync, writeFileSync } = require('node:fs');
       const counter = ${JSON.stringify(counter)};
       const start = existsSync(counter) ? Number(readFileSync(counter, 'utf8')) : 0;
       writeFileSync(counter, String(start + 1));
       const ready = () => process.send({ kind: 'ready' });
       const deeds = [${deeds.map((deed) => `() => { ${deed} }`).join(', ')}];
       (deeds[start] ?? (() => { ready(); setInterval(() => undefined, 1000); }))();`,
    );
    const said: string[] = [];
    const waiting: { text: string; heard: () => void }[] = [];
    part = new Part('peer', script, [], (sentence) => {
      said.push(sentence);
      for (const each of waiting) if (sentence.includes(each.text)) each.heard();
    });
    const heard = (text: string) =>
      new Promise<void>((resolve) => {
        if (said.some((sentence) => sentence.includes(text))) resolve();
        else waiting.push({ text, heard: resolve });
      });
    return { part, said, heard, starts: () => (existsSync(counter) ? Number(readFileSync(counter, 'utf8')) : 0) };
  };

  it('is started again after it died, by itself or by a signal', async () => {
    const { part, said, heard } = partThat('ready(); setTimeout(() => process.exit(3), 20)');
    await part.start();
    await heard('is back');
    expect(said).toEqual(['The peer stopped (exit code 3). Starting it again.', 'The peer is back.']);
    said.length = 0;
    process.kill(part.pid!, 'SIGKILL');
    await heard('is back');
    expect(said[0]).toBe('The peer stopped (SIGKILL). Starting it again.');
  });

  it('is tried again when it fails while it starts anew, in whatever way', async () => {
    const { part, heard, starts, said } = partThat(
      'ready(); setTimeout(() => process.exit(1), 20)',
      'process.exit(1)',
      "process.send({ kind: 'failed', code: 'port-taken', sentence: 'Port 4870 is taken.' }); process.exitCode = 1; process.disconnect()",
      "process.kill(process.pid, 'SIGKILL')",
    );
    await part.start();
    await heard('is back');
    expect(starts()).toBe(5);
    expect(said).toContain('Port 4870 is taken.');
  });

  it('says why it could not be started the first time, and is not tried again', async () => {
    const { part, starts } = partThat(
      "process.send({ kind: 'failed', code: 'port-taken', sentence: 'Port 4870 is taken.' }); process.exitCode = 1; process.disconnect()",
    );
    const failure: unknown = await part.start().catch((error: unknown) => error);
    expect(failure).toBeInstanceOf(PartFailure);
    expect(failure).toMatchObject({ code: 'port-taken', message: 'Port 4870 is taken.' });
    expect(starts()).toBe(1);
  });

  it('stays stopped, also when it was stopped while it was to be started again', async () => {
    const { part, heard, starts } = partThat('ready(); setTimeout(() => process.exit(1), 20)');
    await part.start();
    await heard('Starting it again');
    await part.stop();
    // Another one that dies now is back after the same pause: by then this one would be, too.
    const other = partThat('ready(); setTimeout(() => process.exit(1), 20)');
    await other.part.start();
    await other.heard('is back');
    await other.part.stop();
    expect(starts()).toBe(1);
  });
});
