import { generateKeyPairSync } from 'node:crypto';
import type { RecipientForm } from '@/wire';
import { AGENT_PROTOCOL } from '@/wire';
import {
  furnish,
  GOOD_LINE,
  measured,
  openTestConsole,
  orderFor,
  type TestConsole,
} from '../console/console-for-tests';
import { seal, unseal } from '../console/sealed';
import type { MailServer, Message, Senders, WebhookMessage } from '../console/senders';
import { renewEndedCodes } from '../access';
import { joinAgent, noteHello } from '../agents';
import { standingDevice } from '../turns/standing-for-tests';
import { STRANGER } from '../console/console-for-tests';
import {
  addRecipient,
  alarmRulesOf,
  deliverDue,
  mailServerOf,
  pauseRecipient,
  removeRecipient,
  saveAlarmRules,
  saveMailServer,
  sumUpWeeks,
  toldPageOf,
  tryRecipient,
  watchAlarms,
} from '.';

const MINUTE_MS = 60_000;
const HOUR_MS = 60 * MINUTE_MS;
const SERVER: MailServer = {
  ...{ host: 'mail.quill.example', port: 587, security: 'starttls', user: 'straw', password: 'gather the quires' },
  from: 'straw@quill.example',
};
const SLOW = { ...GOOD_LINE, down: { ...GOOD_LINE.down, rateBps: 210e6 } };

