import type { BoardFilter } from '@/services';
import { boardHref } from './board-href';

describe('the address of the board', () => {
  it('is the plain one when it is not narrowed', () => {
    expect(boardHref({})).toBe('/');
    expect(boardHref({ text: '', spot: undefined })).toBe('/');
  });

  it('holds everything that it is narrowed to, signs and all', () => {
    const filter: BoardFilter = {
      text: 'مكتب & <b>',
      spot: 'Glue room',
      linkKind: 'wifi-2.4',
      reach: 'tunnel',
      segment: 'far-end',
      verdict: 'no verdict',
      age: 'week',
    };
    expect(Object.fromEntries(new URL(boardHref(filter), 'http://console').searchParams)).toEqual({
      ...{ text: 'مكتب & <b>', spot: 'Glue room', link: 'wifi-2.4', reach: 'tunnel', segment: 'far-end' },
      ...{ verdict: 'no verdict', age: 'week' },
    });
  });
});
