import { queryFaultWords } from './query-fault-words';
import { LEDGER_FIELD_NAMES, LEDGER_FIELDS } from './ledger-field';
import { completionsAt } from './ledger-completion';
import { readLedgerQuery, type DayReading } from './ledger-query';

const DAY = 24 * 3600_000;
const NOON = Date.UTC(2026, 10, 25, 12);
const DAYS: DayReading = {
  nowMs: NOON,
  startOf: (typed) => {
    const [, day, month, year] = /^(\d+)\.(\d+)\.(\d+)$/.exec(typed) ?? [];
    return day === undefined ? null : Date.UTC(Number(year), Number(month) - 1, Number(day));
  },
  dayAfter: (startMs) => startMs + DAY,
  offsets: [{ untilMs: null, minutes: 60 }],
};
const termsOf = (text: string) => readLedgerQuery(text, DAYS).terms;
const faultsOf = (text: string) => readLedgerQuery(text, DAYS).faults.map(queryFaultWords);

describe('what is typed into the field of the ledger', () => {
  it('is words, names in quotes, and choices any of which will do', () => {
    expect(termsOf('press "scan room" verdict=starved,none link=2.4,wired')).toEqual([
      { is: 'words', text: 'press', not: false },
      { is: 'words', text: 'scan room', not: false },
      { is: 'choice', field: 'verdict', values: ['starved', 'no verdict'], not: false },
      { is: 'choice', field: 'link', values: ['wifi-2.4', 'wired'], not: false },
    ]);
    expect(termsOf('device="press desk",Scan')).toEqual([
      { is: 'text', field: 'device', texts: ['press desk', 'Scan'], not: false },
    ]);
  });

  it('is turned round by a minus or an exclamation mark, and back again by both', () => {
    expect(termsOf('-intercom reach!=local -reach!=tunnel').map(({ not }) => not)).toEqual([true, true, false]);
    // A minus that stands alone, or in a name, is a letter like others.
    expect(termsOf('- front-counter')).toEqual([
      { is: 'words', text: '-', not: false },
      { is: 'words', text: 'front-counter', not: false },
    ]);
  });

  it('holds figures against limits in Mb/s and ms, with a decimal point or comma', () => {
    const figure = (text: string) => {
      const [term] = termsOf(text);
      return term?.is === 'figure' ? [term.low, term.high, term.withEnds] : term;
    };
    expect(figure('down<100')).toEqual([null, 100e6, false]);
    expect(figure('up>=2,5')).toEqual([2.5e6, null, true]);
    expect(figure('added=75..200')).toEqual([75, 200, true]);
    // Typed as it is shown, it finds what is shown so.
    expect(figure('down=93.8')).toEqual([expect.closeTo(93.75e6, 0), expect.closeTo(93.85e6, 0), true]);
    expect(figure('idle=12')).toEqual([11.5, 12.5, true]);
  });

  it('reads days and spans', () => {
    const start = Date.UTC(2026, 10, 12);
    expect(termsOf('on=12.11.2026 from=12.11.2026 until=12.11.2026 last=7d')).toEqual([
      { is: 'time', fromMs: start, untilMs: start + DAY, not: false },
      { is: 'time', fromMs: start, untilMs: null, not: false },
      { is: 'time', fromMs: null, untilMs: start + DAY, not: false },
      { is: 'time', fromMs: NOON - 7 * DAY, untilMs: null, not: false },
    ]);
  });

  it('reads hours of the day, through midnight too', () => {
    const hours = (text: string) => {
      const [term] = termsOf(text);
      return term?.is === 'hours' ? [term.from, term.until] : term;
    };
    expect(hours('hour=19..22')).toEqual([19, 22]);
    expect(hours('hour=9')).toEqual([9, 10]);
    expect(hours('hour=22..06:00')).toEqual([22, 6]);
    expect(hours('hour=17..24')).toEqual([17, 0]);
  });

  it('says of what means nothing what would, and holds to the rest', () => {
    const { terms } = readLedgerQuery('colour=red down<100', DAYS);
    expect(terms).toHaveLength(1);
    expect(faultsOf('colour=red')[0]).toMatch(
      /^“colour=red” was left out: there is nothing of that name\. Type one of device, /,
    );
    expect(faultsOf('verdict=good')[0]).toContain('verdict is full, capped, thin, starved or none.');
    expect(faultsOf('down<fast')[0]).toContain('it is no figure in Mb/s. Type down<100, down=75..200.');
    expect(faultsOf('verdict<thin')[0]).toContain('only figures are larger or smaller. Type verdict=…');
    expect(faultsOf('on=31')[0]).toContain('it is no day.');
    for (const text of ['hour=25', 'hour=7..7', 'hour=evening', 'hour=19-22'])
      expect(faultsOf(text)[0]).toContain('it is no hour of the day. Type hour=19..22, hour=22..6, hour=9.');
    expect(faultsOf('last=soon')[0]).toContain('Type last=24h, last=7d, last=4w.');
    expect(faultsOf('note=')[0]).toContain('it says nothing behind note.');
    expect(faultsOf('down=1..2..3 down<5..6')).toHaveLength(2);
  });

  it('takes whatever is typed, or stands in an address, without an error', () => {
    for (const text of [
      '',
      '   ',
      '"',
      '"""',
      'a"b c"d',
      '=',
      'x=',
      '-',
      '--',
      '%',
      "'; DROP",
      'device="',
      'down=..',
      'é=ü',
      '\u202eabc',
    ])
      expect(() => readLedgerQuery(text, DAYS)).not.toThrow();
    expect(termsOf('device="half a quote')).toEqual([
      { is: 'text', field: 'device', texts: ['half a quote'], not: false },
    ]);
  });
});

describe('what the word at the caret may become', () => {
  const known = {
    ...{ device: ['Press desk', 'Scan room workstation', 'Bench'], spot: ['Glue room'], peer: [], line: [], note: [] },
    tag: ['evening'],
  };
  const at = (text: string, caret = text.length) => completionsAt(text, caret, known);
  /** The text once the first option was taken. */
  const taken = (text: string, caret = text.length) => {
    const { from, to, options } = at(text, caret);
    return text.slice(0, from) + options[0]!.text + text.slice(to);
  };

  it('is a field, with what it is about', () => {
    expect(at('ver').options).toEqual([{ text: 'verdict=', about: LEDGER_FIELDS.verdict.about }]);
    expect(taken('press -ver')).toBe('press -verdict=');
    expect(at('').options).toHaveLength(LEDGER_FIELD_NAMES.length);
    expect(taken('dow')).toBe('down<');
  });

  it('is a value, quoted where it has a space; the one that begins so stands first', () => {
    expect(taken('device=pre')).toBe('device="Press desk"');
    expect(at('device=e').options.map(({ text }) => text)).toEqual(
      ['"Press desk"', '"Scan room workstation"', 'Bench'].filter((each) => each.includes('e')),
    );
    expect(taken('verdict=thin,st')).toBe('verdict=thin,starved');
    expect(taken('spot=gl and', 7)).toBe('spot="Glue room" and');
    expect(taken('tag=')).toBe('tag=evening');
  });

  it('is nothing where nothing fits, and never breaks what was typed', () => {
    expect(at('device=xyz').options).toEqual([]);
    expect(at('nosuch=a').options).toEqual([]);
    for (const text of ['', 'a b', 'device="Pr', '"', 'verdict=thin,'])
      for (let caret = 0; caret <= text.length; caret += 1) {
        const { from, to } = at(text, caret);
        expect(from).toBeLessThanOrEqual(caret);
        expect(to).toBeGreaterThanOrEqual(caret);
      }
  });
});
