import { DEEDS, deedWords, factWords, whoWords } from './happened-words';
import { KIND_CODES, readKind } from './kinds';

describe('what happened, in words', () => {
  it('can be narrowed to every code that there are words for, each in one kind', () => {
    expect(Object.values(KIND_CODES).flat().sort()).toEqual(Object.keys(DEEDS).sort());
  });

  it('takes a name as it is, whatever signs are in it', () => {
    const subject = `$& $' {} <b>`;
    expect(deedWords({ what: 'device-removed', subject })).toBe(`removed the device ${subject}`);
  });

  it('says who it was', () => {
    expect(whoWords({ who: 'Ines', whoKind: 'technician' })).toBe('Ines');
    expect(whoWords({ who: 'weekly', whoKind: 'script' })).toBe('the script weekly');
    expect(whoWords({ who: '', whoKind: 'stranger' })).toBe('Somebody');
  });

  it('says what changed with what it was before, and of what is new or gone all of it', () => {
    expect(factWords({ before: { downBps: 50e6 }, after: { downBps: 500e6 } })).toEqual([
      'down: 500 Mb/s, before 50.0 Mb/s',
    ]);
    expect(factWords({ before: null, after: { name: 'X', pinned: true, key: null } })).toEqual([
      'pinned: yes',
      'key: nothing',
    ]);
    expect(factWords({ before: { fullFrom: 0.9 }, after: null })).toEqual(['met from: 90 %']);
    expect(factWords({ before: { name: 'A' }, after: { name: 'B' } })).toEqual(['name: B, before A']);
  });

  it('narrows to kinds that there are', () => {
    expect(readKind('plans')).toBe('plans');
    for (const odd of [null, '', 'toString', 'Plans']) expect(readKind(odd)).toBeNull();
  });
});
