import { join } from 'node:path';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { NEW_PLAN } from '.';
import { openNewStore } from './store-for-tests';

describe('an error of the store', () => {
  const folder = mkdtempSync(join(tmpdir(), 'bent-straw-'));
  afterAll(() => rmSync(folder, { recursive: true }));

  it('says in its stack what went wrong, and not with which values', async () => {
    const store = await openNewStore(join(folder, 'store.sqlite'));
    const plan = {
      name: 'a plan of nobody else',
      basis: 'payload',
      fullFrom: 0.9,
      leastDownBps: null,
      leastUpBps: null,
    } as const;
    const broken = store.sites.savePlan({
      ...{ ...NEW_PLAN, ...plan, id: 'plan', lineId: 'nowhere', validFromMs: 0, downBps: 1, upBps: 1 },
    });
    const stack = await broken.then(
      () => '',
      (error: Error) => error.stack ?? '',
    );
    await store.close();
    expect(stack).toMatch(/FOREIGN KEY constraint failed/);
    expect(stack).not.toContain('nobody else');
  });
});
