import type { StripData } from '@/core';
import type { HandIn, RunGrant, StartRun } from '@/wire';
import { deliver, deliverLeft } from './hand-in';
import { memoryOutbox, type Outbox } from './outbox';
import { RunSession, type SessionState } from './run-session';
import type { Post } from './console-link';

const GRANT = {
  ...{
    status: 'granted',
    runId: 'run',
    runKey: 'key',
    ticket: 't',
    peer: { name: 'peer', baseUrl: 'http://192.0.2.1' },
  },
  ...{ profile: 'standard', pacedBps: null, leastDirectionMs: 0, web: null, deviceId: 'device', deviceName: 'box' },
  yardstick: { downBps: null, upBps: null },
};
const WAITING = {
  ...{ status: 'waiting', turnId: 'turn', turnKey: 'turn-key', deviceId: 'device', deviceName: 'box' },
  ...{ why: 'Press desk is measuring over the same line', aboutMs: 9000 },
};
const TAKEN = { runId: 'run', status: 'finished', figures: '93.8 Mb/s down.', held: '', delay: '', result: null };
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
const RESULT: HandIn = { outcome: 'unfinished', reason: 'too-slow', samples: null, facts: null };

type Answer = [number, unknown] | Error;

/** A console that answers as it is told to, and remembers what it was asked. */
function fakeConsole(answer: (path: string, time: number) => Answer | Promise<Answer>) {
  const asked: { path: string; body: Record<string, unknown> }[] = [];
  const post: Post = async (path, body) => {
    const time = asked.filter((each) => each.path === path).length;
    asked.push({ path, body: body as Record<string, unknown> });
    const found = await answer(path, time);
    if (found instanceof Error) throw found;
    const [status, document] = found;
    return new Response(document === undefined ? null : JSON.stringify(document), { status });
  };
  return { post, asked, pathsOf: (word: string) => asked.filter(({ path }) => path.endsWith(word)) };
}

const noSleep = async (_: number, signal: AbortSignal) => {
  await new Promise((resolve) => setImmediate(resolve));
  void signal;
};

function session(
  console: ReturnType<typeof fakeConsole>,
  more: {
    outbox?: Outbox;
    measure?: (grant: RunGrant, signal: AbortSignal) => Promise<HandIn>;
    prepare?: () => Promise<unknown>;
  } = {},
) {
  const states: SessionState[] = [];
  const outbox = more.outbox ?? memoryOutbox();
  const run = new RunSession({
    ...{ post: console.post, outbox, sleep: noSleep, onState: (state) => states.push(state) },
    ...(more.prepare === undefined ? {} : { prepare: more.prepare }),
    measure: (grant, signal, onProgress) => {
      onProgress({} as StripData);
      return (more.measure ?? (() => Promise.resolve(RESULT)))(grant, signal);
    },
  });
  return { run, states, outbox, statuses: () => states.map(({ status }) => status) };
}

const isRuns = (path: string) => path === '/api/v1/runs';

