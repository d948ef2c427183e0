import { laneFigures, packMinute, type LaneEcho } from '@/core';
import { STARTED_RUN } from '@/store';
import { AGENT_PROTOCOL, type LaneMinuteSent } from '@/wire';
import { furnish, openTestConsole, type TestConsole } from '../console/console-for-tests';
import { standingDevice, type StandingDevice } from '../turns/standing-for-tests';
import {
  addLane,
  beginMark,
  endLane,
  endMark,
  MINUTES_STAY_DAYS,
  MOST_LANES,
  openOutages,
  removeMark,
  sumLanes,
  takeMinutes,
  watchBeats,
  watchedSpanOf,
} from '.';
import { FACTS } from './facts-for-tests';
import { radioLanes, startLanes } from './start-lanes';

const MINUTE_MS = 60_000;
const HOUR_MS = 60 * MINUTE_MS;
const DAY_MS = 24 * HOUR_MS;

describe('with which lanes a machine begins', () => {
  const peers = [
    { name: 'this machine', reach: 'local', address: '/' },
    { name: 'Hilltop', reach: 'internet', address: 'peer.example:4871' },
    { name: 'Quay Street', reach: 'tunnel', address: 'http://10.9.0.2:4870' },
  ] as const;
  const targets = (host: string | null) => startLanes(FACTS, peers, host).map(({ target, role }) => [target, role]);

  it('its gateway, the peers, its resolvers, each target once', () => {
    expect(targets('192.168.7.20')).toEqual([
      ...[
        ['192.168.7.1', 'gateway'],
        ['192.168.7.20', 'inside'],
        ['peer.example', 'outside'],
        ['10.9.0.2', 'far'],
      ],
      ['8.8.4.4', 'outside'],
    ]);
  });

  it('how its own radio hears, where it is on the air', () => {
    const wifi = { ...FACTS.links[0]!, name: 'wlan0', medium: 'wifi' } as const;
    const told = (links: typeof FACTS.links) =>
      radioLanes({ ...FACTS, links }).map(({ kind, target, role }) => [kind, target, role]);
    expect(told([...FACTS.links, wifi])).toEqual([
      ['signal', 'wlan0', 'inside'],
      ['retries', 'wlan0', 'inside'],
    ]);
    expect(told([{ ...wifi, up: false }])).toEqual([]);
    expect(told(FACTS.links)).toEqual([]);
  });

  it('never itself, and nothing that it does not know', () => {
    expect(targets('192.168.7.40').map(([target]) => target)).not.toContain('192.168.7.40');
    expect(targets('localhost').map(([target]) => target)).not.toContain('localhost');
    expect(startLanes({ ...FACTS, gateway: null, resolvers: [] }, [], null)).toEqual([]);
  });
});

