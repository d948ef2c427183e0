import { fairnessWords, sideSentences, differenceWords } from '../../words/side-words';
import { seededRandom } from '../../stats/seeded-random';
import { normal } from '../../stats/normal';
import { medianInterval } from './median-interval';
import { sideBySide } from './side-by-side';
import type { SideRun, Tray } from './side-run';

const TRAITS: SideRun['traits'] = {
  ...{ link: 'wired', reach: 'internet', device: 'Press desk', peer: 'Hilltop', line: 'Tarnfell', plan: '500/100' },
  ...{ practice: 'no', spot: 'Workshop', profile: 'standard', told: '', hours: 'working hours', weekdays: 'weekdays' },
  method: '7',
};
let made = 0;
/** So many occasions of one run each about a rate, Mb/s; the upload adds so much. */
function runsAbout(
  mbps: number,
  occasions: number,
  {
    traits = {},
    addedUp = 20,
    noise = 0.01,
  }: { traits?: Partial<SideRun['traits']>; addedUp?: number; noise?: number } = {},
): SideRun[] {
  const random = seededRandom(mbps + occasions);
  return Array.from({ length: occasions }, (_, index) => {
    made += 1;
    const rate = mbps * 1e6 * (1 + noise * normal(random));
    return {
      ...{ id: `r${made}`, occasion: `o${made}`, startedAtMs: index },
      figures: {
        ...{
          down: rate,
          up: rate / 5,
          idle: 12 + 0.2 * normal(random),
          addedDown: 3,
          addedUp: addedUp + normal(random),
        },
        ...{ jitter: 0.4, loss: null },
      },
      traits: { ...TRAITS, ...traits },
    };
  });
}
const tray = (name: string, runs: SideRun[]): Tray => ({ name, runs });
const figureOf = (trays: Tray[], quantity: 'down' | 'addedUp') =>
  sideBySide(trays).figures.find((each) => each.quantity === quantity)!;

describe('two trays side by side', () => {
  it('are told in one sentence with size, interval, witnesses, and delay', () => {
    const trays = [
      tray('the cable', runsAbout(486, 6)),
      tray('5 GHz', runsAbout(296, 6, { traits: { link: '5 GHz' } })),
    ];
    const side = sideBySide(trays);
    expect(side.fairness).toBe('fair');
    expect(fairnessWords(side)).toBe('Fair: only the link differs.');
    expect(sideSentences(side, trays)).toEqual([
      expect.stringMatching(
        /^5 GHz gives 61 % of the cable (down|up) \((60|61) to 6[12] %\), real, 6 occasions each; delay under load is the same within 5 ms\.$/,
      ) as string,
    ]);
  });

  it('say what got better: a queue that is shallower', () => {
    const trays = [
      tray('before', runsAbout(150, 5, { addedUp: 240 })),
      tray('after', runsAbout(150, 7, { addedUp: 18 })),
    ];
    const [sentence] = sideSentences(sideBySide(trays), trays);
    expect(sentence).toMatch(
      /^After gives as much as before (down|up), within 5 %: 5 and 7 occasions; the upload adds 22\d ms less \(22\d to 22\d\)\.$/,
    );
    expect(figureOf(trays, 'addedUp').against[0]).toMatchObject({ status: 'told', real: true, matters: 'yes' });
  });

  it('of three against three is never called real, and says how many more would tell', () => {
    const trays = [tray('A', runsAbout(486, 3)), tray('B', runsAbout(100, 3))];
    const { against } = figureOf(trays, 'down');
    expect(against[0]).toMatchObject({ status: 'too-few', moreWanted: 2 });
    expect(differenceWords('down', against[0]!)).toBe('too few to tell: 2 more runs would let it be told');
    expect(sideSentences(sideBySide(trays), trays)[0]).toMatch(
      /^A and B cannot be told apart down with 3 and 3 runs: 2 more would let them be[.;]/,
    );
  });

  it('that are the same group are a repeat, the same within 5 %, and not real', () => {
    const runs = runsAbout(486, 8);
    const trays = [tray('A', runs), tray('B again', runs)];
    const side = sideBySide(trays);
    expect([side.fairness, fairnessWords(side)]).toEqual([
      'repeat',
      'Nothing that is written down differs but the time: a repeat.',
    ]);
    expect(figureOf(trays, 'down').against[0]).toMatchObject({ real: false, matters: 'no', shift: 1 });
  });

  it('are drawn as dots, of very many a part of all of them; what is counted and how far they reach is of all', () => {
    const many = runsAbout(486, 5000);
    const [few, all] = figureOf([tray('few', runsAbout(200, 7)), tray('all', many)], 'down').trays;
    expect([few!.count, few!.dots.length]).toEqual([7, 7]);
    const rates = many.map(({ figures }) => figures.down!);
    expect(all).toMatchObject({ count: 5000, least: Math.min(...rates), most: Math.max(...rates) });
    expect(all!.dots.length).toBeGreaterThan(200);
    expect(all!.dots.length).toBeLessThanOrEqual(400);
    const rateOf = new Map(many.map(({ id, figures }) => [id, figures.down]));
    for (const { id, value } of all!.dots) expect(value).toBe(rateOf.get(id));
    // From the first to nearly the last: no end of the time is left out.
    const places = all!.dots.map(({ id }) => many.findIndex((run) => run.id === id));
    expect(places[0]).toBe(0);
    expect(places.at(-1)).toBeGreaterThan(4950);
  });

  it('with nothing in one of them, or nothing measured, say so and invent no figure', () => {
    const trays = [tray('A', runsAbout(486, 4)), tray('nobody', [])];
    expect(figureOf(trays, 'down').against).toEqual([null]);
    expect(figureOf(trays, 'down').trays[1]).toMatchObject({
      median: null,
      interval: null,
      count: 0,
      least: null,
      dots: [],
    });
    expect(sideSentences(sideBySide(trays), trays)).toEqual([
      'No run that counts is in tray nobody: there is nothing to hold against the rest.',
    ]);
    expect(fairnessWords(sideBySide(trays))).toBe('');
    expect(differenceWords('down', null)).toBe('not measured in both');
  });
});

