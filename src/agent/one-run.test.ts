import { memoryOutbox, type Outbox, type Post } from '@/session';
import { handInRequestSchema, type HandInRequest, type RunGrant, type StartRun } from '@/wire';
import { oneRun } from './one-run';

const ORDER: StartRun = {
  ...{ code: 'KMT4QX', deviceId: null, deviceName: 'box', deviceKind: null, spotName: '', link: { medium: 'unknown' } },
  ...{
    reach: 'internet',
    profile: 'standard',
    told: [],
    noticed: [],
    turnId: null,
    pacedMbps: null,
    holdMs: 0,
    loadsWeb: false,
  },
};
/** Nobody listens there: the run ends at once, and how it ended is what is handed in. */
const GRANT: RunGrant & { readonly status: 'granted' } = {
  status: 'granted',
  ...{ runId: 'run', runKey: 'key', ticket: 'ticket', peer: { name: 'peer', baseUrl: 'http://127.0.0.1:9' } },
  ...{ profile: 'standard', pacedBps: null, leastDirectionMs: 0, web: null, deviceId: 'device-1', deviceName: 'box' },
  yardstick: { downBps: null, upBps: null },
};
const ANSWER = {
  ...{ runId: 'run', status: 'unfinished', result: null },
  ...{ figures: 'Nothing was measured.', held: 'The peer is away.', delay: '' },
};

const codeOf = (run: Promise<unknown>) =>
  run.then(
    () => 'it worked',
    (error: unknown) => (error as { code?: string }).code ?? error,
  );

describe('one run of an agent', () => {
  let taken: HandInRequest[];
  /** What the console does with a result. */
  let atHandIn: () => Response;
  const post: Post = (path, body) => {
    if (!path.includes('/hand-in')) return Promise.resolve(Response.json(GRANT, { status: 201 }));
    const answer = atHandIn();
    if (answer.ok) taken.push(handInRequestSchema.parse(JSON.parse(JSON.stringify(body))));
    return Promise.resolve(answer);
  };
  const run = (outbox: Outbox, signal = new AbortController().signal) =>
    oneRun({
      ...{ order: ORDER, origin: 'http://192.0.2.20:4870', post, outbox, agentVersion: '0.1.0', signal },
      ...{ authenticated: false, handInPatienceMs: 400, onProgress: () => undefined, onWaiting: () => undefined },
    });
  beforeEach(() => {
    taken = [];
    atHandIn = () => Response.json(ANSWER);
  });

  it('that reached no peer is handed in with the reason, and told', async () => {
    expect(await codeOf(run(memoryOutbox()))).toBe('run-unfinished');
    expect(taken).toMatchObject([{ runKey: 'key', handIn: { outcome: 'unfinished' } }]);
  });

  it.each([502, 503, 507, 500])(
    'that the console does not take (%p) is kept, said to be, and still there',
    async (status) => {
      atHandIn = () => new Response('', { status });
      const outbox = memoryOutbox();
      expect(await codeOf(run(outbox))).toBe('hand-in-kept');
      expect((await outbox.all()).map(({ runId }) => runId)).toEqual(['run']);
    },
  );

  it('that cannot be kept either is said to be lost, and not to be kept', async () => {
    atHandIn = () => new Response('', { status: 502 });
    const full = Object.assign(memoryOutbox(), { put: () => Promise.reject(new Error('ENOSPC')) });
    expect(await codeOf(run(full))).toBe('hand-in-lost');
  });

  it('that is stopped before it is granted measures nothing', async () => {
    const stop = new AbortController();
    stop.abort();
    expect(await codeOf(run(memoryOutbox(), stop.signal))).toBe('run-unfinished');
    expect(taken.every(({ handIn }) => handIn.outcome === 'unfinished')).toBe(true);
  });
});
