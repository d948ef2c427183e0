import { changesOf, classesOf, proofsOf } from './proof';
import { occasionOf, onCable, segmentFor, SHARED } from './office-for-tests';
import { suspicionOf } from './suspicion';

const OFFICE = [...onCable('press'), ...onCable('bench'), ...SHARED];
const byId = new Map(OFFICE.map((segment) => [segment.id, segment]));

describe('what is proven', () => {
  it('is proven of everything on the path of the run, and of nothing else', () => {
    const run = occasionOf('press', 'internet', { down: 487 });
    const proofs = proofsOf([run], new Map(), 'down');
    for (const id of run.path) expect(proofs.get(id)).toMatchObject({ bps: 487 * 0.985e6, runId: run.runIds[0] });
    expect(proofs.has('cable:bench')).toBe(false);
  });

  it('is the most of several, and stale from when a path over it turned slow', () => {
    const before = occasionOf('press', 'local', { down: 940, atMs: 1 });
    const after = occasionOf('press', 'local', { down: 93, atMs: 2 });
    const changes = changesOf([before, after], byId, 'down');
    expect([...changes.values()]).toEqual([2]);
    expect(proofsOf([before, after], changes, 'down').get('cable:press')!.bps).toBe(93 * 0.985e6);
    // What another device proves afterwards of the switch stands.
    const other = occasionOf('bench', 'local', { down: 940, atMs: 3 });
    expect(proofsOf([before, after, other], changes, 'down').get('hop')!.bps).toBe(940 * 0.985e6);
  });

  it('is not stale when the path is sound again', () => {
    const runs = [940, 93, 938].map((down, atMs) => occasionOf('press', 'local', { down, atMs }));
    expect(changesOf(runs, byId, 'down').size).toBe(0);
  });
});

describe('what is suspected', () => {
  const bench = occasionOf('bench', 'local', { down: 384 });
  const press = occasionOf('press', 'local', { down: 940 });

  it('leaves device and cable of one that is slow beside one that is not', () => {
    const { probability, cleared } = suspicionOf(OFFICE, [bench, press], 'down');
    for (const id of ['hop', 'peer:local:in', 'device:press', 'cable:press']) expect(cleared.has(id)).toBe(true);
    expect(probability.get('device:bench')! + probability.get('cable:bench')!).toBeGreaterThan(0.95);
    expect(probability.get('device:bench')).toBeGreaterThan(0.4);
    expect(probability.get('cable:bench')).toBeGreaterThan(0.3);
  });

  it('takes it for the device where the engine called it slow', () => {
    const said = { ...bench, flags: ['device-limited'] as const };
    expect(suspicionOf(OFFICE, [said, press], 'down').probability.get('device:bench')).toBeGreaterThan(0.9);
  });

  it('takes it for the cable once another cable made it fast', () => {
    const swapped = segmentFor('cable:bench~1', 'cable', byId.get('cable:bench')!.sound.down, { generation: 1 });
    const after = {
      ...occasionOf('bench', 'local', { down: 938 }),
      path: bench.path.map((id) => (id === 'cable:bench' ? swapped.id : id)),
    };
    const { probability } = suspicionOf(
      [...OFFICE, swapped],
      [bench, occasionOf('bench', 'local', { down: 391 }), press, after],
      'down',
    );
    expect(probability.get('cable:bench')).toBeGreaterThan(0.9);
    expect(probability.get('device:bench')).toBeLessThan(0.05);
    expect(probability.get(swapped.id)).toBe(0);
  });

  it('accuses nobody with a run beside which something else used the line, and still takes it as proof', () => {
    const busy = { ...bench, flags: ['other-traffic'] as const };
    const { probability, proofs } = suspicionOf(OFFICE, [busy, press], 'down');
    expect(Math.max(...probability.values())).toBe(0);
    expect(proofs.get('cable:bench')!.bps).toBeGreaterThan(300e6);
  });

  it('finds a third and a fourth fault as well', () => {
    const names = ['a', 'b', 'c', 'd', 'e'];
    const segments = [...names.flatMap(onCable), ...SHARED];
    const slow = names
      .slice(0, 4)
      .map((name, index) => occasionOf(name, 'local', { down: 100 + 60 * index, flags: ['device-limited'] }));
    const { probability } = suspicionOf(segments, [...slow, occasionOf('e', 'local', { down: 940 })], 'down');
    for (const name of names.slice(0, 4)) expect(probability.get(`device:${name}`)).toBeGreaterThan(0.9);
    expect(probability.get('device:e')).toBe(0);
  });

  it('says nothing from nothing', () => {
    const { probability, entanglements } = suspicionOf(OFFICE, [], 'down');
    expect(Math.max(...probability.values())).toBe(0);
    expect(entanglements).toEqual([]);
  });
});

describe('the classes of occasions', () => {
  it('are made anew for a list that has grown since', () => {
    const occasions = [occasionOf('press', 'local', { down: 940, up: 938 })];
    expect([...classesOf(occasions).values()].flat()).toHaveLength(1);
    occasions.push(occasionOf('bench', 'local', { down: 385, up: 290 }));
    expect([...classesOf(occasions).values()].flat()).toHaveLength(2);
    expect(classesOf(occasions)).toBe(classesOf(occasions));
  });
});
