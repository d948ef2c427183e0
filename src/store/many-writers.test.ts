import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { NEW_DEVICE, NEW_SITE, type Store } from '.';
import { openNewStore } from './store-for-tests';

/** More than the threads that Node gives to its databases, by far. */
const AT_ONCE = 150;
const MINUTE_MS = 60_000;

describe('many who write at once', () => {
  let folder: string;
  let store: Store;
  beforeEach(async () => {
    folder = mkdtempSync(join(tmpdir(), 'bent-straw-writers-'));
    store = await openNewStore(join(folder, 'test.sqlite'));
    await store.sites.saveSite({ ...NEW_SITE, id: 's', name: 'Office', joinCode: 'KMT4QX', joinCodeUntilMs: 0 });
    await store.sites.saveDevice({
      ...{ ...NEW_DEVICE, id: 'd', siteId: 's', spotId: null, name: 'Box', link: { medium: 'unknown' } },
    });
    await store.lanes.save({
      ...{ id: 'l', siteId: 's', deviceId: 'd', name: 'Gateway', kind: 'echo', target: '192.0.2.1', role: 'gateway' },
      ...{ everyMs: 1000, place: 0, madeAtMs: 0, answeredAtMs: null, removedAtMs: null },
    });
  });
  afterEach(async () => {
    await store.close();
    rmSync(folder, { recursive: true });
  });

  it('all come through: in transactions, beside them, and while others read', async () => {
    const all = await Promise.allSettled(
      Array.from({ length: AT_ONCE }, (_, number) => [
        store.lanes.addMinutes([
          {
            ...{ laneId: 'l', fromMs: number * MINUTE_MS, sent: 60, answered: 60, lostThere: 0, lostBack: 0 },
            ...{ minMs: 1, medianMs: 1, p95Ms: 2, maxMs: 3, raw: new Uint8Array([1]) },
          },
        ]),
        store.sites.saveSpot({ id: `spot-${number}`, siteId: 's', name: `Spot ${number}` }),
        store.sites.devicesOf('s'),
      ]).flat(),
    );
    expect(all.flatMap((each) => (each.status === 'rejected' ? [String(each.reason)] : []))).toEqual([]);
    expect(await store.sites.spotsOf('s')).toHaveLength(AT_ONCE);
    expect(await store.lanes.minutes(['l'], 0, AT_ONCE * MINUTE_MS)).toHaveLength(AT_ONCE);
  });
});
