import { MINUTE_MS, type LaneMinute } from '@/core';
import { pageShelf } from './page-shelf';

const AT = Date.UTC(2026, 10, 24, 9, 0, 0);
const minute = (place: number): LaneMinute => ({
  ...{ laneId: 'l1', fromMs: AT + place * MINUTE_MS, sent: 1, answered: 1, lostThere: 0, lostBack: 0 },
  ...{ minMs: 12, medianMs: 12, p95Ms: 12, maxMs: 12, raw: Uint8Array.of(0, 200) },
});

function storage(most = Infinity): Storage {
  const kept = new Map<string, string>();
  return {
    getItem: (key: string) => kept.get(key) ?? null,
    setItem: (key: string, text: string) => {
      if (text.length > most) throw new DOMException('full', 'QuotaExceededError');
      kept.set(key, text);
    },
  } as unknown as Storage;
}

describe('minutes that a page keeps', () => {
  it('are there when the page is opened again, the oldest first, with their requests', async () => {
    const place = storage();
    await pageShelf(place).put([minute(0), minute(1)]);
    const part = await pageShelf(place).oldest();
    expect(part!.minutes.map(({ fromMs, raw }) => [fromMs, raw])).toEqual([
      [AT, 'AMg='],
      [AT + MINUTE_MS, 'AMg='],
    ]);
  });

  it('stay until they are handed in, and what comes meanwhile stays then, too', async () => {
    const place = storage();
    const shelf = pageShelf(place);
    await shelf.put([minute(0)]);
    const part = await shelf.oldest();
    await shelf.put([minute(1)]);
    await shelf.remove(part!);
    expect((await pageShelf(place).oldest())!.minutes.map(({ fromMs }) => fromMs)).toEqual([AT + MINUTE_MS]);
    await shelf.remove((await shelf.oldest())!);
    expect(await shelf.oldest()).toBeNull();
  });

  it('are bounded: the oldest go first, and how many is told once', async () => {
    const shelf = pageShelf(storage());
    await shelf.put(Array.from({ length: 500 }, (_, place) => minute(place)));
    expect((await shelf.oldest())!.minutes[0]!.fromMs).toBe(AT + 20 * MINUTE_MS);
    expect([shelf.takeDropped(), shelf.takeDropped()]).toEqual([20, 0]);
  });

  it('are handed in from the open page where the storage is full, or holds nonsense', async () => {
    const full = pageShelf(storage(10));
    await full.put([minute(0)]);
    expect((await full.oldest())!.minutes).toHaveLength(1);
    const odd = storage();
    odd.setItem('bent-straw-lanes', '{"not":');
    expect(await pageShelf(odd).oldest()).toBeNull();
  });
});
