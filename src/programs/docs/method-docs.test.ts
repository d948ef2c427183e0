import { readFileSync } from 'node:fs';
import { METHOD_VERSION, PROFILE_NAMES, RUN_PROFILES } from '@/core';

const text = readFileSync('docs/measurement.md', 'utf8');

describe('docs/measurement.md', () => {
  it('tells of the method that the code has', () => {
    const [, version] = /\(method version (\d+)\)/.exec(text)!;
    expect(Number(version)).toBe(METHOD_VERSION);
  });

  it('has the times and streams of each profile', () => {
    const section = text.split('### Profiles')[1]!.split('\n#')[0]!;
    const rows = new Map(
      section
        .split('\n')
        .filter((line) => line.startsWith('| '))
        .map((line) => line.split('|').map((cell) => cell.trim()))
        .map(([, name, idle, direction, streams]) => [name, { idle, direction, streams }]),
    );
    // A paced run fills nothing; its numbers stand with the loss that it is for.
    for (const name of PROFILE_NAMES.filter((each) => each !== 'paced')) {
      const { idleMs, mostDirectionMs, steps, streams } = RUN_PROFILES[name];
      const loads = steps.includes('download');
      const { first, most } = streams;
      expect([name, rows.get(name)]).toEqual([
        name,
        {
          idle: `${idleMs / 1000} s`,
          direction: loads ? expect.stringMatching(new RegExp(`^${mostDirectionMs / 1000} s`)) : '–',
          streams: loads ? (first === most ? String(first) : `${first} to ${most}`) : '–',
        },
      ]);
    }
  });
});
