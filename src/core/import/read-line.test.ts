import { guessReading } from './guess-reading';
import type { ImportReading } from './import-reading';
import { linkAsWritten, readImportLine, type ImportClock } from './read-line';

const NOW = Date.UTC(2026, 10, 26, 12);
/** An office that lives by UTC, and whose clock leaves out the hour from two to three on the 29th of March. */
const CLOCK: ImportClock = {
  nowMs: NOW,
  atOf: ({ year, month, day, hour, minute, second, offsetMinutes }) =>
    month === 3 && day === 29 && hour === 2
      ? null
      : Date.UTC(year, month - 1, day, hour, minute, 0, 1000 * second) - 60_000 * (offsetMinutes ?? 0),
};
const reading = (headings: string, lines: readonly string[] = [], change: Partial<ImportReading> = {}) => ({
  ...guessReading(
    headings.split(';'),
    lines.map((line) => line.split(';')),
  ),
  ...change,
});
/** Headings and lines with semicolons between the cells, read as they are guessed. */
function read(headings: string, line: string, change: Partial<ImportReading> = {}) {
  return readImportLine(line.split(';'), reading(headings, [line], change), CLOCK);
}
const runOf = (...args: Parameters<typeof read>) => {
  const found = read(...args);
  if (!('run' in found)) throw new Error(JSON.stringify(found));
  return found.run;
};
const faultOf = (...args: Parameters<typeof read>) => {
  const found = read(...args);
  return 'fault' in found ? [found.fault.code, found.fault.field, found.fault.typed] : found;
};

describe('what a file means by its headings', () => {
  it.each([
    ['Download (Mbps)', 'down', 'Mb/s'],
    ['download_kbps', 'down', 'kb/s'],
    ['Upload MB/s', 'up', 'MB/s'],
    ['UPLOAD [MBPS]', 'up', 'Mb/s'],
    ['up MBytes/s', 'up', 'MB/s'],
    ['Rx bits/s', 'down', 'b/s'],
    ['Ping ms', 'idle', 'ms'],
    ['latency (s)', 'idle', 's'],
    ['Packet loss %', 'loss', '%'],
    ['addedUp', 'addedUp', 'ms'],
    ['added_down_ms', 'addedDown', 'ms'],
    ['Host name', 'device', null],
    ['started_at', 'started', null],
  ])('%s', (heading, field, unit) => {
    expect(reading(heading).columns).toEqual([{ field, unit }]);
  });

  it('takes nothing twice, and passes over what it does not know', () => {
    const { columns } = reading('Date;Time;Download;Download;Weather;plan_down_mbps');
    expect(columns.map((column) => column?.field ?? null)).toEqual(['started', 'time', 'down', null, null, null]);
  });

  it('tells the order of days and the decimal sign by what only one of them can be', () => {
    expect(reading('Date;Down', ['25.11.2026;93,85'])).toMatchObject({ dates: 'day-month-year', decimals: 'comma' });
    expect(reading('Date;Down', ['11/25/2026;93.85'])).toMatchObject({ dates: 'month-day-year', decimals: 'point' });
    expect(reading('Date;Down', ['25.11.2026;93,85', '25.11.2026;1.2 Gb/s', '25.11.2026;1,5']).decimals).toBe('comma');
    // One that is none of either does not decide.
    expect(reading('Date;Down', ['04/05/2026;1', 'soon;1', '04/25/2026;1']).dates).toBe('month-day-year');
    expect(reading('Date;Down', ['2026-11-25;1,500'])).toMatchObject({ dates: 'year-month-day', decimals: 'point' });
  });
});

