import type { Ledger } from '@/services';
import { drawnRun } from './drawn-run';
import { ledgerHref } from './ledger-href';

type Run = Ledger['runs'][number];

const run = (changes: Partial<Run>): Run => ({
  ...{ id: 'r', siteId: 's', deviceId: 'd', peerId: 'p', lineId: null, deviceName: 'Press desk', spotName: null },
  ...{ peerName: 'Hilltop', lineName: null, reach: 'internet', link: { medium: 'unknown' }, linkKind: 'wifi-5' },
  ...{ plan: null, profile: 'standard', practice: false, demo: false, status: 'finished', reason: null },
  ...{ startedAtMs: Date.UTC(2026, 10, 24, 9), lastSeenAtMs: 0, endedAtMs: null, sameMachine: null, ipVersion: null },
  ...{ pageHiddenMs: 0, peerLinkBps: null, otherPeerThanUsual: false, userAgent: null, methodVersion: 1 },
  ...{ verdict: 'thin', downBps: 402e6, upBps: 9.38e6, idleMs: 15.2, addedMs: 42, sketch: null, setId: 'r' },
  ...{ askedBy: null, together: null, told: [], noticed: [], notes: '', shareNumber: null, evidence: 'alone' },
  ...{ ticketId: null, untilMs: null, planCorrectedAtMs: null, ranges: null },
  ...changes,
});

describe('a row of the ledger', () => {
  it('shows both ends of what is no one figure, and says of a share that it is one', () => {
    const torn = drawnRun(run({ downBps: null, ranges: { down: { low: 8.2e6, high: 17.9e6 }, up: null } }));
    expect(torn.outcome).toMatchObject({ down: '8.20–17.9', up: '9.38' });
    expect(drawnRun(run({ evidence: 'together' })).place).toBe('5 GHz · internet · together');
  });

  it('shows what was measured with three figures, and the delay with its word', () => {
    expect(drawnRun(run({}))).toMatchObject({
      device: 'Press desk',
      place: '5 GHz · internet',
      strip: null,
      outcome: { status: 'finished', down: '402', up: '9.38', idle: '15 ms', added: '+42 ms', rating: 'soft' },
    });
  });

  it('never shows 0 for what is unknown', () => {
    const { outcome } = drawnRun(run({ downBps: null, upBps: null, idleMs: null, addedMs: null, verdict: null }));
    expect(outcome).toMatchObject({ down: '–', up: '–', added: '–', rating: null, verdict: 'no verdict' });
    expect(JSON.stringify(outcome)).not.toMatch(/\d/);
  });

  it('says in words how a run stands that has no figures', () => {
    expect(drawnRun(run({ status: 'running' })).outcome).toEqual({ status: 'other', words: 'is measuring now' });
    const vanished = drawnRun(run({ status: 'unfinished', reason: 'device-vanished' })).outcome;
    expect(vanished).toMatchObject({ status: 'other', words: expect.stringMatching(/^unfinished · .+\.$/) as string });
  });
});

describe('the address of the ledger', () => {
  it('holds what it is narrowed to, signs and all, and nothing else', () => {
    expect(ledgerHref({})).toBe('/ledger');
    expect(ledgerHref({ older: undefined, text: '' })).toBe('/ledger');
    const href = ledgerHref({
      text: 'a&b = ü',
      deviceId: 'd',
      linkKind: 'wifi-5',
      reach: 'local',
      span: 'week',
      older: '5~r',
    });
    expect(Object.fromEntries(new URL(href, 'http://console').searchParams)).toEqual({
      ...{ text: 'a&b = ü', device: 'd', link: 'wifi-5', reach: 'local', span: 'week', older: '5~r' },
    });
  });
});
