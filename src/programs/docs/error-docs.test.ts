import { readFileSync } from 'node:fs';
import { AGENT_FAULTS, LOOK_FAULTS } from '@/agent';
import { UNFINISHED_REASONS } from '@/core';
import { SESSION_FAULTS } from '@/session';
import { CONSOLE_FAULTS, type FaultCatalogue, PEER_FAULTS } from '@/wire';
import { PROGRAM_FAULTS } from '../faults/program-faults';

/** The rows of one section of docs/errors.md, each as its cells. */
function rowsOf(section: string): string[][] {
  const text = readFileSync('docs/errors.md', 'utf8');
  const [, body = ''] = text.split(`\n## ${section}\n`);
  return body
    .split('\n## ')[0]!
    .split('\n')
    .filter((line) => line.startsWith('| `'))
    .map((line) =>
      line
        .slice(1, -1)
        .split('|')
        .map((cell) => cell.trim().replace(/\s+/g, ' ')),
    );
}

const faultRows = (catalogue: FaultCatalogue) =>
  Object.entries(catalogue).map(([code, { status, sentence }]) => [`\`${code}\``, String(status), sentence]);

describe('docs/errors.md', () => {
  it('lists what a peer may answer, word for word', () => {
    expect(rowsOf('From a peer')).toEqual(faultRows(PEER_FAULTS));
  });

  it('lists what the console may answer, word for word', () => {
    expect(rowsOf('From the console')).toEqual(faultRows(CONSOLE_FAULTS));
  });

  it('lists what keeps a device from a run, word for word', () => {
    expect(rowsOf('On the page of a device')).toEqual(
      Object.entries(SESSION_FAULTS).map(([code, sentence]) => [`\`${code}\``, sentence]),
    );
  });

  it('lists why a run ended without a result, word for word', () => {
    const rows = Object.entries(UNFINISHED_REASONS).map(([code, { what, nextStep }]) => [
      `\`${code}\``,
      `${what} ${nextStep}`,
    ]);
    expect(rowsOf('Why a run ended without a result')).toEqual(rows);
  });

  it('lists what keeps the agent from a result, with its exit codes', () => {
    expect(rowsOf('From the agent')).toEqual(
      Object.entries(AGENT_FAULTS).map(([code, { exit, sentence }]) => [`\`${code}\``, String(exit), sentence]),
    );
  });

  it('lists what keeps an agent from looking, word for word', () => {
    expect(rowsOf('What keeps an agent from looking')).toEqual(
      Object.entries(LOOK_FAULTS).map(([code, sentence]) => [`\`${code}\``, sentence]),
    );
  });

  it('lists what keeps a program from starting, word for word', () => {
    expect(rowsOf('From the programs')).toEqual(
      Object.entries(PROGRAM_FAULTS).map(([code, sentence]) => [`\`${code}\``, sentence]),
    );
  });
});