describe('whether a comparison is fair', () => {
  const wired = runsAbout(486, 4);
  const other = (traits: Partial<SideRun['traits']>) => runsAbout(300, 4, { traits });

  it('names what differs, that which moves figures most first, and what would make it fair', () => {
    const mixed = [...other({ link: '5 GHz', peer: 'Elsewhere' }), ...other({ link: '5 GHz' })];
    const side = sideBySide([tray('A', wired), tray('B', mixed)]);
    expect(side.differences.map(({ trait }) => trait)).toEqual(['link', 'peer']);
    expect(side.fairness).toBe('unfair');
    expect(side.fairBy).toContainEqual({ keep: 'link', runs: [4, 4] });
    expect(fairnessWords(side)).toBe(
      'Not fair: link and peer differ, and nobody knows which of them it was. Taking only runs that are alike in the rest leaves 4 and 4, with the link alone different.',
    );
    const hopeless = sideBySide([tray('A', wired), tray('B', other({ link: '5 GHz', peer: 'Elsewhere' }))]);
    expect(fairnessWords(hopeless)).toMatch(/run both under the same conditions\.$/);
  });

  it('takes hours as alike where both have some in common, and as different where none', () => {
    const both = [...wired, ...other({ hours: 'evening' })];
    expect(sideBySide([tray('A', wired), tray('B', both)]).differences).toEqual([]);
    const evening = sideBySide([tray('A', wired), tray('B', other({ hours: 'evening' }))]);
    expect(evening.differences).toEqual([{ trait: 'hours', values: [['working hours'], ['evening']] }]);
  });
});

describe('more than two trays', () => {
  it('are each held against the first, and chance is shared among them', () => {
    // Holm: of ten trays of the same noise, one is called different in at most 6.5 of 100.
    const random = seededRandom(9);
    let wrong = 0;
    for (let draw = 0; draw < 200; draw += 1) {
      const trays = Array.from({ length: 6 }, (_, place) =>
        tray(
          `T${place}`,
          Array.from({ length: 5 }, (__, index): SideRun => {
            const down = 1e8 * (1 + 0.05 * normal(random));
            const figures = { down, up: null, idle: null, addedDown: null, addedUp: null, jitter: null, loss: null };
            return { id: `${place}-${index}`, occasion: `${place}-${index}`, startedAtMs: 0, figures, traits: TRAITS };
          }),
        ),
      );
      if (figureOf(trays, 'down').against.some((each) => each?.status === 'told' && each.real)) wrong += 1;
    }
    expect(wrong / 200).toBeLessThanOrEqual(0.065);
  });
});

describe('the interval of a median', () => {
  it('is that of the sign test: of ten values the second and the ninth, of five none', () => {
    expect(medianInterval([3, 1, 2, 4, 5, 6, 7, 8, 9, 10])).toEqual({ low: 2, high: 9 });
    expect(medianInterval([1, 2, 3, 4, 5, 6])).toEqual({ low: 1, high: 6 });
    expect(medianInterval([1, 2, 3, 4, 5])).toBeNull();
    expect(medianInterval([])).toBeNull();
  });

  it.each([7, 20, 300])('holds the median in 95 of 100 draws of %s', (size) => {
    const random = seededRandom(size);
    let held = 0;
    for (let draw = 0; draw < 1000; draw += 1) {
      const { low, high } = medianInterval(Array.from({ length: size }, () => Math.exp(normal(random))))!;
      if (low <= 1 && high >= 1) held += 1;
    }
    expect(held / 1000).toBeGreaterThanOrEqual(0.935);
  });
});
