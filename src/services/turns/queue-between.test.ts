import { seededRandom, type Link, type MachineFacts } from '@/core';
import { simulateSamples } from '@/programs/demo/samples';
import { publicKeyText, type TicketClaims } from '@/wire/peer/ticket';
import { AGENT_PROTOCOL, betweenOrderSchema, type BetweenOrder } from '@/wire';
import { noteHello } from '../agents';
import {
  furnish,
  GOOD_LINE,
  handedIn,
  LINE_FORM,
  openTestConsole,
  orderFor,
  PEER_KEYS,
  STRANGER,
  type TestConsole,
} from '../console/console-for-tests';
import { saveLine } from '../office/lines';
import { saveOffice } from '../office/offices';
import { handInRun } from '../runs/hand-in-run';
import { queueBetween } from './queue-between';
import { standingDevice, lastTurn, type StandingDevice } from './standing-for-tests';
import { askForRun } from './turn-desk';

const ORIGIN = 'http://192.0.2.20:4870';
const KEY = publicKeyText(PEER_KEYS.publicKey);
const cable = (mbps: number): Link => ({ medium: 'wired', negotiatedBps: mbps * 1e6, mtuBytes: 1500 });
const factsOf = (address: string): MachineFacts => ({
  ...{ system: 'Debian', gateway: { address: '192.0.2.1', link: 'eth0' }, gatewayMs: null, resolvers: [] },
  links: [
    {
      ...{ name: 'lo', medium: 'other', up: true, speedMbps: null, duplex: null, mtuBytes: 65_536, driver: null },
      addresses: ['127.0.0.1'],
    },
    {
      ...{ name: 'eth0', medium: 'wired', up: true, speedMbps: 1000, duplex: 'full', mtuBytes: 1500, driver: 'r8169' },
      addresses: ['2001:db8::7', address],
    },
  ],
});

