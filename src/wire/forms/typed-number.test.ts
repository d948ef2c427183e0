import fc from 'fast-check';
import { MOST_MBPS, mbps, optionalMbps, typedNumber } from './typed-number';

const read = (value: unknown) => typedNumber.safeParse(value);

describe('a number as somebody types it', () => {
  it('is the same with a comma as with a point, with blanks around it, and as a script sends it', () => {
    fc.assert(
      fc.property(fc.double({ min: -1e6, max: 1e6, noNaN: true }), (number) => {
        const text = number.toFixed(3);
        const value = Number(text);
        expect(read(text).data).toBe(value);
        expect(read(` ${text.replace('.', ',')} `).data).toBe(value);
        expect(read(value).data).toBe(value);
      }),
    );
  });

  it('is nothing where nothing is typed, and never 0', () => {
    for (const blank of ['', '   ', null]) expect(read(blank)).toEqual({ success: true, data: null });
  });

  it.each(['fast', '1.000,5', '12 Mb/s', '1e999', '0x', '--1', 'NaN', 'Infinity', '٥'])('is not %p', (text) => {
    const found = read(text);
    expect(found.success).toBe(false);
    expect(found.error!.issues[0]!.message).toBe('Write a number, such as 500 or 2.5.');
  });
});

describe('a rate as somebody types it', () => {
  const words = (schema: typeof mbps | typeof optionalMbps, value: unknown) => {
    const found = schema.safeParse(value);
    return found.success ? found.data : found.error.issues[0]!.message;
  };

  it('is more than nothing and less than any line has', () => {
    expect(words(mbps, '0,5')).toBe(0.5);
    expect(words(mbps, MOST_MBPS)).toBe(MOST_MBPS);
    expect(words(mbps, '0')).toBe('A rate is more than 0 Mb/s.');
    expect(words(mbps, '-5')).toBe('A rate is more than 0 Mb/s.');
    expect(words(mbps, MOST_MBPS + 1)).toBe('At most 100000 Mb/s.');
  });

  it('may be left blank where it is not wanted, and nowhere else', () => {
    expect(words(optionalMbps, '')).toBeNull();
    expect(words(mbps, '')).toBe('Write the rate in Mb/s.');
  });
});
