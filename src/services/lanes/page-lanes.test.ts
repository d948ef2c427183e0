import { laneFigures, MINUTE_MS, packMinute, type LaneEcho } from '@/core';
import { watchedSpanSchema } from '@/wire';
import { checkTicket, publicKeyText, readPublicKey } from '@/wire/peer/ticket';
import { furnish, openTestConsole, type TestConsole } from '../console/console-for-tests';
import { standingDevice, type StandingDevice } from '../turns/standing-for-tests';
import { addLane, endLane, laneTicket, MOST_PAGE_LANES, takeMinutes, watchBeats, watchedSpanOf } from '.';

const ORIGIN = 'http://192.0.2.20:4870';

describe('the lanes of a page that stands by', () => {
  let console: TestConsole;
  let siteId: string;
  let phone: StandingDevice;
  beforeEach(async () => {
    console = await openTestConsole();
    ({ siteId } = await furnish(console));
    phone = await standingDevice(console, siteId, { name: 'Phone' });
  });
  afterEach(() => console.close());

  const peerOf = async (reach: string) =>
    (await console.context.store.sites.peersOf(siteId)).find((peer) => peer.reach === reach)!;
  const wanted = async (reach = 'local') => ({
    ...({ deviceId: phone.id, name: 'Peer', kind: 'probe', role: 'inside', everySeconds: 1 } as const),
    target: (await peerOf(reach)).id,
  });
  const added = async (reach?: string) => {
    const lane = await addLane(console.context, await wanted(reach));
    if (!lane.ok) throw new Error(lane.fault.code);
    return lane.value;
  };
  const told = ({ told: all }: StandingDevice = phone) =>
    all.flatMap((order) => (order.kind === 'lanes' ? [order] : []));
  const ticket = (laneId: string, cookie: string | null = phone.cookie) =>
    laneTicket(console.context, cookie, laneId, ORIGIN);
  const code = (outcome: { ok: true } | { ok: false; fault: { code: string } }) =>
    outcome.ok ? 'ok' : outcome.fault.code;

  it('are told to it at once, and again whenever it stands by anew; what stands at the end the peer says', async () => {
    expect(told()).toEqual([]);
    const lane = await added('internet');
    expect(lane.role).toBe('outside');
    expect(told().at(-1)!.lanes).toEqual([expect.objectContaining({ id: lane.id, kind: 'probe', everyMs: 1000 })]);
    const again = await standingDevice(console, siteId, { id: phone.id });
    expect(told(again)).toHaveLength(1);
    await endLane(console.context, lane.id);
    expect(told(again).at(-1)!.lanes).toEqual([]);
    expect(told(await standingDevice(console, siteId, { id: phone.id }))).toEqual([]);
  });

  it('come with a ticket for watching, for that peer and an hour', async () => {
    const lane = await added();
    const given = await ticket(lane.id);
    if (!given.ok) throw new Error(given.fault.code);
    expect(given.value).toMatchObject({ baseUrl: ORIGIN, seconds: 3600 });
    const claims = checkTicket(
      given.value.ticket,
      [readPublicKey(publicKeyText(console.context.signingKey))!],
      console.context.wallMs(),
    );
    expect(claims).toMatchObject({ ok: true, value: { watch: true, runId: lane.id, deviceId: phone.id } });
  });

  it('are given to nobody else, and no more when they have ended or their peer is gone', async () => {
    const lane = await added();
    const other = await standingDevice(console, siteId, { name: 'Other' });
    expect(code(await ticket(lane.id, other.cookie))).toBe('lane-unknown');
    expect(code(await ticket(lane.id, null))).toBe('not-joined');
    expect(code(await ticket('nothing'))).toBe('lane-unknown');
    await console.context.store.sites.savePeer({ ...(await peerOf('local')), otherKey: 'another' });
    expect(code(await ticket(lane.id))).toBe('lane-peer-missing');
    await endLane(console.context, lane.id);
    expect(code(await ticket(lane.id))).toBe('lane-unknown');
  });

  it('ask peers of ours, and nothing that only an agent can ask', async () => {
    const echo = { ...(await wanted()), kind: 'echo', target: '192.0.2.1' } as const;
    const refused = await addLane(console.context, echo);
    expect(refused).toMatchObject({ ok: false, fault: { code: 'page-asks-peers', facts: { device: 'Phone' } } });
    expect(code(await addLane(console.context, { ...(await wanted()), target: 'nobody' }))).toBe('lane-peer-missing');
    expect(code(await addLane(console.context, { ...(await wanted()), deviceId: 'nobody' }))).toBe('device-unknown');
    expect(code(await addLane(console.context, await wanted()))).toBe('ok');
    expect(code(await addLane(console.context, await wanted()))).toBe('lane-there');
  });

  it('are few', async () => {
    const local = await peerOf('local');
    for (let place = 0; place <= MOST_PAGE_LANES; place += 1) {
      const target = `peer-${place}`;
      await console.context.store.sites.savePeer({ ...local, id: target, name: target, address: `192.0.2.${place}` });
      const lane = await addLane(console.context, { ...(await wanted()), target });
      expect(code(lane)).toBe(place < MOST_PAGE_LANES ? 'ok' : 'too-many-lanes');
    }
  });

  it('are seen beside those of agents, with what they said, and heard while somebody looks', async () => {
    const lane = await added();
    const heard: unknown[] = [];
    const stop = await watchBeats(console.context, siteId, (what) => heard.push(what));
    expect(told().at(-1)).toMatchObject({ live: true });
    const nowMs = console.context.wallMs();
    await phone.session.hear(JSON.stringify({ kind: 'beats', beats: [[lane.id, nowMs, 7]] }));
    expect(heard).toEqual([{ kind: 'beats', beats: [[lane.id, nowMs, 7]] }]);
    await stop();
    expect(told().at(-1)).toMatchObject({ live: false });

    const fromMs = Math.floor(nowMs / MINUTE_MS) * MINUTE_MS - MINUTE_MS;
    const echoes = Array.from({ length: 60 }, (_, second): LaneEcho => ({ atMs: fromMs + 1000 * second, ms: 7 }));
    const raw = Buffer.from(packMinute(fromMs, echoes)).toString('base64');
    await takeMinutes(console.context, phone.cookie, [{ laneId: lane.id, fromMs, ...laneFigures(echoes), raw }]);
    const found = await watchedSpanOf(console.context, siteId, { fromMs: nowMs - 10 * MINUTE_MS, untilMs: nowMs });
    if (!found.ok) throw new Error(found.fault.code);
    const [machine] = found.value.machines;
    expect(machine).toMatchObject({ name: 'Phone', isAgent: false, state: 'stands-by' });
    expect(machine!.lanes[0]!.steps.medianMs.every((ms) => ms === 7)).toBe(true);
    expect(found.value.standing).toEqual([{ deviceId: phone.id, name: 'Phone', isAgent: false }]);
    expect(found.value.peers).toContainEqual({ id: lane.target, name: (await peerOf('local')).name });
    // What the API says of its answer is what it answers.
    const answer = JSON.parse(JSON.stringify(found.value)) as object;
    expect(watchedSpanSchema.parse(answer)).toEqual(answer);
  });
});
