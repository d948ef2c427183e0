import { NO_SAMPLES } from '@/core';
import {
  cookieFor,
  openTestConsole,
  furnish,
  STRANGER,
  orderFor,
  startRun,
  finished,
  type TestConsole,
} from '../console/console-for-tests';
import { handInRun } from '../runs/hand-in-run';
import { joinPageOf } from '../views/join-page';
import { hashPassphrase, provesPassphrase } from './passphrase';
import {
  makeApiToken,
  maySeeRun,
  renewEndedCodes,
  renewJoinCode,
  revokeApiToken,
  roleOf,
  setFirstPassphrase,
  signIn,
  signOut,
  welcomeToken,
} from '.';
import { TryLimit } from '../console/try-limit';

const REPORT = { name: 'weekly report', scope: 'read', days: 90 } as const;
const HOUR_MS = 3600_000;
const CREDENTIALS = { name: 'Ines', passphrase: 'seven quires of vellum' };
const ADDRESS = '192.0.2.44';
const PLACE = { address: ADDRESS, browser: 'a test' };
const ELSEWHERE = { address: '192.0.2.45', browser: null };

describe('a passphrase', () => {
  it('is proven by itself alone, however the letters were composed', async () => {
    const hash = await hashPassphrase('Müller’s gluepot');
    expect(hash).not.toContain('gluepot');
    expect(await provesPassphrase('Müller’s gluepot', hash)).toBe(true);
    expect(await provesPassphrase('Müller’s gluepot', hash)).toBe(true);
    expect(await provesPassphrase('müller’s gluepot', hash)).toBe(false);
  });

  it('never has the same hash twice, and a hash that cannot be read proves nothing', async () => {
    const [one, two] = await Promise.all([hashPassphrase('the same'), hashPassphrase('the same')]);
    expect(one).not.toBe(two);
    expect(await provesPassphrase('the same', 'nonsense')).toBe(false);
  });
});

describe('the limit of wrong tries', () => {
  it('lets ten through, then makes the address wait out five minutes, and nobody else', () => {
    const tries = new TryLimit();
    for (let attempt = 0; attempt < 10; attempt += 1) {
      expect(tries.waitSeconds(ADDRESS, attempt * 1000)).toBe(0);
      tries.failed(ADDRESS, attempt * 1000);
    }
    expect(tries.waitSeconds(ADDRESS, 10_000)).toBe(290);
    expect(tries.waitSeconds('192.0.2.45', 10_000)).toBe(0);
    expect(tries.waitSeconds(ADDRESS, 300_000)).toBe(0);
  });
});

