import fc from 'fast-check';
import { foldedName } from './folded-name';

describe('a name as it is searched', () => {
  it.each([
    ['Übungsraum', 'ubungsraum'],
    ['ÜBUNGSRAUM', 'übungsraum'],
    ['U\u0308bungsraum', 'Übungsraum'],
    ['Hauptstraße', 'HAUPTSTRASSE'],
    ['STRAẞE', 'Straße'],
    ['Café', 'cafe'],
    ['ＷＬＡＮ', 'wlan'],
    ['Łódź', 'łodz'],
  ])('takes %s for %s', (one, other) => expect(foldedName(one)).toBe(foldedName(other)));

  it('keeps apart what is another letter', () => {
    expect(foldedName('Press desk')).not.toBe(foldedName('Prest desk'));
    expect(foldedName('10 GE')).not.toBe(foldedName('1 GE'));
  });

  it('is the same when it is folded again, whatever letter it has', () => {
    const letters = Array.from({ length: 0x2fff }, (_, code) => String.fromCodePoint(code));
    expect(letters.filter((letter) => foldedName(foldedName(letter)) !== foldedName(letter))).toEqual([]);
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme' }), (name) => foldedName(foldedName(name)) === foldedName(name)),
    );
  });
});
