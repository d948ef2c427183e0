import { nextStep, sideAt, type AlternationState, type Side } from './alternation';

/** Everything from the first step to the last, with obedient hands. */
function played(times: number, byHand: boolean): string {
  let state: AlternationState = { times, byHand, runs: [[], []], readyFor: null };
  let story = '';
  for (let step = nextStep(state); step.kind !== 'done'; step = nextStep(state)) {
    const { side } = step;
    story += step.kind === 'hands' ? 'ab'[side] : 'AB'[side];
    if (step.kind === 'hands') state = { ...state, readyFor: side };
    else
      state = {
        ...state,
        runs: [0, 1].map((each) => (each === side ? [...state.runs[each], 'run'] : state.runs[each as Side])) as never,
      };
  }
  return story;
}

describe('turn and turn about', () => {
  it('alternates by itself, and asks for hands only where something has to be changed', () => {
    expect(played(3, false)).toBe('ABABAB');
    expect(played(4, true)).toBe('aAbBBaAAbBBaA');
    expect(played(1, true)).toBe('aAbB');
  });

  it('weighs a line that drifts steadily on both sides alike, by hand after each two turns', () => {
    for (const times of [2, 4, 6, 10]) {
      const places = Array.from({ length: 2 * times }, (_, place) => place);
      const mean = (side: Side, byHand: boolean) =>
        places.filter((place) => sideAt(place, byHand) === side).reduce((sum, place) => sum + place, 0) / times;
      expect(mean(1, true)).toBe(mean(0, true));
      // One after the other it would be as many places as there are turns.
      expect(mean(1, false) - mean(0, false)).toBe(1);
    }
  });

  it('has as many of each', () => {
    for (let times = 1; times < 12; times += 1)
      for (const byHand of [false, true]) {
        const story = played(times, byHand);
        expect([story.split('A').length - 1, story.split('B').length - 1]).toEqual([times, times]);
      }
  });
});
