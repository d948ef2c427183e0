import type { LaneTicket, SessionOpened } from '@/wire';
import type { ProbeEvents } from '../run/transport';
import { PeerLane, type PeerLaneParts } from './peer-lane';

const TICKET: LaneTicket = { baseUrl: 'http://192.0.2.5:4870', ticket: 'a ticket', seconds: 3600 };
const OPENED = { ok: true, opened: { session: 's'.repeat(20) } as SessionOpened } as const;

/** A peer that answers after `rttMs` (null: not at all), and what a page has around it. */
function page(ticket: Awaited<ReturnType<PeerLaneParts['ticket']>> = TICKET) {
  const heard = new Map<number, { sentMs: number; ms: number | null }>();
  const asked: string[] = [];
  const world = {
    rttMs: 12 as number | null,
    ticket,
    opens: OPENED as Awaited<ReturnType<PeerLaneParts['open']>>,
    connects: true,
    /** How far the clock of the wall went while the device slept. */
    sleptMs: 0,
    events: null as ProbeEvents | null,
    sent: 0,
  };
  const lane = new PeerLane({
    everyMs: 1000,
    nowMs: () => performance.now(),
    wallMs: () => performance.now() + world.sleptMs,
    ticket: () => {
      asked.push('ticket');
      return Promise.resolve(world.ticket);
    },
    open: () => {
      asked.push('session');
      return Promise.resolve(world.opens);
    },
    probes: (_, __, events) => {
      if (!world.connects) return Promise.reject(new Error('refused'));
      world.events = events;
      return Promise.resolve({
        send: (sequence) => {
          world.sent += 1;
          const { rttMs } = world;
          if (rttMs !== null) setTimeout(() => world.events === events && events.onEcho(sequence, null), rttMs);
        },
        close: () => undefined,
      });
    },
    onEcho: (sentMs, ms, key) => heard.set(key, { sentMs, ms }),
  });
  const told = () => [...heard.values()].map(({ ms }) => ms);
  return { lane, world, asked, told, heard };
}

const pass = (ms: number) => jest.advanceTimersByTimeAsync(ms);
const breakOff = (world: ReturnType<typeof page>['world']) => {
  const { events } = world;
  world.events = null;
  events!.onClose();
};

describe('a lane that a page keeps', () => {
  beforeEach(() => jest.useFakeTimers());
  afterEach(() => jest.useRealTimers());

  it('asks the peer once a second, over one session', async () => {
    const { lane, asked, told } = page();
    await pass(10_500);
    lane.close();
    expect(told()).toEqual(Array.from({ length: 10 }, () => 12));
    expect(asked).toEqual(['ticket', 'session']);
  });

  it('shows an answer as missing while it is late, and takes it when it comes', async () => {
    const { lane, world, heard } = page();
    await pass(1500);
    world.rttMs = 3200;
    await pass(2200);
    const [, late] = [...heard.values()];
    expect(late!.ms).toBeNull();
    await pass(3000);
    expect([...heard.values()][1]).toEqual({ sentMs: late!.sentMs, ms: 3200 });
    lane.close();
  });

  it('counts what comes after ten seconds as lost', async () => {
    const { lane, world, heard } = page();
    await pass(1500);
    world.rttMs = 10_500;
    await pass(1000);
    world.rttMs = 12;
    await pass(12_000);
    lane.close();
    expect([...heard.values()].filter(({ ms }) => ms === null)).toHaveLength(1);
  });

  it('is silent from the moment at which nothing comes back, and opens anew a connection that stands still', async () => {
    const { lane, world, told, asked } = page();
    await pass(3500);
    world.rttMs = null;
    world.opens = { ok: false, reason: 'peer-unreachable' };
    await pass(20_000);
    const silent = told().slice(3);
    expect(silent.length).toBeGreaterThanOrEqual(19);
    expect(silent.every((ms) => ms === null)).toBe(true);
    [world.rttMs, world.opens] = [12, OPENED];
    await pass(5000);
    lane.close();
    expect(told().at(-1)).toBe(12);
    expect(asked.filter((what) => what === 'session').length).toBeGreaterThan(3);
  });

  it('is silent while a peer that broke off cannot be reached, from the first request that was due', async () => {
    const { lane, world, heard } = page();
    await pass(3500);
    world.opens = { ok: false, reason: 'peer-unreachable' };
    const fromMs = performance.now();
    breakOff(world);
    await pass(6000);
    lane.close();
    const silent = [...heard.values()].filter(({ ms }) => ms === null);
    expect(silent.length).toBeGreaterThanOrEqual(5);
    expect(silent[0]!.sentMs - fromMs).toBeLessThan(1100);
  });

  it('is silent while its probes are refused though the session opens', async () => {
    const { lane, world, told } = page();
    await pass(3500);
    world.connects = false;
    breakOff(world);
    await pass(5000);
    lane.close();
    expect(told().filter((ms) => ms === null).length).toBeGreaterThanOrEqual(4);
  });

  it('is silent too when the console is away with the peer', async () => {
    const { lane, world, told } = page();
    await pass(3500);
    world.ticket = 'away';
    breakOff(world);
    await pass(6000);
    lane.close();
    expect(told().filter((ms) => ms === null).length).toBeGreaterThanOrEqual(5);
  });

  it('is not silent when its ticket ends, nor while the console that gives the next one is away', async () => {
    const { lane, world, told } = page({ ...TICKET, seconds: 8 });
    await pass(7500);
    world.ticket = 'away';
    breakOff(world);
    await pass(6000);
    world.ticket = TICKET;
    await pass(4000);
    lane.close();
    expect(told().filter((ms) => ms === null)).toEqual([]);
    expect(told().at(-1)).toBe(12);
  });

  it('says nothing of a peer that will not have it, and asks again half a minute later', async () => {
    const { lane, world, told, asked } = page();
    world.opens = { ok: false, reason: 'peer-busy' };
    await pass(29_000);
    expect(asked).toHaveLength(2);
    world.opens = OPENED;
    await pass(5000);
    lane.close();
    expect(told().length).toBeGreaterThan(0);
    expect(told().every((ms) => ms === 12)).toBe(true);
  });

  it('says nothing of a lane for which the console gives no ticket', async () => {
    const { lane, told, asked } = page('no');
    await pass(20_000);
    lane.close();
    expect([told(), asked]).toEqual([[], ['ticket']]);
  });

  it('asks nobody while the device sleeps, and takes nothing of what was on its way for lost', async () => {
    const { lane, world, told } = page();
    await pass(3500);
    world.rttMs = null;
    await pass(700);
    world.sleptMs = 600_000;
    world.rttMs = 12;
    await pass(5000);
    lane.close();
    expect(told().filter((ms) => ms === null)).toEqual([]);
    expect(told().at(-1)).toBe(12);
  });

  it('asks nothing once it is closed, also when it was just opening', async () => {
    const { lane, world } = page();
    lane.close();
    await pass(5000);
    expect(world.sent).toBe(0);
  });
});
