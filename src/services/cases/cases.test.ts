import { createHash, createPublicKey, verify } from 'node:crypto';
import { caseFormSchema } from '@/wire';
import { renewEndedCodes } from '../access';
import {
  furnish,
  GOOD_LINE,
  LINE_FORM,
  measured,
  openTestConsole,
  orderFor,
  type TestConsole,
} from '../console/console-for-tests';
import { putLineInUse, removeLine, saveLine, undoRemoval } from '../office';
import { leaveOutRuns, removeRuns } from '../runs';
import { refuseTurn, withdrawTurn } from '../turns';
import { casePageOf, casePdf, caseRecord, casesOf, type CasePage } from '../views';
import { caseFormFor } from './case-form-for-tests';
import { changeCase, closeCase, letMeasure, openCase, removeCase } from './cases';
import { measureCases } from './measure-cases';

const SLOW = { ...GOOD_LINE, down: { ...GOOD_LINE.down, rateBps: 250e6 } };

describe('a case', () => {
  let console: TestConsole;
  let siteId: string;
  let id: string;
  let desk: string;
  let devices = 0;

  const run = async (line = GOOD_LINE, order = {}, minutes = 10): Promise<string> => {
    console.advanceMs(minutes * 60_000);
    await renewEndedCodes(console.context);
    const { joinCode } = (await console.context.store.sites.byId(siteId))!;
    devices += 1;
    return (await measured(console, orderFor(joinCode, { deviceName: `Desk ${devices}`, ...order }), line)).runId;
  };
  const read = async (): Promise<CasePage> => {
    const page = await casePageOf(console.context, id);
    if (!page.ok) throw new Error(page.fault.code);
    return page.value;
  };
  /** In this test the outside peer is no practice line: what it measures is the real one. */
  const asReal = async () => {
    const peer = (await console.context.store.sites.peer('outside'))!;
    await console.context.store.sites.savePeer({ ...peer, practice: false });
  };

  beforeAll(async () => {
    console = await openTestConsole();
    ({ siteId } = await furnish(console));
    await asReal();
    await run();
    console.advanceMs(60_000);
    const opened = await openCase(console.context, 'Ines', {
      siteId,
      form: await caseFormFor(console.context, siteId),
    });
    if (!opened.ok) throw new Error(opened.fault.code);
    id = opened.value.id;
  });
  afterAll(() => console.close());

  it('begins when it is opened: what was measured before is no part of it', async () => {
    expect((await read()).evidence).toMatchObject({ counted: [], missingRuns: 3, complete: false });
  });

  it('takes in each run that is fit, and says of each other one why it does not count', async () => {
    await run(SLOW);
    desk = await run(SLOW);
    await run(SLOW, { deviceName: 'Tablet', link: { medium: 'wifi', band: '5', linkRateBps: 866e6 } });
    await run(SLOW, {}, 2);
    const { evidence, answer } = await read();
    expect(evidence.counted).toHaveLength(3);
    expect(evidence.refused.map(({ because }) => because.code)).toEqual(['not-by-cable']);
    expect(evidence.complete).toBe(true);
    expect(answer).toMatchObject({ complete: true, fallsShort: true });
    expect(
      answer.measures.filter(({ fallsShort }) => fallsShort).map(({ measure, direction }) => `${measure} ${direction}`),
    ).toEqual([...['usual down', 'least down', 'advertised down']]);
  });

  it('has a record that is the same bytes at the same moment, with their checksum', async () => {
    const page = await read();
    const { bytes, sha256 } = caseRecord(page);
    expect(caseRecord(page).bytes.equals(bytes)).toBe(true);
    expect(sha256).toBe(createHash('sha256').update(bytes).digest('hex'));
    const document = JSON.parse(bytes.toString()) as { counted: { down_mbps: number; receipt_of_the_peer: boolean }[] };
    expect(document.counted).toHaveLength(3);
    expect(document.counted[0]!.down_mbps / 250).toBeCloseTo(1, 1);
    expect(document.counted.every((each) => each.receipt_of_the_peer)).toBe(true);
  });

  it('holds what the far end signed, so that a stranger can check each run with what the record says', async () => {
    const document = JSON.parse(caseRecord(await read()).bytes.toString()) as {
      readonly how_to_check_a_receipt: string;
      readonly counted: readonly {
        readonly id: string;
        readonly signed_receipt: string;
        readonly key_of_the_peer: string;
      }[];
    };
    expect(document.how_to_check_a_receipt).toContain('RFC 8032');
    for (const run of document.counted) {
      const [body, signature] = run.signed_receipt.split('.');
      const key = createPublicKey({ key: { kty: 'OKP', crv: 'Ed25519', x: run.key_of_the_peer }, format: 'jwk' });
      const holds = (text: string) =>
        verify(null, Buffer.from(`bent-straw receipt 1\n${text}`), key, Buffer.from(signature!, 'base64url'));
      expect(holds(body!)).toBe(true);
      expect(holds(`${body}A`)).toBe(false);
      const counted = JSON.parse(Buffer.from(body!, 'base64url').toString()) as {
        runId: string;
        down: { bytes: number };
      };
      expect(counted.runId).toBe(run.id);
      expect(counted.down.bytes).toBeGreaterThan(1e6);
    }
  });

  it('is a PDF below a megabyte, whatever its names are made of', async () => {
    const page = await read();
    const pdf = await casePdf(
      { ...page, stored: { ...page.stored, title: 'Łódź, 東京 '.repeat(12) } },
      console.context.printFonts,
    );
    expect(pdf.subarray(0, 5).toString()).toBe('%PDF-');
    expect(pdf.length).toBeLessThan(1e6);
  });

  it('loses what a technician left out or removed, and says of the former why', async () => {
    await leaveOutRuns(console.context, { siteId, runIds: [desk], reason: 'the desk was being moved' });
    const { evidence } = await read();
    expect(evidence.counted).toHaveLength(2);
    expect(evidence.refused.map(({ because }) => because)).toContainEqual({
      code: 'left-out',
      reason: 'the desk was being moved',
    });
    expect(evidence.complete).toBe(false);
    await removeRuns(console.context, { siteId, runIds: [evidence.counted[0]!.id] });
    expect((await read()).evidence.counted).toHaveLength(1);
  });

  it('says that the plan names other figures, and keeps its own', async () => {
    expect((await read()).otherPlan).toBeNull();
    await changeCase(console.context, {
      id,
      form: await caseFormFor(console.context, siteId, { downAdvertised: '600', title: 'Other' }),
    });
    const page = await read();
    expect(page.stored).toMatchObject({
      title: 'Other',
      contract: { down: { advertisedBps: 600e6, leastBps: 300e6 } },
    });
    expect(page.otherPlan).toMatchObject({ downBps: expect.closeTo(500e6, -6) as number });
  });

  it('takes in nothing once it is closed, until it is opened again', async () => {
    await closeCase(console.context, { id, closed: true });
    await run(SLOW);
    const before = (await read()).evidence.counted.length;
    await closeCase(console.context, { id, closed: false });
    expect((await read()).evidence.counted.length).toBe(before + 1);
  });

  it('has what it misses measured by a device that stands by, by day and not twice at once', async () => {
    const { context } = console;
    const [device] = await context.store.sites.devicesOf(siteId);
    expect(await letMeasure(context, { id, deviceId: 'nobody' })).toMatchObject({ fault: { code: 'device-unknown' } });
    expect((await letMeasure(context, { id, deviceId: device!.id })).ok).toBe(true);
    await changeCase(context, { id, form: await caseFormFor(context, siteId, { runs: '90', perDay: '30' }) });
    const waiting = async () => (await context.store.turns.open()).filter(({ deviceId }) => deviceId === device!.id);
    // Nobody stands by.
    console.advanceMs(3 * 3600_000);
    await measureCases(context);
    expect(await waiting()).toEqual([]);
    const gone = context.standing.stand(device!.id, { send: () => undefined, close: () => undefined });
    await measureCases(context);
    await measureCases(context);
    expect(await waiting()).toMatchObject([
      { reach: 'internet', askedBy: expect.stringContaining('the case') as string },
    ]);
    // Not now, says whoever sits there: the case waits for its time like after a run.
    for (const { id: turnId } of await waiting()) await refuseTurn(context, device!.id, turnId);
    await measureCases(context);
    expect(await waiting()).toEqual([]);
    console.advanceMs(30 * 60_000);
    await measureCases(context);
    expect(await waiting()).toHaveLength(1);
    gone();
    for (const { id: turnId } of await waiting()) await withdrawTurn(context, turnId);
    // Just measured: the next one has time.
    await run(SLOW);
    context.standing.stand(device!.id, { send: () => undefined, close: () => undefined });
    await measureCases(context);
    expect(await waiting()).toEqual([]);
  });

  it('outlives its line, which may be put back', async () => {
    const { context } = console;
    const { lineId } = (await read()).stored;
    const other = await saveLine(context, siteId, null, { ...LINE_FORM, lineName: 'Brackwater Cable' });
    if (!other.ok) throw new Error(other.fault.code);
    await putLineInUse(context, siteId, other.value.id);
    expect(await removeLine(context, siteId, lineId)).toMatchObject({ ok: true });
    expect((await read()).line.name).toBe('a line that was removed');
    const removal = (await context.store.removals.since(siteId, 0)).find(({ kind }) => kind === 'line');
    expect(await undoRemoval(context, removal!.id)).toMatchObject({ ok: true });
    expect((await read()).line.name).toBe(LINE_FORM.lineName);
  });

  it('is listed, and gone when it is removed; what is not there is said', async () => {
    expect((await casesOf(console.context, siteId)).map(({ stored }) => stored.id)).toEqual([id]);
    expect((await removeCase(console.context, id)).ok).toBe(true);
    expect(await casesOf(console.context, siteId)).toEqual([]);
    const gone = { ok: false, fault: { code: 'case-unknown' } };
    expect(await removeCase(console.context, id)).toMatchObject(gone);
    expect(await casePageOf(console.context, id)).toMatchObject(gone);
    const form = await caseFormFor(console.context, siteId);
    expect(await openCase(console.context, 'Ines', { siteId, form: { ...form, lineId: 'none' } })).toMatchObject({
      fault: { code: 'line-unknown' },
    });
    expect(await openCase(console.context, 'Ines', { siteId: 'none', form })).toMatchObject({
      fault: { code: 'site-missing' },
    });
  });
});

describe('the form of a case', () => {
  it.each([
    ['runs', '2,5', /whole number/],
    ['days', '0', /whole number/],
    ['usualMissedPercent', '120', /at most 100/],
    ['downLeast', '-3', /more than 0/],
    ['openedFrom', 'the day after', /no such day/],
    ['title', '  ', /title/],
  ])('refuses %s of %s', (name, value, words) => {
    const typed = {
      ...{ title: 'a', lineId: 'l', runs: '3', days: '1', perDay: '3', apartMinutes: '5' },
      ...{ downAdvertised: '', downUsual: '', downLeast: '', upAdvertised: '', upUsual: '', upLeast: '' },
      ...{ usualMissedPercent: '90', leastDays: '1', advertisedPercent: '90', advertisedDays: '1' },
      [name]: value,
    };
    const parsed = caseFormSchema.safeParse(typed);
    expect(parsed.error!.issues.map(({ message, path }) => `${path.join('.')} ${message}`).join()).toMatch(words);
  });
});