describe('one run of a device, from asking to the record', () => {
  it('asks, measures, keeps the result, hands it in, and forgets it once the console has it', async () => {
    const console = fakeConsole((path) => (isRuns(path) ? [201, GRANT] : [200, TAKEN]));
    const { run, statuses, outbox } = session(console);
    expect(await run.run(ORDER)).toMatchObject({ status: 'done', answer: TAKEN, handIn: RESULT });
    expect(statuses()).toEqual(['asking', 'measuring', 'measuring', 'handing-in', 'done']);
    expect(await outbox.all()).toEqual([]);
  });

  it('asks for nothing that it could not show: what shows a run is fetched first, and anew at the next try', async () => {
    const console = fakeConsole((path) => (isRuns(path) ? [201, GRANT] : [200, TAKEN]));
    let away = true;
    const { run, statuses } = session(console, {
      prepare: () => (away ? Promise.reject(new Error('gone')) : Promise.resolve()),
    });
    expect(await run.run(ORDER)).toMatchObject({ status: 'refused', problem: { code: 'page-incomplete' } });
    expect(console.asked).toEqual([]);
    away = false;
    expect(await run.run(ORDER)).toMatchObject({ status: 'done' });
    expect(statuses()).toEqual(['asking', 'refused', 'asking', 'measuring', 'measuring', 'handing-in', 'done']);
  });

  it('tells what it moves each second as long as somebody watches, late counts once more, and else only that it lives', async () => {
    jest.useFakeTimers();
    let watched = false;
    const console = fakeConsole((path) => {
      if (isRuns(path)) return [201, GRANT];
      return path.endsWith('/alive') ? [200, { running: true, watched }] : [200, TAKEN];
    });
    let end: (result: HandIn) => void = () => undefined;
    let tell: (strip: StripData) => void = () => undefined;
    const run = new RunSession({
      ...{ post: console.post, outbox: memoryOutbox(), sleep: noSleep, onState: () => undefined },
      measure: (_grant, _signal, onProgress) => {
        tell = onProgress;
        return new Promise<HandIn>((resolve) => (end = resolve));
      },
    });
    const done = run.run(ORDER);
    const strip = (seconds: number) =>
      ({ durationMs: 1000 * seconds, down: { binMs: 1000, ...binsOf(seconds) }, up: null }) as unknown as StripData;
    const binsOf = (seconds: number) => ({
      atMs: Array.from({ length: seconds }, (_, second) => 1000 * second),
      bps: Array.from({ length: seconds }, (_, second) => second * 1e6),
    });
    const said = () => console.pathsOf('/alive').map(({ body }) => body);
    const pass = async (from: number, to: number) => {
      for (let second = from; second <= to; second += 1) {
        tell(strip(second));
        await jest.advanceTimersByTimeAsync(1000);
      }
    };
    await jest.advanceTimersByTimeAsync(0);
    await pass(1, 6);
    expect(said()).toEqual([{ runKey: 'key' }, { runKey: 'key' }]);
    watched = true;
    await pass(7, 12);
    // Told so with the third sign of life, it tells from then on: all of it first, then what is new and the last three again.
    const rates = said().slice(3) as { rates: { fromMs: number; downBps: number[] } }[];
    expect(rates.map(({ rates: { fromMs, downBps } }) => [fromMs, downBps.length])).toEqual([
      [0, 10],
      [7000, 4],
      [8000, 4],
    ]);
    expect(rates[1]!.rates.downBps).toEqual([7e6, 8e6, 9e6, 10e6]);
    watched = false;
    await pass(13, 18);
    const later = said().slice(6);
    expect(later.filter((body) => 'rates' in body)).toHaveLength(1);
    end(RESULT);
    jest.useRealTimers();
    expect(await done).toMatchObject({ status: 'done' });
  });

  it('ends what it measures when the console says that nobody wants it any more', async () => {
    jest.useFakeTimers();
    const console = fakeConsole((path) => {
      if (isRuns(path)) return [201, GRANT];
      return path.endsWith('/alive') ? [200, { running: true, watched: false, stop: true }] : [200, TAKEN];
    });
    const { run } = session(console, {
      measure: (_, signal) =>
        new Promise<HandIn>((resolve) =>
          signal.addEventListener('abort', () => resolve({ ...RESULT, reason: 'cancelled' })),
        ),
    });
    const done = run.run(ORDER);
    await jest.advanceTimersByTimeAsync(2900);
    expect(console.pathsOf('/hand-in')).toEqual([]);
    await jest.advanceTimersByTimeAsync(200);
    jest.useRealTimers();
    expect(await done).toMatchObject({ status: 'done', handIn: { reason: 'cancelled' } });
  });

  it('waits for its turn, letting the console hold the answer back', async () => {
    const console = fakeConsole((path, time) => {
      if (!isRuns(path)) return [200, TAKEN];
      return time < 2 ? [202, WAITING] : [201, GRANT];
    });
    const { run, states } = session(console);
    await run.run(ORDER);
    expect(states.filter(({ status }) => status === 'waiting')).toHaveLength(2);
    const asked = console.asked.filter(({ path }) => isRuns(path)).map(({ body }) => [body['turnId'], body['holdMs']]);
    expect(asked).toEqual([
      [null, 0],
      ['turn', 8000],
      ['turn', 8000],
    ]);
  });

  it('keeps its place while the console restarts', async () => {
    const console = fakeConsole((path, time) => {
      if (!isRuns(path)) return [200, TAKEN];
      return [[202, WAITING], [502, { code: 'console-unreachable', detail: 'x' }], new Error('refused'), [201, GRANT]][
        time
      ] as Answer;
    });
    expect((await session(console).run.run(ORDER))!.status).toBe('done');
  });

  it('gives a waiting turn back when it is given up', async () => {
    const console = fakeConsole((path) => (isRuns(path) ? [202, WAITING] : [204, undefined]));
    const { run, states } = session(console);
    const ended = run.run(ORDER);
    while (!states.some(({ status }) => status === 'waiting')) await new Promise((resolve) => setImmediate(resolve));
    run.giveUp();
    expect(await ended).toEqual({ status: 'ready' });
    expect(console.pathsOf('/withdraw')).toEqual([
      { path: '/api/v1/turns/turn/withdraw', body: { turnKey: 'turn-key' } },
    ]);
  });

  it('gives a grant back that was on its way when it was given up, so that its line is free', async () => {
    let answer: (value: Answer) => void = () => undefined;
    const console = fakeConsole((path, time) => {
      if (!isRuns(path)) return [200, TAKEN];
      return time === 0 ? [202, WAITING] : new Promise<Answer>((resolve) => (answer = resolve));
    });
    const { run } = session(console);
    const ended = run.run(ORDER);
    while (console.asked.length < 2) await new Promise((resolve) => setImmediate(resolve));
    run.giveUp();
    answer([201, GRANT]);
    expect(await ended).toEqual({ status: 'ready' });
    expect(console.pathsOf('/hand-in')[0]!.body).toMatchObject({ handIn: { reason: 'cancelled' } });
  });

  it('says that nobody answers when the first asking is met with silence, and passes a refusal on', async () => {
    const silent = await session(fakeConsole(() => new Error('refused'))).run.run(ORDER);
    expect(silent).toMatchObject({ status: 'refused', problem: { code: 'console-unreachable' } });
    const taken = fakeConsole(() => [409, { code: 'name-taken', detail: 'There is another device named box.' }]);
    expect(await session(taken).run.run(ORDER)).toMatchObject({
      problem: { code: 'name-taken', detail: 'There is another device named box.' },
    });
    const odd = await session(fakeConsole(() => [200, { hello: 'world' }])).run.run(ORDER);
    expect(odd).toMatchObject({ problem: { code: 'console-odd' } });
  });

  it('when it is closed cancels the measurement, and leaves its result in the outbox', async () => {
    const console = fakeConsole((path) => (isRuns(path) ? [201, GRANT] : [502, { detail: 'away' }]));
    const cancelled: boolean[] = [];
    let begun = () => undefined as void;
    const measuring = new Promise<void>((resolve) => (begun = resolve));
    const { run, outbox } = session(console, {
      measure: (_, signal) =>
        new Promise((resolve) => {
          signal.addEventListener('abort', () => {
            cancelled.push(true);
            resolve(RESULT);
          });
          begun();
        }),
    });
    const ended = run.run(ORDER);
    await measuring;
    run.close();
    await ended;
    expect(cancelled).toEqual([true]);
    expect((await outbox.all()).map(({ runId }) => runId)).toEqual(['run']);
    expect(await run.run(ORDER)).toBeNull();
  });

  it('does one thing at a time', async () => {
    const console = fakeConsole((path) => (isRuns(path) ? [201, GRANT] : [200, TAKEN]));
    const { run } = session(console);
    const [first, second] = await Promise.all([run.run(ORDER), run.run(ORDER)]);
    expect([first!.status, second]).toEqual(['done', null]);
  });
});

