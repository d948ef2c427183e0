import type { Diagnosis, Finding } from '@/core';
import { furnish, openTestConsole, type TestConsole } from '../console/console-for-tests';
import { letBe, refreshDiagnosis } from '.';

const LOST: Finding = {
  ...{ key: 'packets-lost desk', facts: { code: 'packets-lost', resentShare: 0.01, runs: 2 }, strength: 'likely' },
  ...{ segments: [], sinceMs: 1, hours: null, deviceIds: ['d'], evidence: { for: ['r'], against: [] }, weight: 0.5 },
};
const OTHER: Finding = { ...LOST, key: 'packets-lost shelf' };

describe('what stands out, worked out anew', () => {
  let console: TestConsole;
  let siteId: string;
  const written: string[] = [];
  /** Thinks what it is told to, and lets something happen meanwhile. */
  const refresh = (findings: readonly Finding[], meanwhile: () => Promise<unknown> = () => Promise.resolve()) => {
    const think = async (): Promise<Diagnosis> => {
      await meanwhile();
      return { findings, segments: [], occasions: 2 };
    };
    return refreshDiagnosis({ ...console.context, think }, siteId);
  };
  const kept = async () => {
    const all = await console.context.store.findings.findingsOf(siteId);
    return new Map(all.map((each) => [each.findingKey, each]));
  };

  beforeEach(async () => {
    console = await openTestConsole((sql) => void (/INTO `findings`/.test(sql) && written.push(sql)));
    ({ siteId } = await furnish(console));
    await refresh([LOST, OTHER]);
    written.length = 0;
  });
  afterEach(() => console.close());

  it('leaves be what a technician let be while it was thought', async () => {
    const { id } = (await kept()).get(LOST.key)!;
    await refresh([{ ...LOST, weight: 0.7 }, OTHER], () =>
      letBe(console.context, 'Ines', { findingId: id, reason: 'an old phone' }),
    );
    expect((await kept()).get(LOST.key)).toMatchObject({
      ...{ state: 'let-be', reason: 'an old phone', byName: 'Ines', finding: { weight: 0.7 } },
    });
  });

  it('writes down only what stands otherwise than before', async () => {
    await refresh([LOST, OTHER]);
    expect(written).toHaveLength(0);
    console.advanceMs(60_000);
    await refresh([{ ...LOST, strength: 'found' }, OTHER]);
    expect(written).toHaveLength(1);
    await refresh([OTHER]);
    expect(written).toHaveLength(2);
    const after = await kept();
    expect([after.get(LOST.key)?.state, after.get(LOST.key)?.strength]).toEqual(['gone', 'found']);
    expect(after.get(OTHER.key)?.state).toBe('open');
  });
});
