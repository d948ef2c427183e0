import { reportOf, RUN_PROFILES, seededRandom, type RunConditions, type RunProfile } from '@/core';
import { stepRun } from './run-machine';
import { samplesOf as samplesOfRun, STARTING, type RunEffect, type RunEvent, type RunState } from './run-state';

const STANDARD = RUN_PROFILES.standard;
const samplesOf = (state: RunState) => samplesOfRun(state, 'standard', null);

type Load = 'none' | 'down' | 'up' | 'both';

/** A made-up network: what the machine asks for is answered at given rates and delays, in made-up time. */
interface Network {
  readonly downBps: (ms: number, streams: number) => number;
  readonly upBps: (ms: number) => number;
  readonly rttMs: (load: Load, nowMs: number) => number;
  readonly answers: boolean;
}

const GOOD: Network = {
  downBps: () => 100e6,
  upBps: () => 20e6,
  rttMs: (load) => ({ none: 14, down: 30, up: 200, both: 210 })[load],
  answers: true,
};

const PEER_AHEAD_MS = 9_000_000;
const OVER_GIGABIT_CONDITIONS: RunConditions = {
  ...{ reach: 'internet', link: { medium: 'wired', negotiatedBps: 1e9, mtuBytes: 1500 }, plan: null },
  ...{ sameMachine: false, practice: false, ipVersion: 4, pageHiddenMs: 0 },
  ...{ peerLinkBps: null, otherPeerThanUsual: false },
};

