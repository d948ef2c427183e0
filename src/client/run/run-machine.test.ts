import { stepRun } from './run-machine';
import { STANDARD_PROFILE } from './run-profile';
import { samplesOf, STARTING, type RunEffect, type RunEvent, type RunState } from './run-state';

type Load = 'none' | 'down' | 'up';

/** A made-up network: what the machine asks for is answered at given rates and delays, in made-up time. */
interface Network {
  readonly downBps: (ms: number) => number;
  readonly upBps: (ms: number) => number;
  readonly rttMs: (load: Load, nowMs: number) => number;
  readonly answers: boolean;
}

const GOOD: Network = {
  downBps: () => 100e6,
  upBps: () => 20e6,
  rttMs: (load) => ({ none: 14, down: 30, up: 200 })[load],
  answers: true,
};

const PEER_AHEAD_MS = 9_000_000;

/** Drives a run to its end in steps of 50 ms. `interfere` may throw events in. */
function drive(network: Network, interfere: (nowMs: number, state: RunState) => RunEvent | null = () => null) {
  let state: RunState = STARTING;
  const effects: RunEffect[] = [];
  let load = 'none' as Load;
  let probing = false;
  let down = 0;
  let up = 0;
  let sequence = 0;
  const echoes: { at: number; sequence: number }[] = [];
  const send = (event: RunEvent) => {
    const step = stepRun(state, event, STANDARD_PROFILE);
    state = step.state;
    for (const effect of step.effects) {
      effects.push(effect);
      if (effect.kind === 'start-probes') probing = true;
      if (effect.kind === 'start-download') load = 'down';
      if (effect.kind === 'start-upload') load = 'up';
      if (effect.kind === 'stop-download' || effect.kind === 'stop-upload') load = 'none';
      if (effect.kind === 'close') probing = false;
    }
  };
  if (network.answers) send({ kind: 'opened', nowMs: 30 });
  let nowMs = 30;
  for (; nowMs < 60_000 && state.status !== 'finished' && state.status !== 'failed'; nowMs += 50) {
    const interference = interfere(nowMs, state);
    if (interference !== null) send(interference);
    for (const echo of echoes.filter(({ at }) => at <= nowMs))
      send({ kind: 'probe-echoed', sequence: echo.sequence, nowMs: echo.at, peerMs: echo.at + PEER_AHEAD_MS });
    echoes.splice(0, echoes.length, ...echoes.filter(({ at }) => at > nowMs));
    if (probing) {
      send({ kind: 'probe-sent', sequence, nowMs });
      echoes.push({ at: nowMs + network.rttMs(load, nowMs), sequence });
      sequence += 1;
    }
    if (load === 'down') {
      down += (network.downBps(nowMs) * 50) / 8000;
      send({ kind: 'download-counted', nowMs, bytes: [down / 2, down / 2].map(Math.round) });
    }
    if (load === 'up') {
      up += (network.upBps(nowMs) * 50) / 8000;
      send({ kind: 'upload-counted', peerMs: nowMs + PEER_AHEAD_MS, bytes: [Math.round(up)] });
    }
    send({ kind: 'tick', nowMs });
  }
  return { state, effects, nowMs };
}

