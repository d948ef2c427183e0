/** Whether a key press goes into a field, where letters are letters. */
export function isTyping(target: EventTarget | null): boolean {
  return (
    target instanceof HTMLElement && (target.isContentEditable || /^(INPUT|SELECT|TEXTAREA)$/.test(target.tagName))
  );
}

/** The places of the console; each has a letter that leads there when no field has the focus. */
export const PLACES = [
  { letter: 'b', before: '', after: 'oard', name: 'Board', href: '/' },
  { letter: 'h', before: '', after: 'unt', name: 'Hunt', href: '/hunt' },
  { letter: 'l', before: '', after: 'edger', name: 'Ledger', href: '/ledger' },
  { letter: 's', before: '', after: 'ide by side', name: 'Side by side', href: '/side' },
  { letter: 'o', before: '', after: 'ver time', name: 'Over time', href: '/time' },
  { letter: 'w', before: '', after: 'atch', name: 'Watch', href: '/watch' },
  { letter: 'a', before: '', after: 'ir', name: 'Air', href: '/air' },
  { letter: 'c', before: '', after: 'ases', name: 'Cases', href: '/case' },
  { letter: 'g', before: 'A', after: 'ents', name: 'Agents', href: '/agent' },
  { letter: 't', before: 'Se', after: '-up', name: 'Set-up', href: '/set-up' },
] as const;

/** All keys, as the help shows them. */
export const KEYS: readonly (readonly [string, string])[] = [
  ...PLACES.map(({ letter, name }) => [letter.toUpperCase(), `go to the ${name.toLowerCase()}`] as const),
  ['/', 'narrow what is shown, by typing'],
  ['Ctrl K', 'find or do something by its name'],
  ['arrows', 'go from cell to cell on the board, or along a strip'],
  ['Enter', 'open the run of a cell, or measure where nothing was measured yet'],
  ['R', 'measure on the device of the cell, as far as its column reaches'],
  ['N', 'start a round'],
  ['M', 'mark that something begins, on the page Watch'],
  ['X', 'write down a swap'],
  ['?', 'show these keys, and our words'],
];
