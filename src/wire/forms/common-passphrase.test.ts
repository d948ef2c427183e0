import fc from 'fast-check';
import { isCommonPassphrase } from './common-passphrase';

describe('a common passphrase', () => {
  it.each([
    'password1234',
    'Password 1234!',
    'passwordpassword',
    '123456789012',
    '098765432109',
    'abcdefghijkl',
    'aaaaaaaaaaaa',
    'ababababab12',
    'correct horse battery staple',
    '!!!Welcome2026',
    '31415926535897',
    'qwertyuiop123',
    'bent straw 2026',
    'Ines Ines 99',
    'ines-password',
  ])('is %s', (passphrase) => expect(isCommonPassphrase(passphrase, 'Ines')).toBe(true));

  it.each(['seven quires of vellum', 'Müller’s gluepot 7', 'the password is under the glue pot', 'Larkspur-4-thirsty'])(
    'is not %s',
    (passphrase) => expect(isCommonPassphrase(passphrase, 'Ines')).toBe(false),
  );

  it('is none of four words drawn from a small list, whoever chose them', () => {
    const word = fc.constantFrom('quire', 'vellum', 'ferry', 'lantern', 'gravel', 'otter', 'clover', 'anvil');
    fc.assert(
      fc.property(fc.array(word, { minLength: 4, maxLength: 4 }), fc.string(), (words, name) => {
        fc.pre(new Set(words).size > 2 && !words.some((each) => name.toLowerCase().includes(each)));
        expect(isCommonPassphrase(words.join(' '), name.slice(0, 2))).toBe(false);
      }),
    );
  });
});