describe('a line of a file', () => {
  it('is a run, with rates in bits per second, delays in ms and loss as a share', () => {
    const run = runOf(
      'Date;Time;Device;Link;Download (Mbps);Upload (kbps);Ping (s);Jitter ms;Loss %;Added down;Added up;Tags;Notes',
      '25.11.2026;14:03:10;Press desk;Ethernet;93,85;12.500;0,012;1,5;0,5;20;227;evening, rain;"after the swap"',
    );
    expect(run).toMatchObject({
      ...{ startedAtMs: Date.UTC(2026, 10, 25, 14, 3, 10), device: 'Press desk', link: 'wired', reach: 'internet' },
      ...{ downBps: 93.85e6, upBps: 12.5e6, idleMs: 12, jitterMs: 1.5, lossShare: 0.005 },
      ...{ addedDownMs: 20, addedUpMs: 227, addedMs: 227, tags: ['evening', 'rain'] },
    });
  });

  it('takes the unit that a cell names before the one of its column', () => {
    expect(runOf('Date;Device;Down', '2026-11-25;A;1.2 Gbit/s').downBps).toBe(1.2e9);
    expect(runOf('Date;Device;Down', '2026-11-25;A;12 MB/s').downBps).toBe(96e6);
    expect(faultOf('Date;Device;Down', '2026-11-25;A;12 apples')).toEqual(['figure-unreadable', 'down', '12 apples']);
  });

  it('reads thousands as people part them, and nothing else', () => {
    const down = (text: string, decimals: 'point' | 'comma') =>
      read('Date;Device;Down', `2026-11-25;A;${text}`, { decimals });
    expect(down('1,234.5', 'point')).toMatchObject({ run: { downBps: 1234.5e6 } });
    expect(down('1.234,5', 'comma')).toMatchObject({ run: { downBps: 1234.5e6 } });
    expect(down("1'234.5", 'point')).toMatchObject({ run: { downBps: 1234.5e6 } });
    expect(down('1 234,5', 'comma')).toMatchObject({ run: { downBps: 1234.5e6 } });
    for (const [text, decimals] of [
      ['93,85', 'point'],
      ['93.85', 'comma'],
      ['1,2,3', 'point'],
      ['1.2.3', 'point'],
      ['12e', 'point'],
      ['fast', 'point'],
    ] as const)
      expect(down(text, decimals)).toMatchObject({ fault: { code: 'figure-unreadable' } });
  });

  it.each([
    ['2026-11-25T14:03:10Z', Date.UTC(2026, 10, 25, 14, 3, 10)],
    ['2026-11-25T14:03:10.250+01:00', Date.UTC(2026, 10, 25, 13, 3, 10, 250)],
    ['2026-11-25 14:03', Date.UTC(2026, 10, 25, 14, 3)],
    ['25 Nov 2026 2:03 PM', Date.UTC(2026, 10, 25, 14, 3)],
    ['Nov 25, 2026 12:00 am', Date.UTC(2026, 10, 25)],
    ['25/11/26 14:03', Date.UTC(2026, 10, 25, 14, 3)],
    ['1795615390', 1795615390_000],
    ['1795615390123', 1795615390_123],
  ])('was when it says: %s', (text, atMs) => {
    expect(runOf('When;Device;Down', `${text};A;1`, { dates: 'day-month-year' }).startedAtMs).toBe(atMs);
  });

  it('is refused with what is wrong, and what was typed', () => {
    const of = 'When;Device;Link;Down;Ended';
    expect(faultOf(of, ';A;;1;')).toEqual(['moment-missing', 'started', '']);
    expect(faultOf(of, '31.11.2026;A;;1;')).toEqual(['moment-unreadable', 'started', '31.11.2026']);
    expect(faultOf(of, 'soon;A;;1;')).toEqual(['moment-unreadable', 'started', 'soon']);
    expect(faultOf(of, '2026-11-25 25:00;A;;1;')).toEqual(['moment-unreadable', 'started', '2026-11-25 25:00']);
    expect(faultOf(of, '2026-03-29 02:30;A;;1;')).toEqual(['moment-skipped', 'started', '2026-03-29 02:30']);
    expect(faultOf(of, '2027-11-25;A;;1;')).toEqual(['moment-ahead', 'started', '2027-11-25']);
    expect(faultOf(of, '2026-11-25;A;;1;2026-11-24')).toEqual(['ends-before', 'ended', '']);
    expect(faultOf(of, '2026-11-25;;;1;')).toEqual(['device-missing', 'device', '']);
    expect(faultOf(of, '2026-11-25;A;string;1;')).toEqual(['choice-unknown', 'link', 'string']);
    expect(faultOf(of, '2026-11-25;A;;-5;')).toEqual(['figure-impossible', 'down', '-5']);
    expect(faultOf('When;Device;Loss', '2026-11-25;A;250')).toEqual(['figure-impossible', 'loss', '250']);
    expect(faultOf(of, `2026-11-25;${'A'.repeat(121)};;1;`)).toEqual(['name-long', 'device', 'A'.repeat(60)]);
  });

  it('is no run without a figure, and never one of 0 where nothing was measured', () => {
    expect(read('When;Device;Down;Up', '2026-11-25;A;n/a;–')).toEqual({ without: 'figures' });
    expect(runOf('When;Device;Down;Up;Ping', '2026-11-25;A;0;;-')).toMatchObject({
      downBps: 0,
      upBps: null,
      idleMs: null,
    });
  });

  it('takes what holds for all lines where it says nothing itself', () => {
    const otherwise = { device: 'Attic box', link: 'wired', reach: 'local' } as const;
    expect(runOf('When;Device;Down', '2026-11-25;;1', { otherwise })).toMatchObject({
      ...{ device: 'Attic box', link: 'wired', reach: 'local' },
    });
  });

  it('keeps a delay that was a little less under load, and refuses less than nothing elsewhere', () => {
    expect(runOf('When;Device;Down;Added up', '2026-11-25;A;1;-0.3')).toMatchObject({ addedUpMs: -0.3, addedMs: -0.3 });
    expect(faultOf('When;Device;Ping', '2026-11-25;A;-3')).toEqual(['figure-impossible', 'idle', '-3']);
  });

  it('gives back what our own files led by an apostrophe', () => {
    expect(runOf('When;Device;Down', "2026-11-25;'=SUM(A1);1").device).toBe('=SUM(A1)');
    expect(runOf('When;Device;Down', "2026-11-25;'t Hoekje;1").device).toBe("'t Hoekje");
  });

  it('knows links by what people call them', () => {
    expect(['LAN', 'cable', '5 GHz', 'wifi 2,4', 'WLAN', 'wifi-6', 'VPN', 'pigeon'].map(linkAsWritten)).toEqual([
      ...['wired', 'wired', 'wifi-5', 'wifi-2.4', 'wifi', 'wifi-6', 'tunnel', null],
    ]);
  });
});
