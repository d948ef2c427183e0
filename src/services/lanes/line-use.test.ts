import { laneFigures, packMinute, type LaneEcho } from '@/core';
import { AGENT_PROTOCOL } from '@/wire';
import { furnish, measured, openTestConsole, orderFor, type TestConsole } from '../console/console-for-tests';
import { boardOf } from '../views/board';
import { standingDevice, type StandingDevice } from '../turns/standing-for-tests';
import { FACTS } from './facts-for-tests';
import { addLane, seeWhoElse, takeMinutes } from '.';

const MINUTE_MS = 60_000;

describe('who else used the line while a run went on', () => {
  let console: TestConsole;
  let siteId: string;
  let code: string;
  let attic: StandingDevice;
  let lanes: Readonly<Record<'load-in' | 'load-out', string>>;
  beforeEach(async () => {
    console = await openTestConsole();
    ({ siteId, code } = await furnish(console));
    // A real way out, not one that is practised on.
    const [peer] = await console.context.store.sites.peersOf(siteId);
    await console.context.store.sites.savePeer({ ...peer!, practice: false });
    attic = await standingDevice(console, siteId, { name: 'Attic box' });
    const hello = {
      ...{ version: '0.1.0', protocol: AGENT_PROTOCOL, clockMs: console.context.wallMs(), outbox: 0 },
      ...{ neighbours: [], can: ['lanes', 'load'], facts: FACTS },
    };
    await attic.session.hear(JSON.stringify({ kind: 'hello', hello }));
    const add = async (kind: 'load-in' | 'load-out') => {
      const lane = { deviceId: attic.id, name: kind, kind, target: 'igd', role: 'line', everySeconds: 10 } as const;
      const added = await addLane(console.context, lane);
      if (!added.ok) throw new Error(added.fault.code);
      return added.value.id;
    };
    lanes = { 'load-in': await add('load-in'), 'load-out': await add('load-out') };
  });
  afterEach(() => console.close());

  /** Ten minutes of readings around a moment: what others move, and what a run moved in its own time. */
  async function read(
    around: number,
    others: Readonly<Record<'load-in' | 'load-out', number>>,
    run: { fromMs: number; untilMs: number; down: number; up: number },
  ) {
    const firstMs = Math.floor(around / MINUTE_MS) * MINUTE_MS - 5 * MINUTE_MS;
    const minutes = (['load-in', 'load-out'] as const).flatMap((kind) =>
      Array.from({ length: 10 }, (_, minute) => {
        const fromMs = firstMs + minute * MINUTE_MS;
        const echoes = Array.from({ length: 6 }, (__, place): LaneEcho => {
          const atMs = fromMs + 10_000 * place;
          const overlap = Math.max(0, Math.min(atMs + 10_000, run.untilMs) - Math.max(atMs, run.fromMs));
          const own =
            (((kind === 'load-in' ? run.down : run.up) * 8 * 1.0456) / 1000 / (run.untilMs - run.fromMs)) *
            (overlap / 10_000);
          return { atMs, ms: others[kind] + own };
        });
        const raw = Buffer.from(packMinute(fromMs, echoes)).toString('base64');
        return { laneId: lanes[kind], fromMs, ...laneFigures(echoes), raw };
      }),
    );
    await takeMinutes(console.context, attic.cookie, minutes);
  }

  async function aRun() {
    const { runId } = await measured(console, orderFor(code, { deviceName: 'Press desk' }));
    const run = (await console.context.store.runs.byId(runId))!;
    const { receipt } = run.receipt!;
    return {
      id: runId,
      fromMs: run.startedAtMs,
      untilMs: run.endedAtMs!,
      down: receipt!.down.bytes,
      up: receipt!.up.bytes,
    };
  }
  const kept = async (id: string) => (await console.context.store.runs.byId(id))!;

  it('is told once the readings are in, and weighs on what the run says of the plan', async () => {
    const run = await aRun();
    expect(await seeWhoElse(console.context)).toBe(false);
    expect((await kept(run.id)).lineUse).toBeNull();
    await read(run.fromMs, { 'load-in': 180, 'load-out': 0.2 }, run);
    expect(await seeWhoElse(console.context)).toBe(true);
    const { lineUse, flags, report } = await kept(run.id);
    expect(Math.abs(lineUse!.downBps! / 180e6 - 1)).toBeLessThan(0.03);
    expect(lineUse!.upBps! / 1e6).toBeLessThan(3);
    expect(flags).toContain(' line-in-use ');
    expect(report!.fitness.filter(({ code: flag }) => flag === 'line-in-use')).toMatchObject([{ direction: 'down' }]);
    // Looked at once.
    expect(await seeWhoElse(console.context)).toBe(false);
  });

  it('is said to be nobody where nobody was, and takes nothing from the run', async () => {
    const run = await aRun();
    const before = await kept(run.id);
    await read(run.fromMs, { 'load-in': 0.3, 'load-out': 0.1 }, run);
    expect(await seeWhoElse(console.context)).toBe(true);
    const after = await kept(run.id);
    expect(after.lineUse!.downBps! / 1e6).toBeLessThan(5);
    expect(after.flags).not.toContain('line-in-use');
    expect([after.downBps, after.verdict]).toEqual([before.downBps, before.verdict]);
    expect((await boardOf(console.context)).ok).toBe(true);
  });

  it('stays unknown when the readings come too late, or the port is not the line’s', async () => {
    const run = await aRun();
    console.advanceMs(45 * MINUTE_MS);
    await read(run.fromMs, { 'load-in': 180, 'load-out': 0 }, run);
    expect(await seeWhoElse(console.context)).toBe(false);
    expect((await kept(run.id)).lineUse).toBeNull();
  });
});