describe('a run', () => {
  it('goes through idle, download, settle and upload, in this order, and closes', () => {
    const { state, effects } = drive(GOOD);
    expect(state.status).toBe('finished');
    expect(samplesOf(state).phases.map(({ phase }) => phase)).toEqual(['idle', 'download', 'settle', 'upload']);
    expect(effects.map(({ kind }) => kind)).toEqual([
      'start-probes',
      'start-download',
      'stop-download',
      'start-upload',
      'stop-upload',
      'close',
    ]);
  });

  it('stops a direction as soon as it knows enough: the ramp and little over three seconds', () => {
    const [, download] = samplesOf(drive(GOOD).state).phases;
    expect(download!.toMs - download!.fromMs).toBeGreaterThanOrEqual(4000);
    expect(download!.toMs - download!.fromMs).toBeLessThan(5000);
  });

  it('goes on to its cap on a line that drifts, and not beyond', () => {
    const drifting = { ...GOOD, downBps: (ms: number) => 50e6 + ms * 4000 };
    const [, download] = samplesOf(drive(drifting).state).phases;
    expect(download!.toMs - download!.fromMs).toBeGreaterThanOrEqual(STANDARD_PROFILE.mostDirectionMs);
    expect(download!.toMs - download!.fromMs).toBeLessThan(STANDARD_PROFILE.mostDirectionMs + 200);
  });

  it('waits after the download until the queue has drained, but at most three seconds', () => {
    const settleOf = (network: Network) => {
      const span = samplesOf(drive(network).state).phases.find(({ phase }) => phase === 'settle')!;
      return span.toMs - span.fromMs;
    };
    expect(settleOf(GOOD)).toBeLessThan(500);
    const neverDrains: Network = { ...GOOD, rttMs: (_, nowMs) => (nowMs < 2500 ? 14 : 90) };
    expect(settleOf(neverDrains)).toBeGreaterThanOrEqual(3000);
    expect(settleOf(neverDrains)).toBeLessThan(3200);
  });

  it('learns how the peer’s clock stands from its echoes', () => {
    // The made-up echo is answered at the moment of its return, half a round trip late: 7 ms.
    expect(samplesOf(drive(GOOD).state).peerClockOffsetMs).toBeCloseTo(-PEER_AHEAD_MS - 7, 3);
  });

  it('fails with the reason when the peer never answers, in bounded time', () => {
    const { state, nowMs } = drive({ ...GOOD, answers: false });
    expect(state).toMatchObject({ status: 'failed', reason: 'peer-unreachable' });
    expect(nowMs).toBeLessThan(STANDARD_PROFILE.openDeadlineMs + 500);
  });

  it('fails when one direction is blocked, and names it', () => {
    expect(drive({ ...GOOD, upBps: () => 0 }).state).toMatchObject({ status: 'failed', reason: 'no-upload' });
    expect(drive({ ...GOOD, downBps: () => 0 }).state).toMatchObject({ status: 'failed', reason: 'no-download' });
  });

  it('fails when no probe is ever echoed', () => {
    expect(drive({ ...GOOD, rttMs: () => 1e9 }).state).toMatchObject({ status: 'failed', reason: 'no-echo' });
  });

  it.each(['idle', 'download', 'settle', 'upload'] as const)(
    'can be cancelled and can be lost in the phase %s',
    (phase) => {
      const during = (event: (nowMs: number) => RunEvent) =>
        drive(GOOD, (nowMs, state) => (state.status === 'measuring' && state.phase === phase ? event(nowMs) : null));
      const cancelled = during((nowMs) => ({ kind: 'cancelled', nowMs }));
      expect(cancelled.state).toMatchObject({ status: 'failed', reason: 'cancelled' });
      expect(cancelled.effects.at(-1)).toEqual({ kind: 'close' });
      const lost = during((nowMs) => ({ kind: 'lost', reason: 'peer-gone', nowMs }));
      expect(lost.state).toMatchObject({ status: 'failed', reason: 'peer-gone' });
    },
  );

  it('ends a direction, not the run, when the peer says that the bytes are used up', () => {
    const { state } = drive(GOOD, (nowMs, state) =>
      state.status === 'measuring' && state.phase === 'download' && nowMs > 4000
        ? { kind: 'limit-reached', nowMs }
        : null,
    );
    expect(state.status).toBe('finished');
    expect(samplesOf(state).phases[1]!.toMs).toBeLessThan(4200);
  });

  it('is not changed by anything after its end', () => {
    const { state } = drive(GOOD);
    expect(stepRun(state, { kind: 'cancelled', nowMs: 99_999 }, STANDARD_PROFILE)).toEqual({ state, effects: [] });
  });

  it('leaves out counters and clocks that go backwards', () => {
    const { state } = drive(GOOD, (nowMs, state) =>
      state.status === 'measuring' && state.phase === 'download'
        ? { kind: 'download-counted', nowMs, bytes: [1] }
        : null,
    );
    const [stream] = samplesOf(state).download!.bytes;
    expect(stream!.every((value, index) => index === 0 || value >= stream![index - 1]!)).toBe(true);
    expect(state.status).toBe('finished');
  });

  it('passes over echoes of probes that it never sent, or twice', () => {
    const strange: RunEvent = { kind: 'probe-echoed', sequence: 4_000_000, nowMs: 100, peerMs: 1 };
    const { state } = drive(GOOD, () => strange);
    expect(state.status).toBe('finished');
    const { probes } = samplesOf(state);
    expect(probes.sentMs.length).toBe(probes.rttMs.length);
  });
});