/** Drives a run to its end in steps of 50 ms. `interfere` may throw events in. */
function drive(
  network: Network,
  interfere: (nowMs: number, state: RunState) => RunEvent | null = () => null,
  profile: RunProfile = STANDARD,
) {
  let state: RunState = STARTING;
  const effects: RunEffect[] = [];
  const pulling = { download: 0, upload: 0 };
  const loadNow = (): Load => {
    if (pulling.download > 0) return pulling.upload > 0 ? 'both' : 'down';
    return pulling.upload > 0 ? 'up' : 'none';
  };
  let probing = false;
  let down = 0;
  let up = 0;
  let sequence = 0;
  let answerUdp = false;
  const echoes: { at: number; sequence: number }[] = [];
  const send = (event: RunEvent) => {
    const step = stepRun(state, event, profile);
    state = step.state;
    for (const effect of step.effects) {
      effects.push(effect);
      if (effect.kind === 'start-probes') probing = true;
      if (effect.kind === 'start-load' || effect.kind === 'add-stream') pulling[effect.direction] = effect.streams;
      if (effect.kind === 'stop-load') pulling[effect.direction] = 0;
      if (effect.kind === 'finish-udp') answerUdp = true;
      if (effect.kind === 'close') probing = false;
    }
  };
  if (network.answers) send({ kind: 'opened', nowMs: 30 });
  let nowMs = 30;
  for (; nowMs < 400_000 && state.status !== 'finished' && state.status !== 'failed'; nowMs += 50) {
    const interference = interfere(nowMs, state);
    if (interference !== null) send(interference);
    for (const echo of echoes.filter(({ at }) => at <= nowMs))
      send({
        kind: 'probe-echoed',
        sequence: echo.sequence,
        nowMs: echo.at,
        peerMs: echo.at + PEER_AHEAD_MS,
        waitedMs: 0,
      });
    echoes.splice(0, echoes.length, ...echoes.filter(({ at }) => at > nowMs));
    if (probing) {
      send({ kind: 'probe-sent', sequence, nowMs });
      echoes.push({ at: nowMs + network.rttMs(loadNow(), nowMs), sequence });
      sequence += 1;
    }
    if (answerUdp) send({ kind: 'udp-finished', udp: null, nowMs });
    answerUdp = false;
    if (pulling.download > 0) {
      down += (network.downBps(nowMs, pulling.download) * 50) / 8000;
      send({ kind: 'download-counted', nowMs, bytes: [down / 2, down / 2].map(Math.round) });
    }
    if (pulling.upload > 0) {
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
    const told = effects.map((effect) => ('direction' in effect ? `${effect.kind} ${effect.direction}` : effect.kind));
    expect(told.filter((each) => !/^(add-stream|pace-probes)/.test(each))).toEqual([
      'start-probes',
      'start-load download',
      'stop-load download',
      'start-load upload',
      'stop-load upload',
      'finish-udp',
      'close',
    ]);
  });

  it('stops a direction as soon as it knows enough: the ramp, one more stream, and little over three seconds', () => {
    const [, download] = samplesOf(drive(GOOD).state).phases;
    expect(download!.toMs - download!.fromMs).toBeGreaterThanOrEqual(5000);
    expect(download!.toMs - download!.fromMs).toBeLessThan(5600);
  });

  it('ends a direction at its share of the bytes, so that the fastest download leaves as much for the upload', () => {
    const limited = { ...STANDARD, limits: { seconds: 90, bytes: 50e6 } };
    const { download, upload } = samplesOf(drive({ ...GOOD, upBps: () => 100e6 }, undefined, limited).state);
    const moved = [download, upload].map((series) => series!.bytes.reduce((sum, stream) => sum + stream.at(-1)!, 0));
    for (const bytes of moved) {
      expect(bytes).toBeGreaterThanOrEqual(22.5e6);
      expect(bytes).toBeLessThan(24e6);
    }
  });

  it('sends few UDP probes while a slow line is full, and as many as usual again after', () => {
    const paces = (network: Network) =>
      drive(network).effects.flatMap((effect) => (effect.kind === 'pace-probes' ? [effect.perSecond] : []));
    const [down, , up] = paces({ ...GOOD, downBps: () => 10e6, upBps: () => 1e6 });
    expect(down! * 154 * 8).toBeLessThanOrEqual(10e6 * 0.001);
    expect(up).toBe(5);
    expect(paces(GOOD).filter((pace) => pace === null)).toHaveLength(2);
    expect(paces({ ...GOOD, downBps: () => 900e6 })[0]).toBeGreaterThanOrEqual(50);
  });

  it('goes on to its cap on a line that drifts, and not beyond', () => {
    const drifting = { ...GOOD, downBps: (ms: number) => 50e6 + ms * 4000 };
    const [, download] = samplesOf(drive(drifting).state).phases;
    expect(download!.toMs - download!.fromMs).toBeGreaterThanOrEqual(STANDARD.mostDirectionMs);
    expect(download!.toMs - download!.fromMs).toBeLessThan(STANDARD.mostDirectionMs + 200);
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
    expect(nowMs).toBeLessThan(STANDARD.openDeadlineMs + 500);
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

  it('adds streams while each brings more than 3 %, then counts anew, and no more than six', () => {
    const most = (profileOf: (streams: number) => number) => {
      const { state } = drive({ ...GOOD, downBps: (_, streams) => profileOf(streams) });
      return samplesOf(state).streams.filter(({ phase }) => phase === 'download');
    };
    // Four streams bring 20 % over three; a fifth brings nothing.
    const helped = most((streams) => Math.min(streams, 4) * 25e6);
    expect(helped.map(({ streams }) => streams)).toEqual([3, 4, 5]);
    expect(most((streams) => streams * 25e6).at(-1)!.streams).toBe(6);
    // The fourth is tried; as it brings nothing there is no fifth.
    expect(most(() => 100e6).at(-1)!.streams).toBe(4);
  });

  it('loads both directions at once in a thorough run, and counts the upload of that phase from its own start', () => {
    const { state } = drive(GOOD, () => null, RUN_PROFILES.thorough);
    const { phases, bothDown, bothUp, upload } = samplesOf(state);
    expect(phases.map(({ phase }) => phase)).toEqual(['idle', 'download', 'settle', 'upload', 'settle', 'both']);
    expect(bothDown!.atMs.length).toBeGreaterThan(100);
    expect(bothUp!.bytes[0]![0]).toBeLessThan(upload!.bytes[0]!.at(-1)! / 10);
  });

  it('is over within 9 s when quick, and within 22 s when standard, on a steady line of 20 ms', () => {
    const line: Network = { ...GOOD, rttMs: (load) => (load === 'none' ? 20 : 70) };
    expect(drive(line, () => null, RUN_PROFILES.quick).nowMs).toBeLessThan(9000);
    expect(drive(line).nowMs).toBeLessThan(22_000);
  });

  it('moves no bulk data when only the delay is asked for', () => {
    const { state, effects } = drive(GOOD, () => null, RUN_PROFILES.delay);
    expect(state.status).toBe('finished');
    expect(effects.some(({ kind }) => kind === 'start-load')).toBe(false);
  });

  it('is never called unsettled where it stopped before its longest', () => {
    const { mostDirectionMs } = STANDARD;
    let early = 0;
    for (let seed = 1; seed <= 60; seed += 1) {
      // A long path on which single losses take half of the rate for some round trips, at moments of their own.
      const random = seededRandom(seed);
      const losses = Array.from({ length: 12 }, () => ({ at: 30_000 * random(), forMs: 200 + 1300 * random() }));
      const dented = (ms: number) => losses.some(({ at, forMs }) => ms >= at && ms < at + forMs);
      const line: Network = { ...GOOD, downBps: (ms) => (dented(ms) ? 40e6 + 30e6 * random() : 95e6 + 2e6 * random()) };
      const { state } = drive(line);
      const [, download] = samplesOf(state).phases;
      if (download!.toMs - download!.fromMs >= mostDirectionMs) continue;
      early += 1;
      expect(reportOf(samplesOf(state), OVER_GIGABIT_CONDITIONS).down.rate!.unsettledBy).toBeNull();
    }
    expect(early).toBeGreaterThan(20);
  });

  it('lasts its whole time when it soaks', () => {
    const { state } = drive(GOOD, () => null, RUN_PROFILES.soak);
    const [, download] = samplesOf(state).phases;
    expect(download!.toMs - download!.fromMs).toBeGreaterThanOrEqual(120_000);
  });

  it('survives a line that is dead for five seconds in the middle, and says that it was not steady', () => {
    const dead: Network = { ...GOOD, downBps: (ms) => (ms > 4000 && ms < 9000 ? 0 : 100e6) };
    const { state, nowMs } = drive(dead);
    expect(state.status).toBe('finished');
    expect(nowMs).toBeLessThan(25_000);
    const report = reportOf(samplesOf(state), OVER_GIGABIT_CONDITIONS);
    expect(report.fitness.map(({ code }) => code)).toContain('unsettled');
    expect(report.down.rate!.dips[0]!.toMs - report.down.rate!.dips[0]!.fromMs).toBeGreaterThan(3000);
  });

  it('does not wait for ever for the last UDP replies and the receipt', () => {
    const closing = { status: 'closing', sinceMs: 1000, log: STARTING.log } as const;
    expect(stepRun(closing, { kind: 'tick', nowMs: 2000 }, STANDARD).state.status).toBe('closing');
    expect(stepRun(closing, { kind: 'tick', nowMs: 7100 }, STANDARD).state.status).toBe('finished');
    expect(stepRun(closing, { kind: 'lost', reason: 'peer-gone', nowMs: 1100 }, STANDARD).state.status).toBe(
      'finished',
    );
  });

  it('is not changed by anything after its end', () => {
    const { state } = drive(GOOD);
    expect(stepRun(state, { kind: 'cancelled', nowMs: 99_999 }, STANDARD)).toEqual({ state, effects: [] });
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
    const strange: RunEvent = { kind: 'probe-echoed', sequence: 4_000_000, nowMs: 100, peerMs: 1, waitedMs: 0 };
    const { state } = drive(GOOD, () => strange);
    expect(state.status).toBe('finished');
    const { probes } = samplesOf(state);
    expect(probes.sentMs.length).toBe(probes.rttMs.length);
  });
});
