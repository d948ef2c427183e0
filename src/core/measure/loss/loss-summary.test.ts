import fc from 'fast-check';
import { oneWayLoss, summarizeLoss } from './loss-summary';
import type { UdpSeries } from './udp-series';

/** Packets every 20 ms; `lost` says which got no reply and in which direction. */
function series(count: number, lost: (sequence: number) => 'up' | 'down' | null, rtt = () => 14): UdpSeries {
  let reflected = 0;
  const answers = Array.from({ length: count }, (_, sequence) => {
    const way = lost(sequence);
    if (way === 'up') return { rttMs: null, reflected: null };
    reflected += 1;
    return way === 'down' ? { rttMs: null, reflected: null } : { rttMs: rtt(), reflected: reflected - 1 };
  });
  return {
    kind: 'stamp',
    sentMs: answers.map((_, index) => index * 20),
    rttMs: answers.map(({ rttMs }) => rttMs),
    reflected: answers.map((answer) => answer.reflected),
    upMs: answers.map((answer) => (answer.rttMs === null ? null : 1000 + 6)),
    duplicates: 0,
    peerReceived: reflected,
  };
}

describe('loss', () => {
  it('is told apart by direction from the two sequence numbers', () => {
    const summary = summarizeLoss(series(100, (k) => (k % 50 === 7 ? 'up' : k === 99 ? 'down' : null)))!;
    expect(summary).toMatchObject({ sent: 100, lossUpRatio: 0.02, duplicates: 0, reorderedUp: 0, reorderedDown: 0 });
    expect(summary.lossRatio).toBeCloseTo(0.03, 10);
    expect(summary.lossDownRatio).toBeCloseTo(1 / 98, 10);
  });

  it('adds up, whatever is lost', () => {
    fc.assert(
      fc.property(fc.array(fc.constantFrom('up', 'down', null), { minLength: 1, maxLength: 300 }), (ways) => {
        const { sent, lossRatio, lossUpRatio, lossDownRatio } = summarizeLoss(series(ways.length, (k) => ways[k]!))!;
        const lost = (way: string) => ways.filter((each) => each === way).length;
        expect(Math.round(lossUpRatio! * sent)).toBe(lost('up'));
        expect(Math.round(lossRatio * sent)).toBe(lost('up') + lost('down'));
        if (lossDownRatio !== null) expect(Math.round(lossDownRatio * (sent - lost('up')))).toBe(lost('down'));
      }),
    );
  });

  it('counts a packet that was overtaken on its way up as reordered up', () => {
    const plain = series(4, () => null);
    expect(summarizeLoss({ ...plain, reflected: [0, 2, 1, 3] })).toMatchObject({ reorderedUp: 1 });
  });

  it('counts a reply that was overtaken on its way down as reordered down', () => {
    const plain = series(3, () => null);
    expect(summarizeLoss({ ...plain, rttMs: [14, 60, 14] })).toMatchObject({ reorderedUp: 0, reorderedDown: 1 });
  });

  it('is not told by direction where the peer could not be asked, or for a part of the run', () => {
    const plain = series(100, (k) => (k === 50 ? 'up' : null));
    expect(summarizeLoss({ ...plain, peerReceived: null })).toMatchObject({ lossUpRatio: null, lossRatio: 0.01 });
    expect(summarizeLoss(plain, 0, 500)).toMatchObject({ sent: 25, lossRatio: 0, lossUpRatio: null });
  });

  it('is not measured without packets', () => {
    expect(summarizeLoss(null)).toBeNull();
    expect(
      summarizeLoss(
        series(10, () => null),
        5000,
        6000,
      ),
    ).toBeNull();
  });
});

describe('loss beside duplicates', () => {
  it('counts distinct packets: five lost and five that came twice are five lost', () => {
    const plain = series(100, (k) => (k < 5 ? 'down' : null));
    const summary = summarizeLoss({ ...plain, duplicates: 5 })!;
    expect(summary).toMatchObject({ lossRatio: 0.05, lossUpRatio: 0, lossDownRatio: 0.05, duplicates: 5 });
  });

  it('goes into the E-model one way: the worse direction, or half of what is lost there and back', () => {
    const told = summarizeLoss(series(100, (k) => (k < 2 ? 'up' : k < 6 ? 'down' : null)))!;
    expect(oneWayLoss(told)).toBeCloseTo(4 / 98, 10);
    expect(oneWayLoss({ ...told, lossUpRatio: null, lossRatio: 0.02 })).toBeCloseTo(0.01005, 5);
  });
});
