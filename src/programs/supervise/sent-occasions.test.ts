import { seededRandom } from '@/core';
import { KeptOccasions, SentOccasions } from './sent-occasions';

interface Numbered {
  readonly of: number;
  readonly path?: readonly string[];
}

describe('a list that goes to a thread again and again', () => {
  it('sends each member once, and arrives whole and in order, for each office on its own', () => {
    const random = seededRandom(4);
    const [here, there] = [new SentOccasions<Numbered>(), new KeptOccasions<Numbered>()];
    const lists = new Map<string, Numbered[]>();
    let [made, sent] = [0, 0];
    for (let time = 0; time < 300; time += 1) {
      const office = random() < 0.5 ? 'shop' : 'attic';
      const list = (lists.get(office) ?? []).filter(() => random() < 0.95);
      const added = Array.from({ length: Math.floor(random() * 4) }, () => ({ of: (made += 1) }));
      list.splice(Math.floor(random() * list.length), 0, ...added);
      lists.set(office, list);
      // Across the border of a thread, everything is copied.
      const errand = structuredClone(here.errand(office, list));
      sent += errand.freshNumbers.length;
      expect(there.whole(errand)).toEqual(list);
    }
    expect(sent).toBe(made);
  });

  it('is sent once more where it was missing for a while', () => {
    const [here, there] = [new SentOccasions<Numbered>(), new KeptOccasions<Numbered>()];
    const member = { of: 1 };
    for (const list of [[member], [], [member]]) expect(there.whole(here.errand('shop', list))).toEqual(list);
  });

  it('shares there the paths that are shared here', () => {
    const [here, there] = [new SentOccasions<Numbered>(), new KeptOccasions<Numbered>()];
    const path = ['device:desk', 'cable:desk'];
    const [one, other, third] = there.whole(
      here.errand('shop', [
        { of: 1, path },
        { of: 2, path },
        { of: 3, path: [] },
      ]),
    );
    expect(other!.path).toBe(one!.path);
    expect(other!.path).toEqual(path);
    expect(third!.path).toEqual([]);
  });
});
