import type { Outbox, OutboxEntry } from '@/session';

const DATABASE = 'bent-straw';
const STORE = 'outbox';
const PREFIX = 'bent-straw-hand-in:';

function settled<Value>(request: IDBRequest<Value>): Promise<Value> {
  return new Promise((resolve, reject) => {
    request.onsuccess = () => resolve(request.result);
    request.onerror = () => reject(request.error ?? new Error('the storage of the browser failed'));
  });
}

function openDatabase(): Promise<IDBDatabase> {
  const request = indexedDB.open(DATABASE, 1);
  request.onupgradeneeded = () => request.result.createObjectStore(STORE, { keyPath: 'runId' });
  return settled(request);
}

/** In the browser's database: room for many results, and they are there when the page is opened again. */
async function databaseOutbox(): Promise<Outbox> {
  const database = await openDatabase();
  const store = (mode: IDBTransactionMode) => database.transaction(STORE, mode).objectStore(STORE);
  return {
    put: (entry) =>
      new Promise<void>((resolve, reject) => {
        const transaction = database.transaction(STORE, 'readwrite', { durability: 'strict' });
        transaction.objectStore(STORE).put(entry);
        // Only the whole transaction is on the disk.
        transaction.oncomplete = () => resolve();
        transaction.onabort = () => reject(transaction.error ?? new Error('the storage of the browser is full'));
      }),
    all: () => settled(store('readonly').getAll() as IDBRequest<OutboxEntry[]>),
    remove: (runId) => settled(store('readwrite').delete(runId)),
  };
}

/** A storage that is full or forbidden throws: as a promise that rejects. */
function attempt<Value>(act: () => Value): Promise<Value> {
  return new Promise((resolve) => resolve(act()));
}

/** Where a page has no database (some private windows): a few results find room here. */
const plainOutbox: Outbox = {
  put: ({ runId, request }) => attempt(() => localStorage.setItem(PREFIX + runId, JSON.stringify(request))),
  all: () =>
    attempt(() =>
      Object.keys(localStorage)
        .filter((key) => key.startsWith(PREFIX))
        .map((key) => ({ runId: key.slice(PREFIX.length), request: JSON.parse(localStorage.getItem(key)!) as never })),
    ),
  remove: (runId) => attempt(() => localStorage.removeItem(PREFIX + runId)),
};

let best: Promise<Outbox> | null = null;
const bestOutbox = () => (best ??= databaseOutbox().catch(() => plainOutbox));

/** Results kept in this browser until the console has them, in the best place that it has. */
export const browserOutbox: Outbox = {
  put: async (entry) => (await bestOutbox()).put(entry),
  all: async () => {
    // Results that an earlier version of the page kept lie in the plain storage.
    const [kept, plain] = await Promise.all([(await bestOutbox()).all(), plainOutbox.all().catch(() => [])]);
    return [...kept, ...plain.filter(({ runId }) => !kept.some((entry) => entry.runId === runId))];
  },
  remove: async (runId) => {
    await (await bestOutbox()).remove(runId);
    await plainOutbox.remove(runId).catch(() => undefined);
  },
};
