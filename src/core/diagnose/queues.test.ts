import { occasionOf } from './office-for-tests';
import { DEEP_QUEUE_MS, deepQueuesOf } from './queues';

const both = (name: string, inside: number, outside: number) => [
  occasionOf(name, 'local', { down: 940, up: 938, addedUp: inside, addedDown: 2 }),
  occasionOf(name, 'internet', { down: 487, up: 97, addedUp: outside, addedDown: 10 }),
];

describe('delay’s own map', () => {
  it('takes off what a device’s own link adds: what is left is the line’s', () => {
    const [queue, ...others] = deepQueuesOf([...both('a', 30, 230), ...both('b', 10, 215)]);
    expect(others).toEqual([]);
    expect(queue).toMatchObject({ where: 'line', direction: 'up', addedMs: 202.5 });
    expect([...queue!.deviceIds].sort()).toEqual(['a', 'b']);
  });

  it('keeps quiet below what is soggy, and where only one of three devices waits', () => {
    expect(deepQueuesOf([...both('a', 3, DEEP_QUEUE_MS), ...both('b', 3, 20)])).toEqual([]);
    expect(deepQueuesOf([...both('a', 3, 300), ...both('b', 3, 12), ...both('c', 3, 11)])).toEqual([]);
  });

  it('says who does not wait: those runs speak against it', () => {
    const quiet = both('c', 3, 12);
    const [queue] = deepQueuesOf([...both('a', 3, 230), ...both('b', 3, 220), ...quiet]);
    expect(queue!.against).toEqual(quiet[1]!.runIds);
    expect(queue!.deviceIds).not.toContain('c');
  });

  it('says nothing from runs whose delay was not measured', () => {
    expect(deepQueuesOf([occasionOf('a', 'internet', { down: 487, up: 97 })])).toEqual([]);
  });
});
