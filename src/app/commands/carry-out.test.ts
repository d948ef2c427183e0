import {
  deviceForm,
  furnish,
  LINE_FORM,
  openTestConsole,
  type TestConsole,
} from '@/services/console/console-for-tests';
import { AUDIT_CODES, auditPageOf, CHANGED_THINGS, type ChangedThing } from '@/services';
import { planFormSchema, TOKEN_SCOPES } from '@/wire';
import { ACCESS_COMMANDS } from './access-commands';
import { carryOut, mayDo } from './carry-out';
import type { Actor, Command } from './command';
import { OFFICE_COMMANDS } from './office-commands';
import { RUN_COMMANDS } from './run-commands';

const ADDRESS = '192.0.2.44';
const INES: Actor = {
  ...{ kind: 'technician', name: 'Ines', scope: 'everything', address: ADDRESS },
  person: { id: 'ines', signInId: 'here', keeper: true },
};
const TOM: Actor = { ...INES, name: 'Tom', person: { id: 'tom', signInId: 'there', keeper: false } };
const script = (scope: Actor['scope']): Actor => ({ ...INES, name: `a script that may ${scope}`, scope, person: null });

/** All commands, as far as they are alike. */
const ALL: Readonly<Record<string, Command<never, never>>> = {
  ...(OFFICE_COMMANDS as object),
  ...(RUN_COMMANDS as object),
  ...(ACCESS_COMMANDS as object),
};

describe('carrying a command out', () => {
  let console: TestConsole;
  let siteId: string;
  beforeEach(async () => {
    console = await openTestConsole();
    ({ siteId } = await furnish(console));
  });
  afterEach(() => console.close());

  const does = <Input, Value>(actor: Actor, command: Command<Input, Value>, input: Input) =>
    carryOut(command, { context: console.context, actor, input });
  const happened = async () => (await auditPageOf(console.context, { beforeId: null, who: null, whats: null })).entries;

  it('writes down who did what to what, from where, with what changed before and after', async () => {
    const [line] = await console.context.store.sites.linesOf(siteId);
    const [plan] = await console.context.store.sites.plansOf(line!.id);
    const form = planFormSchema.parse({
      downMbps: '300',
      upMbps: '100',
      leastDownMbps: '300',
      leastUpMbps: '',
      basis: 'payload',
      fullFromPercent: '90',
    });
    console.advanceMs(5000);
    const corrected = await does(INES, OFFICE_COMMANDS.correctPlan, {
      siteId,
      lineId: line!.id,
      planId: plan!.id,
      form,
    });
    expect(corrected.ok).toBe(true);
    expect(await happened()).toEqual([
      {
        id: expect.any(Number),
        ...{ atMs: console.context.wallMs(), who: 'Ines', whoKind: 'technician', address: ADDRESS },
        ...{ what: 'plan-corrected', siteId, subject: 'Tarnfell Fibre 500/100' },
        ...{ before: { downBps: 500e6 }, after: { downBps: 300e6 } },
      },
    ]);
  });

  it('writes down what is new without a before, and what is gone without an after', async () => {
    const saved = await does(TOM, OFFICE_COMMANDS.saveDevice, { siteId, deviceId: null, form: deviceForm() });
    if (!saved.ok) throw new Error(saved.fault.code);
    await does(script('everything'), OFFICE_COMMANDS.removeDevice, { deviceId: saved.value.id });
    const [removed, added] = await happened();
    expect(added).toMatchObject({ who: 'Tom', what: 'device-saved', before: null, after: { name: 'Press desk' } });
    expect(removed).toMatchObject({ whoKind: 'script', what: 'device-removed', after: null, subject: 'Press desk' });
    expect(removed!.before).toMatchObject({ name: 'Press desk', spot: 'Workshop' });
  });

  it('writes nothing down of what was refused, and tells nobody', async () => {
    const told: ChangedThing[] = [];
    console.context.changes.listen((what) => told.push(...what));
    const form = { ...LINE_FORM, shown: 'what was there before' };
    const [line] = await console.context.store.sites.linesOf(siteId);
    const refused = await does(INES, OFFICE_COMMANDS.saveLine, { siteId, lineId: line!.id, form });
    expect(refused).toMatchObject({ fault: { code: 'changed-meanwhile' } });
    expect(await happened()).toEqual([]);
    expect(told).toEqual([]);
  });

  it('writes nothing down of what was not there', async () => {
    for (const id of ['nobody', ''])
      expect((await does(INES, OFFICE_COMMANDS.removeDevice, { deviceId: id })).ok).toBe(true);
    expect((await does(script('measure'), RUN_COMMANDS.withdrawTurn, { turnId: 'none' })).ok).toBe(true);
    expect(await happened()).toEqual([]);
  });

  it('tells boards what has changed', async () => {
    const told: ChangedThing[] = [];
    console.context.changes.listen((what) => told.push(...what));
    await does(INES, OFFICE_COMMANDS.saveOffice, { siteId, name: 'Larkspur Bindery, upstairs' });
    expect(told).toEqual(['office']);
  });

  it('keeps hostile names as they are, only not without end', async () => {
    const hostile = `<img src=x onerror=alert(1)> \u202e'; DROP TABLE audit; -- ${'x'.repeat(5000)}`;
    await does(INES, OFFICE_COMMANDS.saveOffice, { siteId, name: hostile });
    const [entry] = await happened();
    expect(entry!.subject.startsWith("<img src=x onerror=alert(1)> \u202e'; DROP TABLE audit; --")).toBe(true);
    expect(entry!.subject.length).toBeLessThan(320);
  });

  it('lets a script do what its token is for, on every command, and nothing that is for people', async () => {
    for (const [name, command] of Object.entries(ALL)) {
      const { scope } = command;
      for (const [index, has] of TOKEN_SCOPES.entries()) {
        const allowed = mayDo(script(has), scope).ok;
        const wanted = scope === 'keeper' || scope === 'person' ? false : index >= TOKEN_SCOPES.indexOf(scope);
        expect([name, has, allowed]).toEqual([name, has, wanted]);
      }
      expect([name, mayDo(INES, scope).ok]).toEqual([name, true]);
      expect([name, mayDo(TOM, scope).ok]).toEqual([name, scope !== 'keeper']);
    }
    expect(await does(script('read'), OFFICE_COMMANDS.removeOffice, { siteId })).toMatchObject({
      fault: { code: 'token-scope', facts: { scope: 'read', wanted: 'everything' } },
    });
    expect(await console.context.store.sites.byId(siteId)).not.toBeNull();
  });

  it('has a code, and says what it changes, for every command', () => {
    for (const { audited, changes } of Object.values(ALL)) {
      expect(AUDIT_CODES).toContain(audited);
      for (const each of changes) expect(CHANGED_THINGS).toContain(each);
    }
  });

  it('lets nobody but who keeps the console end what others are signed in with', async () => {
    const { access } = console.context.store;
    const person = (id: string, keeper: boolean) => ({
      ...{ id, name: id, nameKey: id, hash: 'x', keeper, addedAtMs: 0, setAtMs: 0 },
    });
    for (const each of [person('ines', true), person('tom', false)]) await access.saveTechnician(each);
    const nowMs = console.context.wallMs();
    for (const id of ['here', 'there'])
      await access.addSignIn({
        ...{ id, technicianId: id === 'here' ? 'ines' : 'tom', address: null, browser: null },
        ...{ createdAtMs: nowMs, seenAtMs: nowMs },
      });
    expect(await does(TOM, ACCESS_COMMANDS.endSignIn, { signInId: 'here' })).toMatchObject({
      fault: { code: 'keeper-only' },
    });
    expect(await does(TOM, ACCESS_COMMANDS.endSignInsOf, { technicianId: 'ines' })).toMatchObject({ ok: false });
    expect(await does(INES, ACCESS_COMMANDS.endSignIn, { signInId: 'there' })).toMatchObject({ ok: true });
    expect((await happened())[0]).toMatchObject({ what: 'sign-in-ended', subject: 'tom' });
    expect(await does(INES, ACCESS_COMMANDS.endSignIn, { signInId: 'there' })).toMatchObject({
      fault: { code: 'technician-unknown' },
    });
  });
});

