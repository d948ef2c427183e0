import fc from 'fast-check';
import { lossWays, type LossWay, type NumberedRequest } from './loss-ways';

/** What became of a request: answered, lost on one of its ways, or answered twice because it was doubled on one of them. */
type Fate = 'answered' | LossWay | 'doubled-there' | 'doubled-back';

/** A reflector that counts its answers from 0, as RFC 8762 §4.3 has it. */
function reflected(fates: readonly Fate[], firstKey = 1_048_576): NumberedRequest[] {
  let next = 0;
  return fates.map((fate, place) => {
    const key = firstKey + place;
    if (fate === 'there') return { key, reflected: [] };
    const own = next++;
    if (fate === 'back') return { key, reflected: [] };
    // Doubled there it is answered twice, with a number each; doubled back the same answer comes twice.
    return { key, reflected: fate === 'doubled-there' ? [own, next++] : fate === 'doubled-back' ? [own, own] : [own] };
  });
}

const count = (ways: ReadonlyMap<number, LossWay>, way: LossWay) =>
  [...ways.values()].filter((each) => each === way).length;

describe('on which way a packet was lost', () => {
  it('is told by the numbers of the answers around it', () => {
    const ways = lossWays(reflected(['answered', 'there', 'answered', 'back', 'answered']));
    expect([...ways]).toEqual([
      [1_048_577, 'there'],
      [1_048_579, 'back'],
    ]);
  });

  it('is counted right whatever is lost or doubled where, between the first and the last answer', () => {
    const fate = fc.constantFrom<Fate>('answered', 'answered', 'there', 'back', 'doubled-there', 'doubled-back');
    fc.assert(
      fc.property(fc.array(fate, { maxLength: 80 }), (between) => {
        const fates: Fate[] = ['answered', ...between, 'answered'];
        const ways = lossWays(reflected(fates));
        for (const way of ['there', 'back'] as const)
          expect(count(ways, way)).toBe(fates.filter((each) => each === way).length);
      }),
    );
  });

  it('is not known before the first answer and after the last one', () => {
    expect(lossWays(reflected(['there', 'back', 'answered', 'there', 'back'])).size).toBe(0);
  });

  it('is not known where the far end only copies the sender’s number', () => {
    const copied = reflected(['answered', 'there', 'answered', 'back', 'answered']).map(
      ({ key, reflected: numbers }) => ({
        ...{ key, reflected: numbers.length === 0 ? [] : [key] },
      }),
    );
    expect(lossWays(copied).size).toBe(0);
  });

  it('is not known where the far end began anew, nor where requests are missing in what was written down', () => {
    const [first, lost, last] = reflected(['answered', 'there', 'answered']);
    expect(lossWays([{ ...first!, reflected: [500] }, lost!, { ...last!, reflected: [0] }]).size).toBe(0);
    expect(lossWays([first!, lost!, { ...last!, key: last!.key + 5 }]).size).toBe(0);
  });

  it('is not known where numbers leap that nobody could have used, and takes no time for it', () => {
    const [first, lost, last] = reflected(['answered', 'there', 'answered']);
    expect(lossWays([first!, lost!, { ...last!, reflected: [4e9] }]).size).toBe(0);
  });
});