describe('a run between two machines of ours', () => {
  let console: TestConsole;
  let siteId: string;
  let attic: StandingDevice;
  let shop: StandingDevice;
  beforeEach(async () => {
    console = await openTestConsole();
    ({ siteId } = await furnish(console));
    attic = await agent(siteId, 'Attic box', '192.0.2.7', cable(1000));
    shop = await agent(siteId, 'Shop box', '192.0.2.8', cable(100));
  });
  afterEach(() => console.close());

  async function agent(ofSite: string, name: string, address: string, link: Link, can: string[] = ['far-end']) {
    const device = await standingDevice(console, ofSite, { name });
    const { sites } = console.context.store;
    await sites.saveDevice({ ...(await sites.device(device.id))!, link });
    await noteHello(console.context, (await sites.device(device.id))!, {
      ...{ version: '0.1.0', protocol: AGENT_PROTOCOL, clockMs: 0, outbox: 0, neighbours: [], can },
      facts: factsOf(address),
    });
    return device;
  }
  const order = (change: Partial<BetweenOrder> = {}): BetweenOrder => ({
    ...{ deviceId: attic.id, farDeviceId: shop.id, profile: 'standard', pacedMbps: null },
    ...change,
  });
  const queue = (change: Partial<BetweenOrder> = {}) => queueBetween(console.context, 'Ines', order(change));
  /** The far agent answers as soon as it is asked to serve. */
  const serves = (
    far: StandingDevice,
    at: { port: number; publicKey: string } | null = { port: 4872, publicKey: KEY },
  ) => {
    const before = far.told.length;
    const answering = setInterval(() => {
      const asked = far.told.slice(before).find(({ kind }) => kind === 'serve');
      if (asked?.kind !== 'serve') return;
      clearInterval(answering);
      void far.session.hear(JSON.stringify({ kind: 'serving', serveId: asked.serveId, at }));
    }, 1);
    return () => clearInterval(answering);
  };
  const take = (near: StandingDevice, changes = {}) =>
    askForRun(
      console.context,
      { ...STRANGER, cookie: near.cookie },
      orderFor(null, {
        ...{ deviceId: near.id, deviceName: null, spotName: null, link: cable(1000), reach: 'between' },
        ...{ turnId: lastTurn(near), ...changes },
      }),
      ORIGIN,
    );
  const granted = async () => {
    serves(shop);
    const answer = await take(attic);
    if (!answer.ok || answer.value.status !== 'granted') throw new Error(JSON.stringify(answer));
    return answer.value;
  };

  it('has the other one serve, with a ticket for its key, and ends that with the run', async () => {
    expect((await queue()).ok).toBe(true);
    const grant = await granted();
    expect(grant.peer).toEqual({ name: 'Shop box', baseUrl: 'http://192.0.2.8:4872' });
    const claims = JSON.parse(Buffer.from(grant.ticket.split('.')[0]!, 'base64url').toString()) as TicketClaims;
    expect(claims).toMatchObject({ peerKey: KEY, runId: grant.runId });
    const asked = shop.told.find(({ kind }) => kind === 'serve');
    expect(asked).toMatchObject({ serveId: grant.runId, trust: console.context.publicKey });
    const samples = simulateSamples(
      { ...GOOD_LINE, down: { ...GOOD_LINE.down, rateBps: 94e6 }, up: { ...GOOD_LINE.up, rateBps: 94e6 } },
      seededRandom(5),
    );
    await handInRun(console.context, grant.runId, grant.runKey, handedIn(samples, grant));
    expect(shop.told.at(-1)).toEqual({ kind: 'serve-over', serveId: grant.runId });
    // The slower end decides: 94 of what a cable at 100 can show.
    const run = (await console.context.store.runs.byId(grant.runId))!;
    expect(run).toMatchObject({
      farEnd: 'agent',
      farLink: cable(100),
      reach: 'between',
      lineId: null,
      verdict: 'full',
    });
    expect(run.report!.planAnswer).toBeNull();
    expect(run.receipt!.receipt).not.toBeNull();
  });

  it('keeps what was written down of a link where its machine cannot tell, and calls no far end unusual', async () => {
    await queue();
    serves(shop);
    const answer = await take(attic, { link: { medium: 'unknown' } });
    expect(answer).toMatchObject({ value: { status: 'granted' } });
    expect((await console.context.store.sites.device(attic.id))!.link).toEqual(cable(1000));
    const [run] = await console.context.store.runs.running();
    expect(run).toMatchObject({ link: cable(1000), otherPeerThanUsual: false });
  });

  it('lets neither of the two measure by itself meanwhile, nor serve twice', async () => {
    await queue();
    await granted();
    await queue({ deviceId: shop.id, farDeviceId: attic.id });
    expect((await console.context.store.turns.open()).map(({ status }) => status)).toEqual(['running', 'waiting']);
    const other = await agent(siteId, 'Third box', '192.0.2.9', cable(1000));
    await queue({ deviceId: other.id });
    expect((await console.context.store.turns.open()).map(({ status }) => status)).toEqual([
      'running',
      'waiting',
      'waiting',
    ]);
  });

  it('is called as the machine is called now, and is one far end however often it is asked', async () => {
    await queue();
    const { sites } = console.context.store;
    await sites.saveDevice({ ...(await sites.device(shop.id))!, name: 'Counter box' });
    await queue();
    const far = (await sites.peersOf(siteId)).filter(({ agentId }) => agentId === shop.id);
    expect(far).toMatchObject([{ name: 'Counter box', reach: 'between', farSiteId: null }]);
  });

  it('is held against the slower of both lines where the other one stands in another office', async () => {
    const made = await saveOffice(console.context, null, 'Tarnfell shop');
    if (!made.ok) throw new Error(made.fault.code);
    await saveLine(console.context, made.value.id, null, {
      ...LINE_FORM,
      lineName: 'Shop line',
      downMbps: 50,
      upMbps: 10,
      leastDownMbps: null,
    });
    shop = await agent(made.value.id, 'Far box', '192.0.2.30', cable(1000));
    await queue();
    await granted();
    const [run] = await console.context.store.runs.running();
    // Down comes through the other's upload, up through its download.
    expect(run!.plan).toMatchObject({ downBps: 10e6, upBps: 50e6 });
    expect(run!.plan!.slowerEnd).toBeDefined();
    const [turn] = await console.context.store.turns.open();
    expect(turn!.needs.filter((need) => need.startsWith('line:'))).toHaveLength(2);
  });

  it('gives the turn back where the other one is away, cannot serve, or says nothing', async () => {
    await queue();
    serves(shop, null);
    expect(await take(attic)).toMatchObject({ fault: { code: 'far-end-away', facts: { peer: 'Shop box' } } });
    expect((await console.context.store.turns.open()).length).toBe(0);
    await queue();
    await shop.session.leave();
    expect(await take(attic)).toMatchObject({ fault: { code: 'far-end-away' } });
    // One that is away is waited for, as with any device.
    await queue();
    expect((await console.context.store.turns.open()).at(-1)).toMatchObject({ status: 'waiting' });
  });

  it('hears only the machine that it asked', async () => {
    await queue();
    const stop = serves(shop);
    stop();
    const taking = take(attic);
    const deadline = setInterval(() => {
      const asked = shop.told.find(({ kind }) => kind === 'serve');
      if (asked?.kind !== 'serve') return;
      clearInterval(deadline);
      void attic.session
        .hear(JSON.stringify({ kind: 'serving', serveId: asked.serveId, at: { port: 1, publicKey: 'mine' } }))
        .then(() =>
          shop.session.hear(
            JSON.stringify({ kind: 'serving', serveId: asked.serveId, at: { port: 4872, publicKey: KEY } }),
          ),
        );
    }, 1);
    expect(await taking).toMatchObject({ value: { peer: { baseUrl: 'http://192.0.2.8:4872' } } });
  });

  it('sends UDP at the rate that was asked for', async () => {
    await queue({ profile: 'paced', pacedMbps: 5 });
    expect(attic.told.at(-1)).toMatchObject({ kind: 'asked', profile: 'paced', pacedMbps: 5, reach: 'between' });
  });

  it('is for agents of this version, and never without being asked for', async () => {
    const old = await agent(siteId, 'Old box', '192.0.2.10', cable(1000), ['lanes']);
    const phone = await standingDevice(console, siteId, { name: 'Phone' });
    expect(await queue({ farDeviceId: old.id })).toMatchObject({
      fault: { code: 'far-end-needs-agents', facts: { device: 'Old box' } },
    });
    expect(await queue({ deviceId: phone.id })).toMatchObject({
      fault: { code: 'far-end-needs-agents', facts: { device: 'Phone' } },
    });
    expect(await queue({ farDeviceId: 'gone' })).toMatchObject({ fault: { code: 'device-unknown' } });
    await queue();
    expect(await take(phone, { turnId: null })).toMatchObject({ fault: { code: 'peer-missing' } });
  });
});

it.each([
  [{ farDeviceId: 'a' }, 'farDeviceId'],
  [{ profile: 'paced' }, 'pacedMbps'],
  [{ profile: 'quick', pacedMbps: 5 }, 'pacedMbps'],
  [{ profile: 'paced', pacedMbps: 500 }, 'pacedMbps'],
  [{ profile: 'soak' }, 'profile'],
])('refuses an order that cannot be: %j', (change, field) => {
  const parsed = betweenOrderSchema.safeParse({ deviceId: 'a', farDeviceId: 'b', profile: 'quick', ...change });
  expect(parsed.error?.issues.map(({ path }) => path[0])).toContain(field);
});