describe('being told', () => {
  let console: TestConsole;
  let siteId: string;
  let code: string;
  let mails: (Message & { readonly to: string })[];
  let hooks: (WebhookMessage & { readonly url: string })[];
  let trouble: string | null;
  let ran = 0;
  const senders: Senders = {
    mail: (_, to, message) => {
      if (trouble !== null) return Promise.reject(new Error(trouble));
      mails.push({ ...message, to });
      return Promise.resolve();
    },
    webhook: ({ url }, message) => {
      if (trouble !== null) return Promise.reject(new Error(trouble));
      hooks.push({ ...message, url });
      return Promise.resolve();
    },
  };
  const context = () => ({ ...console.context, senders });

  beforeEach(async () => {
    // Tuesday, 24 November 2026, 9:00 UTC.
    console = await openTestConsole();
    ({ siteId, code } = await furnish(console));
    [mails, hooks, trouble] = [[], [], null];
    await saveMailServer(console.context, SERVER);
  });
  afterEach(() => console.close());

  const told = async (change: Partial<RecipientForm> = {}, of: string | null = siteId) => {
    const form: RecipientForm = {
      ...{ kind: 'mail', target: 'ines@quill.example', quiet: null, digest: false, allowPrivate: false },
      ...change,
    };
    const made = await addRecipient(console.context, 'Ines', { ...form, siteId: of });
    if (!made.ok) throw new Error(made.fault.code);
    return made.value;
  };
  const look = async (afterMs = MINUTE_MS) => {
    console.advanceMs(afterMs);
    await watchAlarms(context());
    await deliverDue(context());
  };
  /** An agent that joined and stands by. */
  const agent = async () => {
    const hello = {
      ...{ version: '0.1.0', protocol: AGENT_PROTOCOL, clockMs: console.context.wallMs(), outbox: 0 },
      neighbours: [],
      can: [],
      facts: { system: 'Debian', gateway: null, gatewayMs: null, resolvers: [], links: [] },
    };
    const link = { medium: 'wired', negotiatedBps: 1e9, mtuBytes: 1500 } as const;
    const visitor = { ...STRANGER, code, cookie: null };
    const joined = await joinAgent(console.context, visitor, { code, name: 'Attic box', spotName: '', link, hello });
    if (!joined.ok) throw new Error(joined.fault.code);
    return standingDevice(console, siteId, { id: joined.value.deviceId });
  };
  const run = async (line = GOOD_LINE) => {
    console.advanceMs(31 * MINUTE_MS);
    await renewEndedCodes(console.context);
    const { joinCode } = (await console.context.store.sites.byId(siteId))!;
    ran += 1;
    return measured(console, orderFor(joinCode, { deviceName: `Desk ${ran}` }), line);
  };

  it('is told once when something begins, and once when it is over', async () => {
    await told();
    const { session, id } = await agent();
    await look();
    await session.leave();
    for (let minute = 0; minute < 40; minute += 1) await look();
    expect(mails.map(({ subject }) => subject)).toEqual([
      expect.stringMatching(/^Larkspur Bindery: Attic box has been silent since 24 Nov, /),
    ]);
    await standingDevice(console, siteId, { id });
    await look();
    await look();
    expect(mails.map(({ text }) => text)[1]).toBe('Attic box is heard again.');
    expect(mails).toHaveLength(2);
    expect(mails[0]).toMatchObject({ to: 'ines@quill.example' });
  });

  it('is told once though two look at the same moment', async () => {
    await told();
    const { session } = await agent();
    await session.leave();
    console.advanceMs(20 * MINUTE_MS);
    const same = context();
    await Promise.all([
      watchAlarms(same),
      saveAlarmRules(same, siteId, await alarmRulesOf(same, siteId)),
      watchAlarms(same),
    ]);
    await deliverDue(same);
    expect(mails).toHaveLength(1);
  });

  it('says that a plan was not met, and that it is met again', async () => {
    await told();
    await saveAlarmRules(console.context, siteId, {
      ...(await alarmRulesOf(console.context, siteId)),
      findings: false,
      levelShifts: false,
    });
    for (let set = 0; set < 3; set += 1) await run(SLOW);
    await look();
    await run();
    await look();
    expect(mails.map(({ text }) => text)).toEqual([
      'Tarnfell Fibre 500/100: the plan was not met in the last 3 occasions.',
      'Tarnfell Fibre 500/100: the plan is met again.',
    ]);
  });

  it('does not take an agent for silent that had no time to come back since the console was off', async () => {
    await told();
    const { session, id } = await agent();
    await session.leave();
    console.advanceMs(8 * HOUR_MS);
    await console.reopen();
    await look();
    expect(mails).toEqual([]);
    await standingDevice(console, siteId, { id });
    await look(20 * MINUTE_MS);
    expect(mails).toEqual([]);
  });

  it('waits for the morning where it is quiet, and says nothing of what was over by then', async () => {
    // Now it is 9:00 UTC at an office that has chosen no zone of its own; tests run in UTC or elsewhere, so all day is quiet.
    const wall = new Date(console.context.wallMs());
    const minute = wall.getHours() * 60 + wall.getMinutes();
    await told({ quiet: { fromMinute: (minute + 1430) % 1440, untilMinute: (minute + 120) % 1440 } });
    const { session, id } = await agent();
    await session.leave();
    await look(20 * MINUTE_MS);
    expect(mails).toEqual([]);
    await standingDevice(console, siteId, { id });
    await look();
    await look(3 * HOUR_MS);
    expect(mails).toEqual([]);
    const page = await toldPageOf(console.context, siteId);
    expect(page.ok && page.value.recipients[0]!.deliveries.map(({ state }) => state)).toEqual(['dropped']);
    // What goes on is told when the morning comes.
    await session.leave();
    const again = await standingDevice(console, siteId, { id });
    await again.session.leave();
    await look(20 * MINUTE_MS);
    expect(mails).toHaveLength(1);
  });

  it('tries again what did not arrive, later each time, says what stood in the way, and gives up in the end', async () => {
    const { id } = await told();
    await tryRecipient(console.context, id);
    trouble = 'the mailbox is full';
    const states: string[] = [];
    for (let hour = 0; hour < 40; hour += 1) {
      await look(HOUR_MS);
      const page = await toldPageOf(console.context, siteId);
      if (page.ok)
        states.push(
          `${page.value.recipients[0]!.deliveries[0]!.state} ${page.value.recipients[0]!.deliveries[0]!.tries}`,
        );
    }
    expect(states[0]).toBe('waits 1');
    expect(states.at(-1)).toBe('failed 8');
    const page = await toldPageOf(console.context, siteId);
    expect(page.ok && page.value.recipients[0]!.deliveries[0]).toMatchObject({ trouble: 'the mailbox is full' });
  });

  it('arrives once where the first try failed and the second did not', async () => {
    const { id } = await told();
    await tryRecipient(console.context, id);
    trouble = 'away';
    await look();
    trouble = null;
    for (let time = 0; time < 5; time += 1) await look(10 * MINUTE_MS);
    expect(mails).toHaveLength(1);
  });

  it('says so when no mail server is named, and sends once one is', async () => {
    await saveMailServer(console.context, { ...SERVER, host: '' });
    expect(await mailServerOf(console.context)).toBeNull();
    const { id } = await told();
    await tryRecipient(console.context, id);
    await look();
    const page = await toldPageOf(console.context, siteId);
    expect(page.ok && page.value.recipients[0]!.deliveries[0]!.trouble).toContain('no mail server is named');
    await saveMailServer(console.context, SERVER);
    await look(HOUR_MS);
    expect(mails).toHaveLength(1);
  });

  it('tells a program with what it needs to sort it, and shows its secret once', async () => {
    const made = await told({ kind: 'webhook', target: 'https://hooks.quill.example/straw' });
    expect(made.secret).toMatch(/^[\w-]{32}$/);
    const { session } = await agent();
    await session.leave();
    await look(20 * MINUTE_MS);
    expect(hooks).toMatchObject([
      { url: 'https://hooks.quill.example/straw', phase: 'began', office: 'Larkspur Bindery', kind: 'agent-silent' },
    ]);
    const stored = await console.context.store.alarms.recipient(made.id);
    expect(JSON.stringify(stored)).not.toContain(made.secret!);
  });

  it('tells who is of all offices, nobody who is paused or of another, and nobody twice', async () => {
    const other = await told({ target: 'all@quill.example' }, null);
    const paused = await told({ target: 'later@quill.example' });
    await pauseRecipient(console.context, paused.id, true);
    const { session } = await agent();
    await session.leave();
    await look(20 * MINUTE_MS);
    expect(mails.map(({ to }) => to)).toEqual(['all@quill.example']);
    expect(await removeRecipient(console.context, other.id)).toMatchObject({ ok: true });
    expect(await removeRecipient(console.context, other.id)).toMatchObject({ fault: { code: 'recipient-unknown' } });
    expect(await tryRecipient(console.context, 'none')).toMatchObject({ fault: { code: 'recipient-unknown' } });
  });

  it('sums the week up on Monday, once, with what fell', async () => {
    await told({ digest: true });
    for (let set = 0; set < 4; set += 1) await run();
    console.advanceMs(7 * 24 * HOUR_MS);
    for (let set = 0; set < 4; set += 1) await run(SLOW);
    mails = [];
    // From the Tuesday to the Monday after.
    console.advanceMs(6 * 24 * HOUR_MS);
    await sumUpWeeks(context());
    await sumUpWeeks(context());
    await deliverDue(context());
    expect(mails).toHaveLength(1);
    expect(mails[0]!.subject).toBe('Larkspur Bindery: the week');
    expect(mails[0]!.text).toContain('Tarnfell Fibre 500/100: the download fell by 57 %.');
    expect(mails[0]!.text).toContain('met its plan in 0 % of the runs that could tell');
  });

  it('keeps the password of the mail server sealed, and as it is where none is typed', async () => {
    const stored = JSON.stringify(await console.context.store.keeping.setting('mail-server'));
    expect(stored).not.toContain('quires');
    await saveMailServer(console.context, { ...SERVER, port: 25, password: null });
    expect(await mailServerOf(console.context)).toEqual({ ...SERVER, port: 25 });
  });

  it('goes with its office', async () => {
    await told();
    const { session, id } = await agent();
    const device = (await console.context.store.sites.device(id))!;
    await noteHello(console.context, device, {
      ...{ version: '0.1.0', protocol: 1, clockMs: 0, outbox: 0, neighbours: [], can: [] },
      facts: { system: '', gateway: null, gatewayMs: null, resolvers: [], links: [] },
    });
    await session.leave();
    await look(20 * MINUTE_MS);
    const { removeOffice } = await import('../office');
    await removeOffice(console.context, siteId);
    await look();
    expect(mails.filter(({ text }) => text.includes('heard again'))).toEqual([]);
  });
});

describe('a secret that is sealed', () => {
  const key = () => generateKeyPairSync('ed25519').privateKey;
  it('is read with its own key, each time sealed otherwise, and not when it was changed', () => {
    const own = key();
    const sealed = seal(own, 'gather the quires');
    expect(unseal(own, sealed)).toBe('gather the quires');
    expect(seal(own, 'gather the quires')).not.toBe(sealed);
    expect(unseal(key(), sealed)).toBeNull();
    expect(unseal(own, `${sealed.slice(0, -2)}AA`)).toBeNull();
    expect(unseal(own, 'short')).toBeNull();
  });
});
