import { StoreFault } from '@/store';
import { PROGRAM_FAULTS, ProgramFault, type ProgramFaultCode } from './program-faults';
import { storeFault } from './store-fault';

const codes = Object.keys(PROGRAM_FAULTS) as ProgramFaultCode[];

test('every fault says what to do next', () => {
  const without = codes.filter(
    (code) =>
      !/\b(Give|Choose|choose|Stop|Make|Restore|Put|Name|Start|Correct|Copy|Install|Look)\b/.test(PROGRAM_FAULTS[code]),
  );
  expect(without).toEqual([]);
});

test('a fact that a sentence wants is never left open', () => {
  for (const code of codes) {
    const facts = Object.fromEntries([...PROGRAM_FAULTS[code].matchAll(/\{(\w+)\}/g)].map(([, name]) => [name!, 'X']));
    expect(new ProgramFault(code, facts).message).not.toMatch(/[{}]/);
  }
});

test('what keeps a database closed leads to the way out', () => {
  const foreign = storeFault(new StoreFault('store-newer', 'migration 0099'), '/srv/straw');
  expect([foreign.code, foreign.message]).toEqual([
    'store-newer',
    'The database in /srv/straw was used by a newer version of this program (migration 0099). Start that version, or put a copy of before back: npm run restore -- /srv/straw/backups/NAME --data /srv/straw',
  ]);
  const known = new ProgramFault('data-full', { folder: '/srv/straw' });
  expect(storeFault(known, '/srv/straw')).toBe(known);
  // Whatever nobody thought of is told with its reason, and not as a trace.
  expect(storeFault(new Error('SQLITE_IOERR: disk I/O error'), '/srv/straw')).toMatchObject({
    code: 'store-failed',
    message: expect.stringContaining('disk I/O error') as string,
  });
});