describe('handing in', () => {
  const entry = { runId: 'run', request: { runKey: 'key', handIn: RESULT } };
  const left = async (answer: (path: string, time: number) => Answer) => {
    const outbox = memoryOutbox();
    await outbox.put(entry);
    const console = fakeConsole(answer);
    return { ...(await deliverLeft(console.post, outbox)), kept: (await outbox.all()).length };
  };

  it.each([
    ['502, as the front door answers while the console restarts', [502, { code: 'console-unreachable', detail: 'x' }]],
    ['507, as a full disk answers', [507, { code: 'store-full', detail: 'x' }]],
    ['500 with a page of somebody else', [500, '<html>']],
    ['429', [429, { code: 'too-many-tries', detail: 'x' }]],
    ['silence', new Error('refused')],
    ['another program at the address', [200, { hello: 'world' }]],
    ['a refusal that is not about this run', [401, { code: 'not-signed-in', detail: 'x' }]],
  ] as [string, Answer][])('keeps the result on %s', async (_, answer) => {
    expect(await left(() => answer)).toEqual({ taken: 0, left: 1, kept: 1 });
  });

  it.each(['run-unknown', 'run-key-wrong', 'request-malformed'])(
    'lets go of what can never be taken: %s',
    async (code) => {
      expect((await left(() => [404, { code, detail: 'x' }])).kept).toBe(0);
    },
  );

  it('is tried until it is taken', async () => {
    const outbox = memoryOutbox();
    await outbox.put(entry);
    const answers: Answer[] = [new Error('refused'), [502, {}], [507, {}], [200, TAKEN]];
    const console = fakeConsole((_, time) => answers[time]!);
    const away: string[] = [];
    const signal = new AbortController().signal;
    const taken = await deliver(entry, {
      post: console.post,
      outbox,
      sleep: noSleep,
      signal,
      onAway: (why) => away.push(why),
    });
    expect(taken).toMatchObject({ status: 'taken' });
    expect(away).toHaveLength(3);
  });
});
