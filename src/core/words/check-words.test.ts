import { othersHeardWords } from './check-words';

const words = (count: number, names: readonly string[] = [], fresh = 0) => othersHeardWords({ count, names, fresh });

test('who else was heard is told as one would say it', () => {
  expect(words(0)).toBe('Nobody else was heard on this network in the last quarter of an hour.');
  expect(words(1)).toBe('One other was heard on this network in the last quarter of an hour.');
  expect(words(1, ['printer'], 1)).toBe(
    'One other was heard on this network in the last quarter of an hour: printer; it is new here.',
  );
  expect(words(2, ['printer', 'till'])).toBe(
    '2 others were heard on this network in the last quarter of an hour: printer, till.',
  );
  expect(words(3, ['till'], 1)).toMatch(/^3 others were .* hour, among them till; one of them is new here\.$/);
  expect(words(9, ['a', 'b', 'c', 'd', 'e', 'f', 'g', 'h', 'i'], 4)).toMatch(
    /^9 others were .* hour, among them a, b, c, d; 4 of them are new here\.$/,
  );
  expect(words(2, [], 2)).toMatch(/hour; all of them are new here\.$/);
});
