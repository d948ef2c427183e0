import { seededRandom } from '@/core';
import { KeptOccasions, SentOccasions } from './sent-occasions';

describe('a list that goes to a thread again and again', () => {
  it('sends each member once, and arrives whole and in order, for each office on its own', () => {
    const random = seededRandom(4);
    const [here, there] = [new SentOccasions<{ of: number }>(), new KeptOccasions<{ of: number }>()];
    const lists = new Map<string, { of: number }[]>();
    let [made, sent] = [0, 0];
    for (let time = 0; time < 300; time += 1) {
      const office = random() < 0.5 ? 'shop' : 'attic';
      const list = (lists.get(office) ?? []).filter(() => random() < 0.95);
      const added = Array.from({ length: Math.floor(random() * 4) }, () => ({ of: (made += 1) }));
      list.splice(Math.floor(random() * list.length), 0, ...added);
      lists.set(office, list);
      // Across the border of a thread, everything is copied.
      const errand = structuredClone(here.errand(office, list));
      sent += errand.fresh.length;
      expect(there.whole(errand)).toEqual(list);
    }
    expect(sent).toBe(made);
  });

  it('is sent once more where it was missing for a while', () => {
    const [here, there] = [new SentOccasions<{ of: number }>(), new KeptOccasions<{ of: number }>()];
    const member = { of: 1 };
    for (const list of [[member], [], [member]]) expect(there.whole(here.errand('shop', list))).toEqual(list);
  });
});
