import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { beginDemo } from './begin-demo';
import { dataFiles } from './data-folder';

const folder = mkdtempSync(join(tmpdir(), 'bent-straw-begin-'));
const files = dataFiles(folder);
const { database, demoPassphrase, demoUnfinished } = files;
const kept = [database, `${database}-wal`, demoPassphrase];
const write = () => kept.forEach((file) => writeFileSync(file, 'made'));
afterEach(() => [...kept, demoUnfinished].forEach((file) => rmSync(file, { force: true })));
afterAll(() => rmSync(folder, { recursive: true }));

test('what an interrupted first start left is removed before the next one', () => {
  beginDemo(files);
  write();
  beginDemo(files);
  expect(kept.filter((file) => existsSync(file))).toEqual([]);
});

test('a demo that is whole is left alone, however often it is started', () => {
  const whole = beginDemo(files);
  write();
  whole();
  expect(existsSync(demoUnfinished)).toBe(false);
  // The second start ends before it says so.
  beginDemo(files);
  beginDemo(files)();
  expect(kept.map((file) => readFileSync(file, 'utf8'))).toEqual(['made', 'made', 'made']);
});

test('one that an earlier version made, without a word about it, is left alone', () => {
  write();
  beginDemo(files)();
  expect(kept.every((file) => existsSync(file))).toBe(true);
});