describe('who may do what', () => {
  let console: TestConsole;
  let code: string;
  let siteId: string;
  beforeEach(async () => {
    console = await openTestConsole();
    ({ code, siteId } = await furnish(console));
  });
  afterEach(() => console.close());

  const setUp = async () => {
    const set = await setFirstPassphrase(console.context, welcomeToken(console.context), CREDENTIALS, PLACE);
    if (!set.ok) throw new Error(set.fault.code);
    return set.value;
  };
  const role = (signInCookie: string | null, device: string | null = null) =>
    roleOf(console.context, { signIn: signInCookie, device, authorization: null });

  it('lets the first-start link set one passphrase, once, and nobody without the link', async () => {
    expect(await setFirstPassphrase(console.context, 'guessed', CREDENTIALS, PLACE)).toMatchObject({
      fault: { code: 'welcome-over' },
    });
    expect(await role(await setUp())).toMatchObject({ kind: 'technician', name: 'Ines', person: { keeper: true } });
    const again = await setFirstPassphrase(console.context, welcomeToken(console.context), CREDENTIALS, PLACE);
    expect(again).toMatchObject({ fault: { code: 'welcome-over' } });
  });

  it('signs in with the passphrase alone, and out again at once', async () => {
    expect(await signIn(console.context, CREDENTIALS, PLACE)).toMatchObject({
      fault: { code: 'passphrase-missing' },
    });
    await setUp();
    const wrong = await signIn(console.context, { ...CREDENTIALS, passphrase: 'six quires' }, PLACE);
    expect(wrong).toMatchObject({ fault: { code: 'passphrase-wrong' } });
    const nobody = await signIn(console.context, { ...CREDENTIALS, name: 'Tom' }, PLACE);
    expect(nobody).toMatchObject({ fault: { code: 'passphrase-wrong' } });
    const token = await signIn(console.context, { ...CREDENTIALS, name: ' INES ' }, PLACE);
    if (!token.ok) throw new Error(token.fault.code);
    expect(await role(token.value)).toMatchObject({ kind: 'technician', name: 'Ines' });
    await signOut(console.context, token.value, ADDRESS);
    expect(await role(token.value)).toEqual({ kind: 'stranger' });
  });

  it('makes whoever guesses wait, even with the right passphrase at last', async () => {
    await setUp();
    for (let guess = 0; guess < 10; guess += 1)
      await signIn(console.context, { ...CREDENTIALS, passphrase: `guess ${guess}` }, PLACE);
    expect(await signIn(console.context, CREDENTIALS, PLACE)).toMatchObject({
      fault: { code: 'too-many-tries', facts: { seconds: 300 } },
    });
    expect((await signIn(console.context, CREDENTIALS, ELSEWHERE)).ok).toBe(true);
  });

  it('ends a sign-in after twelve hours without use, and after two weeks in any case', async () => {
    const token = await setUp();
    for (let day = 0; day < 27; day += 1) {
      console.advanceMs(12 * HOUR_MS);
      expect(await role(token)).toMatchObject({ kind: 'technician' });
    }
    console.advanceMs(12 * HOUR_MS + 1);
    expect(await role(token)).toEqual({ kind: 'stranger' });
    const idle = await signIn(console.context, CREDENTIALS, PLACE);
    if (!idle.ok) throw new Error(idle.fault.code);
    console.advanceMs(12 * HOUR_MS + 1);
    expect(await role(idle.value)).toEqual({ kind: 'stranger' });
  });

  it('keeps sign-ins through a restart, and takes nothing forged', async () => {
    const token = await setUp();
    await console.reopen();
    expect(await role(token)).toMatchObject({ kind: 'technician' });
    expect(await role(`${token}x`)).toEqual({ kind: 'stranger' });
    for (const forged of ['device-1.forged', 'device-1.0.forged', 'device-1.x.y', '...'])
      expect(await role(null, forged)).toEqual({ kind: 'stranger' });
  });

  it('lets a script in by its token alone, notes that it was used, and keeps it out once it is revoked', async () => {
    const made = await makeApiToken(console.context, REPORT, 'Ines');
    if (!made.ok) throw new Error(made.fault.code);
    const by = (authorization: string | null) => roleOf(console.context, { signIn: null, device: null, authorization });
    expect(await by(`Bearer ${made.value}`)).toEqual({
      kind: 'technician',
      name: 'weekly report',
      scope: 'read',
      person: null,
    });
    for (const other of [null, 'Bearer', made.value, `Bearer ${made.value.slice(0, -1)}`, `Basic ${made.value}`])
      expect(await by(other)).toEqual({ kind: 'stranger' });
    expect(await makeApiToken(console.context, REPORT, 'Ines')).toMatchObject({ fault: { code: 'name-taken' } });
    const [stored] = await console.context.store.access.apiTokens();
    expect(stored).toMatchObject({ name: 'weekly report', usedAtMs: console.context.wallMs() });
    expect(stored!.id).not.toContain(made.value);
    await revokeApiToken(console.context, stored!.id);
    expect(await by(`Bearer ${made.value}`)).toEqual({ kind: 'stranger' });
  });

  it('ends a code after a day or when it is renewed; devices that have joined stay', async () => {
    const visitor = { ...STRANGER, code };
    const started = await startRun(console.context, visitor, orderFor(code), 'http://192.0.2.20:4870');
    if (!started.ok) throw new Error(started.fault.code);
    const cookie = await cookieFor(console, started.value.deviceId);
    console.advanceMs(24 * HOUR_MS + 1);
    expect(await joinPageOf(console.context, visitor)).toMatchObject({ fault: { code: 'code-ended' } });
    await renewEndedCodes(console.context);
    const fresh = (await console.context.store.sites.byId(siteId))!.joinCode;
    expect(fresh).not.toBe(code);
    expect((await joinPageOf(console.context, { ...STRANGER, code: fresh })).ok).toBe(true);
    await renewJoinCode(console.context, siteId);
    expect(await joinPageOf(console.context, { ...STRANGER, code: fresh })).toMatchObject({
      fault: { code: 'code-unknown' },
    });
    expect(await joinPageOf(console.context, { ...STRANGER, cookie })).toMatchObject({ ok: true });
  });

  it('makes whoever guesses codes wait, even for the right one', async () => {
    for (let guess = 0; guess < 10; guess += 1)
      await joinPageOf(console.context, { ...STRANGER, code: `GUESS${guess}` });
    expect(await joinPageOf(console.context, { ...STRANGER, code })).toMatchObject({
      fault: { code: 'too-many-tries' },
    });
    expect((await joinPageOf(console.context, { ...STRANGER, address: '198.51.100.77', code })).ok).toBe(true);
  });

  it('lets a device that joined run as itself and see its own results, and nothing else', async () => {
    const one = await startRun(console.context, { ...STRANGER, code }, orderFor(code), 'http://192.0.2.20:4870');
    if (!one.ok) throw new Error(one.fault.code);
    await handInRun(console.context, one.value.runId, one.value.runKey, finished(NO_SAMPLES));
    const two = await startRun(
      console.context,
      { ...STRANGER, code },
      orderFor(code, { deviceName: 'Accounts laptop' }),
      'http://192.0.2.20:4870',
    );
    if (!two.ok) throw new Error(two.fault.code);
    await handInRun(console.context, two.value.runId, two.value.runKey, finished(NO_SAMPLES));
    const cookie = await cookieFor(console, one.value.deviceId);
    const own = await role(null, cookie);
    expect(own).toMatchObject({ kind: 'device' });
    expect(maySeeRun(own, { deviceId: one.value.deviceId })).toBe(true);
    expect(maySeeRun(own, { deviceId: two.value.deviceId })).toBe(false);
    const asOther = orderFor(null, { deviceId: two.value.deviceId, deviceName: null });
    expect(await startRun(console.context, { ...STRANGER, cookie }, asOther, 'http://192.0.2.20:4870')).toMatchObject({
      fault: { code: 'device-not-yours' },
    });
    const asItself = orderFor(null, { deviceId: one.value.deviceId, deviceName: null });
    expect((await startRun(console.context, { ...STRANGER, cookie }, asItself, 'http://192.0.2.20:4870')).ok).toBe(
      true,
    );
  });
});
