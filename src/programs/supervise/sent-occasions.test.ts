import { seededRandom } from '@/core';
import { KeptOccasions, SentOccasions } from './sent-occasions';

interface Numbered {
  readonly of: number;
  readonly path?: readonly string[];
}

/** Sends a list to the other side, across whose border everything is copied; returns how it arrives and how many went. */
function sent(
  here: SentOccasions<Numbered>,
  there: KeptOccasions<Numbered>,
  office: string,
  list: readonly Numbered[],
): { readonly arrived: Numbered[]; readonly went: number } {
  let went = 0;
  const numbered = here.send(office, list, (parcel) => {
    went += parcel.numbers.length;
    there.take(structuredClone(parcel));
  });
  return { arrived: there.whole(structuredClone(numbered)), went };
}

describe('a list that goes to a thread again and again', () => {
  it('sends each member once, and arrives whole and in order, for each office on its own', () => {
    const random = seededRandom(4);
    const [here, there] = [new SentOccasions<Numbered>(), new KeptOccasions<Numbered>()];
    const lists = new Map<string, Numbered[]>();
    let [made, all] = [0, 0];
    for (let time = 0; time < 300; time += 1) {
      const office = random() < 0.5 ? 'shop' : 'attic';
      const list = (lists.get(office) ?? []).filter(() => random() < 0.95);
      const added = Array.from({ length: Math.floor(random() * 4) }, () => ({ of: (made += 1) }));
      list.splice(Math.floor(random() * list.length), 0, ...added);
      lists.set(office, list);
      const { arrived, went } = sent(here, there, office, list);
      all += went;
      expect(arrived).toEqual(list);
    }
    expect(all).toBe(made);
  });

  it('is sent once more where it was missing for a while', () => {
    const [here, there] = [new SentOccasions<Numbered>(), new KeptOccasions<Numbered>()];
    const member = { of: 1 };
    for (const list of [[member], [], [member]]) expect(sent(here, there, 'shop', list).arrived).toEqual(list);
  });

  it('goes in parcels where it is long, and arrives as one', () => {
    const [here, there] = [new SentOccasions<Numbered>(), new KeptOccasions<Numbered>()];
    const long = Array.from({ length: 3500 }, (_, of) => ({ of }));
    const parcels: number[] = [];
    const numbered = here.send('shop', long, (parcel) => {
      parcels.push(parcel.numbers.length);
      there.take(parcel);
    });
    expect(parcels).toEqual([1000, 1000, 1000, 500]);
    expect(there.whole(numbered)).toEqual(long);
  });

  it('shares there the paths that are shared here', () => {
    const [here, there] = [new SentOccasions<Numbered>(), new KeptOccasions<Numbered>()];
    const path = ['device:desk', 'cable:desk'];
    const [one, other, third] = sent(here, there, 'shop', [
      { of: 1, path },
      { of: 2, path },
      { of: 3, path: [] },
    ]).arrived;
    expect(other!.path).toBe(one!.path);
    expect(other!.path).toEqual(path);
    expect(third!.path).toEqual([]);
  });
});