describe('what happened', () => {
  let console: TestConsole;
  beforeEach(async () => {
    console = await openTestConsole();
  });
  afterEach(() => console.close());

  const add = (what: string, who = 'Ines') =>
    console.context.store.audit.add({
      ...{ atMs: console.context.wallMs(), who, whoKind: 'technician', address: null },
      ...{ what, siteId: null, subject: '', before: null, after: null },
    });

  it('is read page by page without a gap or a repeat, also while more happens', async () => {
    for (let entry = 0; entry < 120; entry += 1) await add('signed-in');
    const seen: number[] = [];
    let beforeId: number | null = null;
    do {
      const page = await auditPageOf(console.context, { beforeId, who: null, whats: null });
      seen.push(...page.entries.map(({ id }) => id));
      beforeId = page.nextBeforeId;
      await add('signed-out');
    } while (beforeId !== null);
    expect(seen).toEqual(Array.from({ length: 120 }, (_, index) => 120 - index));
  });

  it('is narrowed to somebody, and to a kind of thing', async () => {
    await add('signed-in');
    await add('plan-corrected', 'Tom');
    await add('plan-removed');
    const of = async (who: string | null, whats: readonly string[] | null) =>
      (await auditPageOf(console.context, { beforeId: null, who, whats })).entries.map(({ what }) => what);
    expect(await of('Tom', null)).toEqual(['plan-corrected']);
    expect(await of(null, ['plan-corrected', 'plan-removed'])).toEqual(['plan-removed', 'plan-corrected']);
    expect(await of('Tom', ['plan-removed'])).toEqual([]);
  });

  it('is forgotten after its time, and never holds more than so much', async () => {
    for (let entry = 0; entry < 10; entry += 1) await add('signed-in');
    console.advanceMs(1000);
    await add('signed-out');
    const { audit } = console.context.store;
    await audit.forget(0, 5);
    expect((await audit.page({}, 50)).map(({ what }) => what)).toEqual(['signed-out', ...Array(4).fill('signed-in')]);
    await audit.forget(console.context.wallMs(), 5);
    expect((await audit.page({}, 50)).map(({ what }) => what)).toEqual(['signed-out']);
  });
});
