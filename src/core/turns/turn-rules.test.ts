import fc from 'fast-check';
import { holdOf, type TurnClaim, type TurnNeed } from './turn-rules';

const turn = (id: string, needs: TurnNeed[], changes: Partial<TurnClaim> = {}): TurnClaim => ({
  ...{ id, needs, deviceId: `device of ${id}`, deviceName: `Device ${id}`, together: null },
  ...changes,
});
const everybody = () => true;

describe('turns', () => {
  it('let one run use a line at a time, and say who has it', () => {
    const [one, two] = [turn('1', ['line:a']), turn('2', ['line:a'])];
    expect(holdOf(two, { running: [one], waiting: [two], isPresent: everybody })).toEqual({
      kind: 'line',
      by: 'Device 1',
    });
    expect(holdOf(two, { running: [], waiting: [two], isPresent: everybody })).toBeNull();
  });

  it('let runs that share nothing go on side by side', () => {
    const [one, two] = [turn('1', ['line:a']), turn('2', ['peer:b'])];
    expect(holdOf(two, { running: [one], waiting: [two], isPresent: everybody })).toBeNull();
  });

  it('keep the order of asking, so that nobody waits for ever', () => {
    const running = turn('0', ['peer:b']);
    // The first needs both; the second only what is free, but the first asked before.
    const [first, second] = [turn('1', ['line:a', 'peer:b']), turn('2', ['line:a'])];
    const state = { running: [running], waiting: [first, second], isPresent: everybody };
    expect(holdOf(second, state)).toEqual({ kind: 'line', by: 'Device 1' });
  });

  it('do not wait for a device that is away', () => {
    const [away, here] = [turn('1', ['line:a']), turn('2', ['line:a'])];
    const state = { running: [], waiting: [away, here], isPresent: (id: string) => id !== away.deviceId };
    expect(holdOf(away, state)).toEqual({ kind: 'device-away' });
    expect(holdOf(here, state)).toBeNull();
  });

  it('never let one device run twice at once', () => {
    const [one, two] = [turn('1', ['line:a']), turn('2', ['peer:b'], { deviceId: 'device of 1' })];
    expect(holdOf(two, { running: [one], waiting: [two], isPresent: everybody })).toEqual({ kind: 'device-busy' });
  });

  it('let no machine measure that is the other end of a run, nor be that while it measures', () => {
    const [between, own] = [turn('1', ['box:far']), turn('2', ['line:a'], { deviceId: 'far' })];
    for (const [running, waits] of [
      [between, own],
      [own, between],
    ] as const)
      expect(holdOf(waits, { running: [running], waiting: [waits], isPresent: everybody })).toEqual({
        kind: 'box',
        by: running.deviceName,
      });
    const twice = turn('3', ['box:far']);
    expect(holdOf(twice, { running: [between], waiting: [twice], isPresent: everybody })).not.toBeNull();
  });

  it('wait for the machine at the other end too', () => {
    const between = turn('1', ['box:far']);
    const state = { running: [], waiting: [between], isPresent: (id: string) => id !== 'far' };
    expect(holdOf(between, state)).toEqual({ kind: 'others-away', missing: ['the machine at the other end'] });
  });

  it('start those that run together at once, though they share the line, and only when all are there', () => {
    const members = ['1', '2', '3'].map((id) => turn(id, ['line:a'], { together: 'group' }));
    const all = { running: [], waiting: members, isPresent: everybody };
    expect(members.map((member) => holdOf(member, all))).toEqual([null, null, null]);
    const missing = { ...all, isPresent: (id: string) => id !== 'device of 3' };
    expect(holdOf(members[0]!, missing)).toEqual({ kind: 'others-away', missing: ['Device 3'] });
  });

  it('never overlap by accident, whatever is asked for in whatever order', () => {
    const needs: TurnNeed[] = ['line:a', 'line:b', 'peer:p', 'air:x'];
    const turns = fc.array(fc.record({ device: fc.integer({ min: 0, max: 4 }), needs: fc.subarray(needs) }), {
      maxLength: 12,
    });
    fc.assert(
      fc.property(turns, (asked) => {
        let waiting = asked.map(({ device, needs: wanted }, index) =>
          turn(String(index), wanted, { deviceId: `d${device}` }),
        );
        const started: TurnClaim[] = [];
        for (const candidate of waiting) {
          if (holdOf(candidate, { running: started, waiting, isPresent: everybody }) !== null) continue;
          started.push(candidate);
          waiting = waiting.filter(({ id }) => id !== candidate.id);
        }
        // Whoever is first always starts, and no two that run share anything.
        expect(started.length).toBeGreaterThan(asked.length === 0 ? -1 : 0);
        const used = started.flatMap((each) => [each.deviceId, ...each.needs]);
        expect(new Set(used).size).toBe(used.length);
      }),
    );
  });
});
