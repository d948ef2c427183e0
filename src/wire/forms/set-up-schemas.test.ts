import { linkOfForm } from './link-form';
import { deviceFormSchema, lineFormSchema, officeFormSchema, peerFormSchema } from './set-up-schemas';

const line = {
  lineName: 'Tarnfell Fibre',
  provider: '',
  downMbps: '500',
  upMbps: '2,5',
  leastDownMbps: '',
  leastUpMbps: '',
  basis: 'payload',
  fullFromPercent: '90',
};

const complaint = (changes: object) => {
  const parsed = lineFormSchema.safeParse({ ...line, ...changes });
  return parsed.success ? null : [...new Set(parsed.error.issues.map(({ path }) => path[0]))];
};

describe('the form of a line', () => {
  it('takes rates with a point or a comma, and blanks as not named', () => {
    expect(lineFormSchema.parse(line)).toMatchObject({
      downMbps: 500,
      upMbps: 2.5,
      leastDownMbps: null,
      fullFromPercent: 90,
    });
  });

  it.each([
    ['a negative rate', { downMbps: '-5' }, ['downMbps']],
    ['a rate of nothing', { upMbps: '0' }, ['upMbps']],
    ['a blank rate', { downMbps: ' ' }, ['downMbps']],
    ['words for a rate', { downMbps: '500 Mb' }, ['downMbps']],
    ['an endless rate', { downMbps: 'Infinity' }, ['downMbps']],
    ['a rate beyond any line', { downMbps: '1000000' }, ['downMbps']],
    ['a least rate above the advertised one', { leastDownMbps: '501' }, ['leastDownMbps']],
    ['a tolerance of half', { fullFromPercent: '50' }, ['fullFromPercent']],
    ['no name', { lineName: '  ' }, ['lineName']],
    ['a day that is no day', { validFrom: '2026-13-40' }, ['validFrom']],
    ['a day that there is not', { validFrom: '31.2.2026' }, ['validFrom']],
    ['an advertised rate that is none, beside a least one', { upMbps: '-3', leastUpMbps: '60' }, ['upMbps']],
    ['words for a rate, beside a least one', { downMbps: 'fast', leastDownMbps: '300' }, ['downMbps']],
    ['two mistakes', { downMbps: '-1', upMbps: 'x' }, ['downMbps', 'upMbps']],
  ])('refuses %s and names the field', (_, changes, fields) => {
    expect(complaint(changes)).toEqual(fields);
  });
});

describe('the other forms', () => {
  it('limit names to 80 characters and keep any script or sign as it is', () => {
    expect(officeFormSchema.safeParse({ name: 'x'.repeat(81) }).success).toBe(false);
    const odd = 'مشغل <b>كتب</b> 📚';
    expect(officeFormSchema.parse({ name: ` ${odd} ` })).toEqual({ name: odd });
  });

  it('take a time zone that there is, or none', () => {
    for (const timeZone of ['Europe/Dublin', 'Asia/Kathmandu', 'UTC', ''])
      expect(officeFormSchema.safeParse({ name: 'x', timeZone }).success).toBe(true);
    for (const timeZone of ['Mars/Base', 'half past nine', 'Europe'])
      expect(officeFormSchema.safeParse({ name: 'x', timeZone }).success).toBe(false);
  });

  it('turn the choice of a link into the link, with a rate only for a cable', () => {
    const form = { name: 'Press desk', spotName: '', negotiatedMbps: '1000' };
    const link = (linkChoice: string) => linkOfForm(deviceFormSchema.parse({ ...form, linkChoice }));
    expect(link('wired')).toEqual({ medium: 'wired', negotiatedBps: 1e9, mtuBytes: 1500 });
    expect(link('wifi-5')).toEqual({ medium: 'wifi', band: '5', linkRateBps: null });
    expect(link('unknown')).toEqual({ medium: 'unknown' });
  });

  it.each([
    ['/', true],
    [':4871', true],
    ['http://198.51.100.7:4870', true],
    ['198.51.100.7', false],
    ['javascript:alert(1)', false],
    ['http://two words', false],
  ])('take %s as the address of a peer: %s', (address, fine) => {
    expect(peerFormSchema.safeParse({ name: 'x', reach: 'internet', address }).success).toBe(fine);
  });
});
