import { peopleOf } from '../views/people';
import { openTestConsole, type TestConsole } from '../console/console-for-tests';
import {
  addTechnician,
  changePassphrase,
  endSignIns,
  endSignInsOf,
  makeApiToken,
  passphraseToken,
  removeTechnician,
  renewPassphraseLink,
  RESET_MS,
  roleOf,
  setFirstPassphrase,
  setKeeper,
  setPassphraseByLink,
  signIn,
  signInStands,
  technicianOfLink,
  welcomeToken,
} from '.';

const DAY_MS = 24 * 3600_000;
const PLACE = { address: '192.0.2.44', browser: 'Mozilla/5.0 (X11; Linux x86_64)' };
const INES = { name: 'Ines', passphrase: 'seven quires of vellum' };
const TOM = 'four thirsty anvils here';

describe('several technicians', () => {
  let console: TestConsole;
  let ines: string;
  beforeEach(async () => {
    console = await openTestConsole();
    const set = await setFirstPassphrase(console.context, welcomeToken(console.context), INES, PLACE);
    if (!set.ok) throw new Error(set.fault.code);
    ines = set.value;
  });
  afterEach(() => console.close());

  const idOf = async (name: string) => (await peopleOf(console.context)).find((each) => each.name === name)!.id;
  const role = (cookie: string) => roleOf(console.context, { signIn: cookie, device: null, authorization: null });
  const tokenOf = ({ path }: { readonly path: string }) => path.split('/').at(-1)!;
  async function invited(name = 'Tom') {
    const link = await addTechnician(console.context, name);
    if (!link.ok) throw new Error(link.fault.code);
    return link.value;
  }
  async function tomIsIn(): Promise<string> {
    const set = await setPassphraseByLink(console.context, tokenOf(await invited()), TOM, PLACE);
    if (!set.ok) throw new Error(set.fault.code);
    return set.value;
  }
  const selfOf = async (cookie: string) => {
    const found = await role(cookie);
    if (found.kind !== 'technician' || found.person === null) throw new Error('nobody');
    return { ...found.person, address: PLACE.address };
  };

  it('come in by a link that sets a passphrase once, and are no keepers', async () => {
    const link = await invited();
    expect(await signIn(console.context, { name: 'Tom', passphrase: '' }, PLACE)).toMatchObject({ ok: false });
    expect((await technicianOfLink(console.context, tokenOf(link)))?.name).toBe('Tom');
    const set = await setPassphraseByLink(console.context, tokenOf(link), TOM, PLACE);
    expect(await role(set.ok ? set.value : '')).toMatchObject({ name: 'Tom', person: { keeper: false } });
    expect(await setPassphraseByLink(console.context, tokenOf(link), 'another one entirely', PLACE)).toMatchObject({
      fault: { code: 'passphrase-link-over' },
    });
    expect((await signIn(console.context, { name: 'tom', passphrase: TOM }, PLACE)).ok).toBe(true);
    expect((await signIn(console.context, { name: 'Tom', passphrase: INES.passphrase }, PLACE)).ok).toBe(false);
  });

  it('have names of their own, however they are written', async () => {
    expect(await addTechnician(console.context, ' INES ')).toMatchObject({ fault: { code: 'name-taken' } });
    expect(await addTechnician(console.context, 'Jürgen')).toMatchObject({ ok: true });
    expect(await addTechnician(console.context, 'JU\u0308RGEN')).toMatchObject({ fault: { code: 'name-taken' } });
  });

  it('are let in by no link that is over, forged, or of before a later one', async () => {
    const first = await invited();
    const later = await renewPassphraseLink(console.context, await idOf('Tom'));
    if (!later.ok) throw new Error(later.fault.code);
    expect(await technicianOfLink(console.context, tokenOf(first))).toBeNull();
    for (const forged of ['', 'x', 'a.b', `${tokenOf(later.value)}x`])
      expect(await technicianOfLink(console.context, forged)).toBeNull();
    console.advanceMs(DAY_MS - 1);
    expect(await technicianOfLink(console.context, tokenOf(later.value))).not.toBeNull();
    console.advanceMs(1);
    expect(await technicianOfLink(console.context, tokenOf(later.value))).toBeNull();
  });

  it('who were reset at the machine are signed out everywhere, and in where they set it', async () => {
    const elsewhere = await signIn(console.context, INES, PLACE);
    const person = (await console.context.store.access.technician(await idOf('Ines')))!;
    const token = passphraseToken(console.context, person, console.context.wallMs() + RESET_MS);
    const set = await setPassphraseByLink(console.context, token, 'a new one, quite new', PLACE);
    expect(await role(set.ok ? set.value : '')).toMatchObject({ name: 'Ines' });
    for (const old of [ines, elsewhere.ok ? elsewhere.value : ''])
      expect(await role(old)).toEqual({ kind: 'stranger' });
    expect(await technicianOfLink(console.context, token)).toBeNull();
  });

  it('change their own with the one that they have, and are signed out everywhere else', async () => {
    const elsewhere = await signIn(console.context, INES, PLACE);
    const self = await selfOf(ines);
    const change = (current: string) =>
      changePassphrase(console.context, self, { current, passphrase: 'a new one, quite new' });
    expect(await change('six quires')).toMatchObject({ fault: { code: 'passphrase-wrong' } });
    expect(await change(INES.passphrase)).toEqual({ ok: true, value: null });
    expect(await role(ines)).toMatchObject({ name: 'Ines' });
    expect(await role(elsewhere.ok ? elsewhere.value : '')).toEqual({ kind: 'stranger' });
    expect((await signIn(console.context, INES, PLACE)).ok).toBe(false);
  });

  it('who guess the one they have are made to wait, as at the door', async () => {
    const self = await selfOf(ines);
    for (let guess = 0; guess < 10; guess += 1)
      await changePassphrase(console.context, self, { current: `guess ${guess}`, passphrase: 'a new one, quite new' });
    expect(
      await changePassphrase(console.context, self, { current: INES.passphrase, passphrase: 'a new one, quite new' }),
    ).toMatchObject({ fault: { code: 'too-many-tries' } });
  });

  it('never end up without one who keeps the console, whatever they do to each other at once', async () => {
    await tomIsIn();
    const [inesId, tomId] = [await idOf('Ines'), await idOf('Tom')];
    expect(await removeTechnician(console.context, inesId)).toMatchObject({ fault: { code: 'last-keeper' } });
    expect(await setKeeper(console.context, inesId, false)).toMatchObject({ fault: { code: 'last-keeper' } });
    await setKeeper(console.context, tomId, true);
    const both = await Promise.all([
      removeTechnician(console.context, inesId),
      removeTechnician(console.context, tomId),
    ]);
    expect(both.map(({ ok }) => ok)).toEqual([true, false]);
    const again = await Promise.all([
      setKeeper(console.context, tomId, false),
      removeTechnician(console.context, tomId),
    ]);
    expect(again.every(({ ok }) => !ok)).toBe(true);
    expect((await peopleOf(console.context)).filter(({ keeper }) => keeper)).toHaveLength(1);
  });

  it('are not kept by somebody who was only invited', async () => {
    await invited();
    await setKeeper(console.context, await idOf('Tom'), true);
    expect(await removeTechnician(console.context, await idOf('Ines'))).toMatchObject({
      fault: { code: 'last-keeper' },
    });
  });

  it('who are removed are nobody at once, and their name is free', async () => {
    const tom = await tomIsIn();
    const id = await idOf('Tom');
    await removeTechnician(console.context, id);
    expect(await role(tom)).toEqual({ kind: 'stranger' });
    expect((await signIn(console.context, { name: 'Tom', passphrase: TOM }, PLACE)).ok).toBe(false);
    expect(await removeTechnician(console.context, id)).toMatchObject({ fault: { code: 'technician-unknown' } });
    expect((await addTechnician(console.context, 'Tom')).ok).toBe(true);
  });

  it('who are removed leave no token behind that they made; those of others stay', async () => {
    await tomIsIn();
    const make = async (name: string, by: string) => {
      const made = await makeApiToken(console.context, { name, scope: 'everything', days: 0 }, by);
      return made.ok ? `Bearer ${made.value}` : '';
    };
    const [his, hers] = [await make('his', 'Tom'), await make('hers', 'Ines')];
    const by = async (authorization: string) =>
      (await roleOf(console.context, { signIn: null, device: null, authorization })).kind;
    expect([await by(his), await by(hers)]).toEqual(['technician', 'technician']);
    await removeTechnician(console.context, await idOf('Tom'));
    expect([await by(his), await by(hers)]).toEqual(['stranger', 'technician']);
  });

  it('see where each is signed in, and what listens by a sign-in hears that it was ended', async () => {
    const elsewhere = await signIn(console.context, INES, { address: '192.0.2.50', browser: 'Firefox' });
    const [person] = await peopleOf(console.context);
    expect(new Set(person!.signIns.map(({ address }) => address))).toEqual(new Set(['192.0.2.44', '192.0.2.50']));
    const other = person!.signIns.find(({ address }) => address === '192.0.2.50')!;
    let heard = 0;
    const stop = console.context.endedSignIns.listen(other.id, () => (heard += 1));
    await endSignIns(console.context, [other.id]);
    expect(heard).toBe(1);
    expect(await signInStands(console.context, other.id)).toBe(false);
    expect(await role(elsewhere.ok ? elsewhere.value : '')).toEqual({ kind: 'stranger' });
    stop();
    expect(await endSignInsOf(console.context, person!.id)).toBe(1);
    expect(await role(ines)).toEqual({ kind: 'stranger' });
    expect(heard).toBe(1);
  });

  it('of before there were names: whoever has the passphrase gives it one, and nobody else does', async () => {
    const { access } = console.context.store;
    const before = (await access.technician(await idOf('Ines')))!;
    await access.saveTechnician({ ...before, name: '', nameKey: '' });
    expect((await signIn(console.context, { name: 'Mallory', passphrase: 'not it at all' }, PLACE)).ok).toBe(false);
    expect((await signIn(console.context, { name: 'Ines Maria', passphrase: INES.passphrase }, PLACE)).ok).toBe(true);
    expect((await peopleOf(console.context)).map(({ name, keeper }) => [name, keeper])).toEqual([['Ines Maria', true]]);
    expect((await signIn(console.context, { name: 'Tom', passphrase: INES.passphrase }, PLACE)).ok).toBe(false);
  });
});
