import type { Ledger } from '@/services';
import { drawnRun } from './drawn-run';
import { readColumns } from './ledger-columns';
import { ledgerHref, ledgerSearch, readLedgerChoice, WHOLE_LEDGER } from './ledger-href';

type Run = Ledger['runs'][number];
const NOW = Date.UTC(2026, 10, 25, 12);

const run = (changes: Partial<Run>): Run => ({
  ...{ id: 'r', siteId: 's', deviceId: 'd', peerId: 'p', lineId: null, deviceName: 'Press desk', spotName: null },
  ...{ peerName: 'Hilltop', lineName: null, reach: 'internet', link: { medium: 'unknown' }, linkKind: 'wifi-5' },
  ...{ plan: null, profile: 'standard', practice: false, demo: false, status: 'finished', reason: null },
  ...{ startedAtMs: Date.UTC(2026, 10, 24, 9), lastSeenAtMs: 0, endedAtMs: null, sameMachine: null, ipVersion: null },
  ...{
    farEnd: 'peer',
    farLink: null,
    pageHiddenMs: 0,
    peerLinkBps: null,
    otherPeerThanUsual: false,
    userAgent: null,
    methodVersion: 1,
  },
  ...{ verdict: 'thin', downBps: 402e6, upBps: 9.38e6, idleMs: 15.2, addedMs: 42, sketch: null, setId: 'r' },
  ...{ askedBy: null, together: null, told: [], noticed: [], notes: '', shareNumber: null, evidence: 'alone' },
  ...{
    ticketId: null,
    untilMs: null,
    ...{ planCorrectedAtMs: null, lineUse: null },
    ...{ thinnedAtMs: null, importId: null },
    ranges: null,
    leftOut: null,
    movedBytes: null,
    flags: '',
    tags: [],
  },
  ...changes,
});
const drawn = (changes: Partial<Run>, timeZone: string | null = 'Europe/London') =>
  drawnRun(run(changes), timeZone, NOW);

describe('a row of the ledger', () => {
  it('shows both ends of what is no one figure, and says of a share that it is one', () => {
    const torn = drawn({ downBps: null, ranges: { down: { low: 8.2e6, high: 17.9e6 }, up: null } });
    expect(torn.outcome).toMatchObject({ down: '8.20–17.9', up: '9.38' });
    expect(drawn({ evidence: 'together' }).aside).toBe('together');
    expect(drawn({ evidence: 'left-out', leftOut: 'the backup ran' }).aside).toBe('left out: the backup ran');
  });

  it('shows what was measured with three figures, and the delay with its word', () => {
    expect(drawn({})).toMatchObject({
      ...{ device: 'Press desk', link: '5 GHz', reach: 'internet', spot: '–', strip: null, aside: null },
      outcome: { status: 'finished', down: '402', up: '9.38', idle: '15 ms', added: '+42 ms', rating: 'soft' },
    });
  });

  it('shows the hour at the office, and the year where it is not this one', () => {
    expect(drawn({}).when).toBe('Tue 24 Nov, 09:00');
    expect(drawn({}, 'Asia/Kathmandu').when).toBe('Tue 24 Nov, 14:45');
    expect(drawn({ startedAtMs: Date.UTC(2025, 10, 24, 9) }).when).toBe('24 Nov 2025, 09:00');
    // A new year begins at the office when it begins there.
    expect(drawn({ startedAtMs: Date.UTC(2025, 11, 31, 20) }, 'Pacific/Auckland').when).not.toContain('2025');
  });

  it('never shows 0 for what is unknown', () => {
    const { outcome } = drawn({ downBps: null, upBps: null, idleMs: null, addedMs: null, verdict: null });
    expect(outcome).toMatchObject({ down: '–', up: '–', added: '–', rating: null, verdict: 'no verdict' });
    expect(JSON.stringify(outcome)).not.toMatch(/\d/);
  });

  it('says in words how a run stands that has no figures', () => {
    expect(drawn({ status: 'running' }).outcome).toEqual({ status: 'other', words: 'is measuring now' });
    const vanished = drawn({ status: 'unfinished', reason: 'device-vanished' }).outcome;
    expect(vanished).toMatchObject({ status: 'other', words: expect.stringMatching(/^unfinished · .+\.$/) as string });
  });
});

describe('the address of the ledger', () => {
  const read = (search: string) => readLedgerChoice(new URLSearchParams(search));

  it('holds how it is looked at, signs and all, and nothing else', () => {
    expect(ledgerHref(WHOLE_LEDGER)).toBe('/ledger');
    expect(ledgerHref({ ...WHOLE_LEDGER, query: '  ' })).toBe('/ledger');
    const choice = {
      ...({ query: 'a&b = ü "x y" down<100', deviceId: 'd', sort: 'down', way: 'up' } as const),
      columns: ['when', 'down'] as const,
    };
    expect(read(ledgerSearch(choice))).toEqual(choice);
  });

  it('edited by hand into nonsense is read as far as it means something', () => {
    expect(read('q=x&sort=colour&way=sideways&columns=none,,')).toEqual({ ...WHOLE_LEDGER, query: 'x' });
    expect(read(`q=${'y'.repeat(5000)}`).query).toHaveLength(1000);
    expect(readColumns('added,when,added,nothing')).toEqual(['when', 'added']);
  });
});