describe('the lanes of a machine', () => {
  let console: TestConsole;
  let siteId: string;
  let attic: StandingDevice;
  beforeEach(async () => {
    console = await openTestConsole();
    ({ siteId } = await furnish(console));
    attic = await agent('Attic box');
  });
  afterEach(() => console.close());

  const agent = async (name: string, can: readonly string[] = ['lanes']) => {
    const device = await standingDevice(console, siteId, { name });
    await device.session.hear(JSON.stringify({ kind: 'hello', hello: helloOf(can) }));
    return device;
  };
  const helloOf = (can: readonly string[]) => ({
    ...{ version: '0.1.0', protocol: AGENT_PROTOCOL, clockMs: console.context.wallMs(), outbox: 0 },
    ...{ neighbours: [], can, facts: FACTS },
  });
  const lanes = () => console.context.store.lanes.ofDevice(attic.id);
  const laneId = async (target: string) => (await lanes()).find((lane) => lane.target === target)!.id;
  const span = async (lengthMs: number) => {
    const untilMs = console.context.wallMs() + MINUTE_MS;
    const found = await watchedSpanOf(console.context, siteId, { fromMs: untilMs - lengthMs, untilMs });
    if (!found.ok) throw new Error(found.fault.code);
    return found.value;
  };
  const told = () => attic.told.flatMap((order) => (order.kind === 'lanes' ? [order] : []));

  const sent = (id: string, fromMs: number, msAt: (second: number) => number | null): LaneMinuteSent => {
    const echoes = Array.from({ length: 60 }, (_, second): LaneEcho => ({
      atMs: fromMs + 1000 * second,
      ms: msAt(second),
    }));
    const raw = Buffer.from(packMinute(fromMs, echoes)).toString('base64');
    return { laneId: id, fromMs, ...laneFigures(echoes), raw };
  };
  /** Minutes of gateway and both outside lanes; those outside are silent in some seconds of the first of them. */
  const office = async (fromMs: number, many: number, silent: readonly [number, number]) => {
    const [gateway, outside] = [await laneId('192.168.7.1'), [await laneId('8.8.4.4'), await laneId('192.0.2.99')]];
    return Array.from({ length: many }, (_, minute) => minute).flatMap((minute) => {
      const at = fromMs + minute * MINUTE_MS;
      const isOut = (second: number) => minute * 60 + second >= silent[0] && minute * 60 + second < silent[1];
      return [
        sent(gateway, at, () => 0.4),
        ...outside.map((id) => sent(id, at, (second) => (isOut(second) ? null : 12))),
      ];
    });
  };
  const more = () =>
    addLane(console.context, {
      ...{ deviceId: attic.id, name: 'Another', kind: 'echo', target: '192.0.2.99', role: 'outside', everySeconds: 1 },
    });
  const take = (minutes: readonly LaneMinuteSent[], cookie = attic.cookie) =>
    takeMinutes(console.context, cookie, minutes);

  it('are told to it when it says hello, and again when one is added or ended', async () => {
    expect(told()[0]).toMatchObject({ live: false, nowMs: console.context.wallMs() });
    expect(told()[0]!.lanes.map(({ name }) => name)).toContain('Gateway');
    const added = await more();
    expect(
      told()
        .at(-1)!
        .lanes.map(({ target }) => target),
    ).toContain('192.0.2.99');
    expect(await more()).toMatchObject({ fault: { code: 'lane-there' } });
    if (!added.ok) throw new Error('not added');
    expect(await endLane(console.context, added.value.id)).toMatchObject({ ok: true });
    expect(
      told()
        .at(-1)!
        .lanes.map(({ target }) => target),
    ).not.toContain('192.0.2.99');
    expect(await endLane(console.context, added.value.id)).toMatchObject({ fault: { code: 'lane-unknown' } });
    // Added again it goes on where it was.
    expect(await more()).toMatchObject({ value: { id: added.value.id } });
  });

  it('by STAMP are asked with a key that is kept sealed and told to nobody else', async () => {
    const byStamp = {
      ...({ name: 'Router', kind: 'stamp', target: '192.0.2.7:862', role: 'outside', everySeconds: 1 } as const),
      key: 'a word that both know',
    };
    const refused = await addLane(console.context, { ...byStamp, deviceId: attic.id });
    expect(refused).toMatchObject({ fault: { code: 'agent-cannot', facts: { agent: 'Attic box' } } });
    const greet = (can: readonly string[]) =>
      attic.session.hear(JSON.stringify({ kind: 'hello', hello: helloOf(can) }));
    await greet(['lanes', 'stamp']);
    const added = await addLane(console.context, { ...byStamp, deviceId: attic.id });
    if (!added.ok) throw new Error(added.fault.code);
    const asked = () =>
      told()
        .at(-1)!
        .lanes.find(({ id }) => id === added.value.id);
    expect(asked()).toMatchObject({ kind: 'stamp', key: 'a word that both know' });
    const kept = await console.context.store.keeping.setting(`lane-key ${added.value.id}`);
    expect(String(kept)).not.toContain('both know');
    expect(JSON.stringify([added.value, await lanes(), await span(3600_000)])).not.toContain('both know');
    // Given anew without one, it goes unauthenticated.
    await endLane(console.context, added.value.id);
    await addLane(console.context, { ...byStamp, deviceId: attic.id, key: ' ' });
    expect(asked()).toMatchObject({ kind: 'stamp', key: null });
    // Brought back to a version that does not know how, it is not asked for what it would not understand.
    await greet(['lanes']);
    expect(asked()).toBeUndefined();
  });

  it('tell on which way requests were lost, also summed up, as the minutes say', async () => {
    const at = console.context.wallMs() - (console.context.wallMs() % MINUTE_MS) - 30 * MINUTE_MS;
    const id = await laneId('8.8.4.4');
    const echoes = Array.from({ length: 60 }, (_, second): LaneEcho => ({
      ...{ atMs: at + 1000 * second, ms: second < 4 ? null : 12 },
    }));
    const raw = Buffer.from(packMinute(at, echoes, { lostThere: 3, lostBack: 1 })).toString('base64');
    // What comes beside the requests is not believed.
    await take([{ ...laneFigures(echoes), laneId: id, fromMs: at, raw, lostThere: 50, lostBack: 0 }]);
    for (const lengthMs of [2 * 3600_000, 3 * 24 * 3600_000]) {
      const { machines } = await span(lengthMs);
      const { steps } = machines.flatMap((machine) => machine.lanes).find((lane) => lane.id === id)!;
      expect([steps.lostThere, steps.lostBack]).toEqual([[3], [1]]);
    }
  });

  it('are none where the machine cannot keep any, and never more than it can', async () => {
    const old = await agent('Old box', []);
    expect(await console.context.store.lanes.ofDevice(old.id)).toEqual([]);
    const add = (place: number) =>
      addLane(console.context, {
        ...{
          deviceId: attic.id,
          name: `${place}`,
          kind: 'echo',
          target: `192.0.2.${place}`,
          role: 'outside',
          everySeconds: 1,
        },
      });
    for (let place = 1; (await lanes()).length < MOST_LANES; place += 1) await add(place);
    expect(await add(200)).toMatchObject({ fault: { code: 'too-many-lanes' } });
  });

  it('are taken in once, of its own lanes only, and never from the future', async () => {
    const gateway = await laneId('192.168.7.1');
    const fromMs = console.context.wallMs() - 10 * MINUTE_MS;
    const minute = sent(gateway, fromMs, () => 0.4);
    expect(
      await take([minute, { ...minute, laneId: 'another' }, { ...minute, fromMs: fromMs + 30 * MINUTE_MS }]),
    ).toMatchObject({
      value: { taken: 1, nowMs: console.context.wallMs() },
    });
    await take([{ ...minute, answered: 0, medianMs: null }]);
    const stored = await console.context.store.lanes.steps([gateway], MINUTE_MS, 0, 1e14);
    expect(stored).toMatchObject([{ fromMs, answered: 60 }]);
    const other = await agent('Shop box');
    expect(await take([minute], other.cookie)).toMatchObject({ value: { taken: 0 } });
    expect(await take([minute], 'forged')).toMatchObject({ fault: { code: 'not-joined' } });
  });

  it('an outage is found, keeps its name as more comes, and ends', async () => {
    await more();
    const fromMs = console.context.wallMs() - 30 * MINUTE_MS;
    const minutes = await office(fromMs, 12, [50, 560]);
    const by = (from: number, to: number) =>
      minutes.filter((minute) => minute.fromMs >= fromMs + from * MINUTE_MS && minute.fromMs < fromMs + to * MINUTE_MS);
    await take(by(0, 2));
    // It goes on as long as the machine can say so.
    console.advanceMs(-27.5 * MINUTE_MS);
    const begun = (await span(HOUR_MS)).outages;
    expect(begun).toMatchObject([{ fault: 'line', fromMs: fromMs + 50_000, untilMs: null }]);
    expect(await openOutages(console.context, siteId)).toMatchObject([
      { id: begun[0]!.id, sentence: 'the gateway answered, nothing outside did: the line' },
    ]);
    console.advanceMs(5 * MINUTE_MS);
    expect(await openOutages(console.context, siteId)).toEqual([]);
    console.advanceMs(22.5 * MINUTE_MS);
    for (let minute = 2; minute < 12; minute += 1) await take(by(minute, minute + 1));
    const { outages, machines } = await span(HOUR_MS);
    expect(outages).toMatchObject([{ id: begun[0]!.id, fromMs: fromMs + 50_000, untilMs: fromMs + 560_000 }]);
    expect(outages[0]!.sentence).toBe('the gateway answered, nothing outside did: the line');
    expect(machines[0]!.availability).toMatchObject({ outages: 1, silentMs: 510_000, watchedMs: 12 * MINUTE_MS });
  });

  it('an outage in which its machine went away ends with its last request, not where it came back', async () => {
    await more();
    const fromMs = console.context.wallMs() - 60 * MINUTE_MS;
    await take(await office(fromMs, 2, [50, 560]));
    const lastMs = fromMs + 2 * MINUTE_MS - 1000;
    expect((await span(2 * HOUR_MS)).outages).toMatchObject([{ fromMs: fromMs + 50_000, untilMs: lastMs }]);
    expect((await span(2 * HOUR_MS)).machines[0]!.availability.silentMs).toBe(lastMs - fromMs - 50_000);
    await take(await office(fromMs + 50 * MINUTE_MS, 3, [0, 0]));
    const [stored] = await console.context.store.lanes.outages(siteId, 0, 1e14);
    expect(stored).toMatchObject({ fromMs: fromMs + 50_000, untilMs: lastMs });
  });

  it('an outage that is over stays over when minutes of it come once more', async () => {
    await more();
    const fromMs = console.context.wallMs() - 30 * MINUTE_MS;
    const minutes = await office(fromMs, 12, [50, 560]);
    await take(minutes);
    await take(minutes.filter((minute) => minute.fromMs < fromMs + 3 * MINUTE_MS));
    expect(await console.context.store.lanes.outages(siteId, 0, 1e14)).toMatchObject([
      { fromMs: fromMs + 50_000, untilMs: fromMs + 560_000 },
    ]);
  });

  it('figures come from the requests, whatever was said beside them', async () => {
    const gateway = await laneId('192.168.7.1');
    const fromMs = console.context.wallMs() - 10 * MINUTE_MS;
    const minute = sent(gateway, fromMs, (second) => (second < 6 ? null : 12));
    await take([{ ...minute, sent: 9, answered: 9, minMs: 1, medianMs: 1, p95Ms: 1, maxMs: 1 }]);
    expect(await console.context.store.lanes.steps([gateway], MINUTE_MS, 0, 1e14)).toMatchObject([
      { sent: 60, answered: 54, minMs: 12, medianMs: 12, p95Ms: 12, maxMs: 12 },
    ]);
    expect(await take([{ ...minute, fromMs: fromMs + MINUTE_MS, raw: '' }])).toMatchObject({ value: { taken: 0 } });
  });

  it('a minute that comes after its hour was summed up is in it too', async () => {
    const gateway = await laneId('192.168.7.1');
    const hourMs = Math.floor(console.context.wallMs() / HOUR_MS) * HOUR_MS - 3 * HOUR_MS;
    await take([sent(gateway, hourMs, () => 10)]);
    await sumLanes(console.context);
    await take([sent(gateway, hourMs + MINUTE_MS, () => 20)]);
    await sumLanes(console.context);
    expect(await console.context.store.lanes.steps([gateway], HOUR_MS, 0, 1e14)).toMatchObject([
      { fromMs: hourMs, sent: 120, minMs: 10, medianMs: 15, maxMs: 20 },
    ]);
  });

  it('the same outages come of it in whatever parts, and however often, it comes', async () => {
    await more();
    const fromMs = console.context.wallMs() - 30 * MINUTE_MS;
    const minutes = await office(fromMs, 10, [70, 130]);
    await take(minutes);
    await take(minutes.slice(4, 9));
    await take(minutes);
    expect((await span(HOUR_MS)).outages).toMatchObject([
      { fault: 'line', fromMs: fromMs + 70_000, untilMs: fromMs + 130_000 },
    ]);
  });

  it('hours and days are summed from single requests, and minutes go when they are old', async () => {
    const gateway = await laneId('192.168.7.1');
    const hourMs = Math.floor(console.context.wallMs() / HOUR_MS) * HOUR_MS - 3 * HOUR_MS;
    await take(
      [0, 1, 2].map((minute) => sent(gateway, hourMs + minute * MINUTE_MS, (second) => 10 + minute * 60 + second)),
    );
    await sumLanes(console.context);
    const sums = await console.context.store.lanes.steps([gateway], HOUR_MS, 0, 1e14);
    expect(sums).toMatchObject([{ fromMs: hourMs, sent: 180, answered: 180, minMs: 10, medianMs: 99.5, maxMs: 189 }]);
    console.advanceMs((MINUTES_STAY_DAYS + 1) * DAY_MS);
    await sumLanes(console.context);
    await sumLanes(console.context);
    expect(await console.context.store.lanes.steps([gateway], MINUTE_MS, 0, 1e14)).toEqual([]);
    expect(await console.context.store.lanes.steps([gateway], HOUR_MS, 0, 1e14)).toHaveLength(1);
  });

  it('are shown as fine as the span lets them: requests, minutes, hours', async () => {
    const gateway = await laneId('192.168.7.1');
    const fromMs = console.context.wallMs() - 10 * MINUTE_MS;
    await take([sent(gateway, fromMs, () => 0.4)]);
    const steps = async (lengthMs: number) =>
      (await span(lengthMs)).machines[0]!.lanes.find(({ id }) => id === gateway)!.steps;
    expect(await steps(20 * MINUTE_MS)).toMatchObject({ stepMs: 0, atMs: { length: 60 } });
    expect(await steps(6 * HOUR_MS)).toMatchObject({ stepMs: MINUTE_MS, atMs: [fromMs], answered: [60] });
    expect((await steps(30 * DAY_MS)).stepMs).toBe(HOUR_MS);
    expect((await steps(365 * DAY_MS)).stepMs).toBe(DAY_MS);
  });

  it('are shown up to now also where hours and days are shown, before those are summed up', async () => {
    const gateway = await laneId('192.168.7.1');
    const hourMs = Math.floor(console.context.wallMs() / HOUR_MS) * HOUR_MS;
    const steps = async (lengthMs: number) =>
      (await span(lengthMs)).machines[0]!.lanes.find(({ id }) => id === gateway)!.steps;
    await take([-150, -60, -59].map((minute) => sent(gateway, hourMs + minute * MINUTE_MS, () => 10)));
    console.advanceMs(20 * MINUTE_MS);
    await take([1, 2, 3].map((minute) => sent(gateway, hourMs + minute * MINUTE_MS, (second) => 20 + second)));
    await sumLanes(console.context);
    // Three hours ago it was summed up; the last whole hour, and the one that goes on, were not.
    expect(await console.context.store.lanes.steps([gateway], HOUR_MS, 0, 1e14)).toHaveLength(1);
    expect(await steps(30 * DAY_MS)).toMatchObject({
      ...{ atMs: [hourMs - 3 * HOUR_MS, hourMs - HOUR_MS, hourMs], sent: [60, 120, 180] },
      ...{ minMs: [10, 10, 20], medianMs: [10, 10, 49.5] },
    });
    const dayMs = hourMs - (hourMs % DAY_MS);
    expect(await steps(365 * DAY_MS)).toMatchObject({ atMs: [dayMs], sent: [360], minMs: [10], medianMs: [15] });
    // Once it is summed up it is the same figure, and there once.
    const before = await steps(30 * DAY_MS);
    console.advanceMs(2 * HOUR_MS);
    await sumLanes(console.context);
    expect((await steps(30 * DAY_MS)).medianMs).toEqual(before.medianMs);
  });

  it('are live while somebody looks, and no longer', async () => {
    const heard: unknown[] = [];
    const stop = await watchBeats(console.context, siteId, (now) => {
      if (now.kind === 'beats') heard.push(...now.beats);
    });
    expect(told().at(-1)!.live).toBe(true);
    const gateway = await laneId('192.168.7.1');
    const say = (device: StandingDevice, ...beats: unknown[]) =>
      device.session.hear(JSON.stringify({ kind: 'beats', beats }));
    await say(attic, [gateway, 1, 0.4]);
    expect(heard).toEqual([[gateway, 1, 0.4]]);
    // Neither a lane of another machine nor one that nobody has is spoken of by whoever does not keep it.
    const other = await agent('Cellar box');
    await say(other, [gateway, 2, 900], ['l1', 2, 0.1]);
    await say(attic, [gateway, 3, null], ['l1', 3, 0.1]);
    expect(heard).toEqual([
      [gateway, 1, 0.4],
      [gateway, 3, null],
    ]);
    await stop();
    expect(told().at(-1)!.live).toBe(false);
  });

  it('say what was slow against what is usual there, and that a soak of ours made it so', async () => {
    const [gateway, outside] = [await laneId('192.168.7.1'), await laneId('8.8.4.4')];
    const firstMs = Math.ceil(console.context.wallMs() / HOUR_MS) * HOUR_MS;
    const slowMs = firstMs + 7 * HOUR_MS + 10 * MINUTE_MS;
    const minutes = (lane: string, usual: number, slow: number) =>
      Array.from({ length: 7 * 60 + 30 }, (_, minute) => {
        const atMs = firstMs + minute * MINUTE_MS;
        const late = atMs >= slowMs && atMs < slowMs + 4 * MINUTE_MS;
        return sent(lane, atMs, (second) => (late ? slow : usual) + (second % 5) / 10);
      });
    console.advanceMs(firstMs + 7.5 * HOUR_MS - console.context.wallMs());
    await take(minutes(gateway, 0.4, 0.4));
    await take(minutes(outside, 12, 80));
    await sumLanes(console.context);
    expect((await span(8 * HOUR_MS)).slow).toMatchObject([
      { fault: 'line-or-theirs', fromMs: slowMs, untilMs: slowMs + 4 * MINUTE_MS, because: null },
    ]);
    const [peer] = await console.context.store.sites.peersOf(siteId);
    const soak = {
      id: 'soak',
      setId: 'soak',
      siteId,
      deviceId: attic.id,
      deviceName: 'Attic box',
      profile: 'soak',
    } as const;
    await console.context.store.runs.insert({
      ...{
        ...STARTED_RUN,
        ...soak,
        peerId: peer!.id,
        peerName: peer!.name,
        spotName: null,
        lineId: null,
        lineName: null,
      },
      ...{ reach: 'internet', link: { medium: 'unknown' }, linkKind: 'unknown', plan: null, practice: false },
      ...{
        startedAtMs: slowMs - 10_000,
        lastSeenAtMs: slowMs,
        told: [],
        noticed: [],
        sameMachine: false,
        ipVersion: 4,
      },
    });
    expect((await span(8 * HOUR_MS)).slow).toMatchObject([{ fromMs: slowMs, because: 'soak' }]);
    // Seen by single requests nothing is called slow.
    expect((await span(20 * MINUTE_MS)).slow).toEqual([]);
  });

  it('say what happened while a mark stood', async () => {
    const gateway = await laneId('192.168.7.1');
    const mark = await beginMark(console.context, 'Ines', { siteId, label: 'heater on' });
    if (!mark.ok) throw new Error('no mark');
    const beginMs = console.context.wallMs();
    console.advanceMs(8 * MINUTE_MS);
    expect(await endMark(console.context, mark.value.id)).toMatchObject({
      value: { untilMs: beginMs + 8 * MINUTE_MS },
    });
    const minutes = Array.from({ length: 16 }, (_, place) =>
      sent(gateway, beginMs + (place - 8) * MINUTE_MS, (second) => (place < 8 ? 12 : 60) + (second % 7) + place / 10),
    );
    await take(minutes);
    const { marks } = await span(HOUR_MS);
    expect(marks).toMatchObject([{ label: 'heater on', effects: [{ laneName: 'Gateway', differs: true }] }]);
    expect(marks[0]!.effects[0]!.sentence).toMatch(
      /^64 ms instead of 15 ms \(4\d ms to 5\d ms more\)$|^6\d ms instead of 1\d ms/,
    );
    await removeMark(console.context, mark.value.id);
    expect((await span(HOUR_MS)).marks).toEqual([]);
    expect(await endMark(console.context, mark.value.id)).toMatchObject({ fault: { code: 'mark-unknown' } });
  });
});
