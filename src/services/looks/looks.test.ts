import { createPublicKey } from 'node:crypto';
import type { LookAsked, LookFound } from '@/core';
import { AGENT_PROTOCOL } from '@/wire';
import { checkTicket } from '@/wire/peer/ticket';
import { furnish, openTestConsole, type TestConsole } from '../console/console-for-tests';
import { noteHello } from '../agents';
import { moveQueue, queueTurns, withdrawTurn } from '../turns';
import { standingDevice, type StandingDevice } from '../turns/standing-for-tests';
import { askLook, endLateLooks, looksPageOf, stopLook, takeLook } from '.';

const ASKED: LookAsked = { what: 'programs', seconds: 10 };
const FOUND: LookFound = { what: 'programs', seconds: 10, programs: [] };

describe('looking from a machine', () => {
  let console: TestConsole;
  let siteId: string;
  let attic: StandingDevice;
  beforeEach(async () => {
    console = await openTestConsole();
    ({ siteId } = await furnish(console));
    attic = await agent('Attic box', ['programs', 'path']);
  });
  afterEach(() => console.close());

  const agent = async (name: string, can: readonly string[]) => {
    const device = await standingDevice(console, siteId, { name });
    await noteHello(
      console.context,
      { id: device.id, siteId },
      {
        ...{
          version: '0.1.0',
          protocol: AGENT_PROTOCOL,
          clockMs: console.context.wallMs(),
          outbox: 0,
          neighbours: [],
          can,
        },
        facts: { system: 'Debian', gateway: null, gatewayMs: null, resolvers: [], links: [] },
      },
    );
    return device;
  };
  const ask = (asked: LookAsked = ASKED, deviceId = attic.id) => askLook(console.context, 'Ines', deviceId, asked);
  const asked = async () => {
    const look = await ask();
    if (!look.ok) throw new Error(look.fault.code);
    return look.value.id;
  };
  const newest = async () => (await looksPageOf(console.context, siteId)).looks[0];

  it('tells the machine, and keeps what it found', async () => {
    const lookId = await asked();
    expect(attic.told.at(-1)).toEqual({ kind: 'look', lookId, asked: ASKED, login: null });
    expect(await newest()).toMatchObject({ id: lookId, outcome: null, askedBy: 'Ines', deviceName: 'Attic box' });
    expect(await takeLook(console.context, attic.cookie, lookId, { ok: true, found: FOUND })).toMatchObject({
      ok: true,
    });
    expect(await newest()).toMatchObject({ outcome: { ok: true, found: FOUND } });
  });

  it('takes the first answer, however often it comes', async () => {
    const lookId = await asked();
    await takeLook(console.context, attic.cookie, lookId, { ok: true, found: FOUND });
    const late = { ok: false, code: 'look-stopped', sentence: 'It was stopped.' } as const;
    expect(await takeLook(console.context, attic.cookie, lookId, late)).toMatchObject({ ok: true });
    expect(await newest()).toMatchObject({ outcome: { ok: true } });
  });

  it('takes an answer from nobody else, and none to another question', async () => {
    const lookId = await asked();
    const other = await agent('Shop box', ['programs']);
    const end = { ok: true, found: FOUND } as const;
    expect(await takeLook(console.context, other.cookie, lookId, end)).toMatchObject({
      fault: { code: 'look-unknown' },
    });
    expect(await takeLook(console.context, 'forged', lookId, end)).toMatchObject({ fault: { code: 'not-joined' } });
    const path = { what: 'path', target: 'x', address: null, hops: [], reached: false, mtuBytes: null } as const;
    const wrong = await takeLook(console.context, attic.cookie, lookId, { ok: true, found: path });
    expect(wrong).toMatchObject({ fault: { code: 'look-unknown' } });
    expect(await newest()).toMatchObject({ outcome: null });
  });

  it('hands a login for SNMP to the machine alone, keeps it sealed, and uses it again where none is given', async () => {
    const switcher = await agent('Cellar box', ['ports']);
    const ports = { what: 'ports', target: '192.0.2.2', seconds: 10 } as const;
    const login = { port: 161, community: 'otter pillow', user: null };
    const first = await askLook(console.context, 'Ines', switcher.id, ports, login);
    if (!first.ok) throw new Error(first.fault.code);
    expect(switcher.told.at(-1)).toMatchObject({ kind: 'look', login });
    const failed = { ok: false, code: 'snmp-silent', sentence: 'It does not answer.' } as const;
    await takeLook(console.context, switcher.cookie, first.value.id, failed);
    await askLook(console.context, 'Ines', switcher.id, ports);
    expect(switcher.told.at(-1)).toMatchObject({ kind: 'look', login });
    const shown = JSON.stringify((await looksPageOf(console.context, siteId)).looks);
    expect(shown).not.toContain('otter');
    expect(JSON.stringify(await console.context.store.keeping.setting(`snmp ${siteId} 192.0.2.2`))).not.toContain(
      'otter',
    );
  });

  it('says why it cannot: no agent, away, too old, busy', async () => {
    const browser = await standingDevice(console, siteId, { name: 'Front desk' });
    expect(await ask(ASKED, browser.id)).toMatchObject({ fault: { code: 'agent-unknown' } });
    expect(await ask({ what: 'names', resolvers: [], names: ['example.com'] })).toMatchObject({
      fault: { code: 'agent-cannot' },
    });
    await asked();
    expect(await ask()).toMatchObject({ fault: { code: 'agent-busy' } });
    await attic.session.leave();
    expect(await ask()).toMatchObject({ fault: { code: 'agent-away' } });
  });

  it('lets it measure only when it has looked, and look only when it has measured', async () => {
    const lookId = await asked();
    const round = {
      siteId,
      deviceIds: [attic.id],
      reaches: ['internet' as const],
      times: 1,
      profile: 'quick' as const,
    };
    await queueTurns(console.context, 'Ines', { ...round, together: false });
    const turns = () => attic.told.filter(({ kind }) => kind === 'asked').length;
    expect(turns()).toBe(0);
    await takeLook(console.context, attic.cookie, lookId, { ok: true, found: FOUND });
    await moveQueue(console.context);
    expect(turns()).toBe(1);
    expect(await ask()).toMatchObject({ fault: { code: 'agent-busy' } });
  });

  it('gives a look from outside the peer for it, with a ticket that the peer takes, and one that does not fill the line little of it', async () => {
    const box = await agent('Cellar box', ['outside', 'path', 'path-load']);
    const farOf = async (wanted: LookAsked) => {
      const look = await askLook(console.context, 'Ines', box.id, wanted);
      if (!look.ok) throw new Error(look.fault.code);
      const order = box.told.at(-1) as { far?: { name: string; address: string; ticket: string } };
      await takeLook(console.context, box.cookie, look.value.id, { ok: false, code: 'x', sentence: 'It ended.' });
      if (order.far === undefined) return null;
      const checked = checkTicket(
        order.far.ticket,
        [createPublicKey(console.context.signingKey)],
        console.context.wallMs(),
      );
      if (!checked.ok) throw new Error(checked.fault.code);
      return { ...order.far, limits: checked.value.limits, deviceId: checked.value.deviceId };
    };
    const [peer] = await console.context.store.sites.peersOf(siteId);
    const outside = await farOf({ what: 'outside', ports: [443] });
    expect(outside).toMatchObject({ name: peer!.name, address: peer!.address, deviceId: box.id });
    expect(outside!.limits.bytes).toBeLessThan(1e6);
    expect(await farOf({ what: 'path', target: 'peer.example' })).toBeNull();
    expect((await farOf({ what: 'path', target: 'peer.example', loaded: true }))!.limits.bytes).toBeGreaterThan(1e9);
    // One whose key has changed is not trusted with it.
    await console.context.store.sites.savePeer({ ...peer!, otherKey: 'another' });
    expect(await farOf({ what: 'outside', ports: [] })).toBeNull();
  });

  it('fills the line only when nobody measures over it, and nobody measures while it is filled', async () => {
    const filling: LookAsked = { what: 'path', target: 'peer.example', loaded: true };
    // An agent of before does not know how.
    expect(await ask(filling)).toMatchObject({ fault: { code: 'agent-cannot' } });
    const box = await agent('Cellar box', ['path', 'path-load']);
    const desk = await standingDevice(console, siteId, { name: 'Front desk' });
    const round = { siteId, deviceIds: [desk.id], reaches: ['internet' as const], times: 1, profile: 'quick' as const };
    await queueTurns(console.context, 'Ines', { ...round, together: false });
    expect(await ask(filling, box.id)).toMatchObject({
      fault: { code: 'line-taken', facts: { why: 'Front desk is measuring over the same line' } },
    });
    // Without filling it, it may look all the same.
    expect(await ask({ what: 'path', target: 'peer.example' }, box.id)).toMatchObject({ ok: true });
    await endAll();
    const look = await ask(filling, box.id);
    if (!look.ok) throw new Error(look.fault.code);
    await queueTurns(console.context, 'Ines', { ...round, together: false });
    const turns = () => desk.told.filter(({ kind }) => kind === 'asked').length;
    const before = turns();
    await moveQueue(console.context);
    expect(turns()).toBe(before);
    await takeLook(console.context, box.cookie, look.value.id, { ok: false, code: 'x', sentence: 'It ended.' });
    await moveQueue(console.context);
    expect(turns()).toBe(before + 1);

    async function endAll() {
      for (const { id, deviceId, deviceName } of await console.context.store.looks.underWay())
        if (deviceName === 'Cellar box')
          await console.context.store.looks.end(
            id,
            { ok: false, code: 'x', sentence: deviceId },
            console.context.wallMs(),
          );
      for (const turn of await console.context.store.turns.open()) await withdrawTurn(console.context, turn.id);
    }
  });

  it('is stopped at the machine; what nothing comes of is ended after five minutes, and said', async () => {
    const lookId = await asked();
    await stopLook(console.context, lookId);
    expect(attic.told.at(-1)).toEqual({ kind: 'look-withdrawn', lookId });
    console.advanceMs(4 * 60_000);
    await endLateLooks(console.context);
    expect(await newest()).toMatchObject({ outcome: null });
    console.advanceMs(2 * 60_000);
    await endLateLooks(console.context);
    expect(await newest()).toMatchObject({ outcome: { ok: false, code: 'no-answer' } });
    expect(await ask()).toMatchObject({ ok: true });
  });
});
