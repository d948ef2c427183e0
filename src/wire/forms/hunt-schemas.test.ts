import {
  complaintSchema,
  endHuntSchema,
  huntNoteSchema,
  letBeSchema,
  openHuntSchema,
  queueSetSchema,
  ruleOutSchema,
  swapSchema,
} from './hunt-schemas';

const SWAP = { siteId: 's', what: 'other-cable', segmentId: 'cable:d' } as const;

describe('what is sent about findings and hunts', () => {
  it('is read as it is meant, with what is left out filled in', () => {
    expect(swapSchema.parse(SWAP)).toEqual({ ...SWAP, deviceId: null, note: '', huntId: null, atMs: null });
    expect(openHuntSchema.parse({ siteId: 's' })).toEqual({ siteId: 's', deviceId: null });
    expect(openHuntSchema.parse({ findingId: 'f' })).toEqual({ findingId: 'f' });
    expect(ruleOutSchema.parse({ huntId: 'h', check: 'backup' })).toEqual({ huntId: 'h', check: 'backup', out: true });
    expect(complaintSchema.parse({ code: null, what: 'calls' })).toEqual({
      ...{ code: null, what: 'calls', deviceName: '', spotName: '' },
    });
    expect(endHuntSchema.parse({ huntId: 'h', state: 'found' })).toEqual({ huntId: 'h', state: 'found', note: '' });
  });

  it.each([
    ['a swap of a kind that there is not', swapSchema, { ...SWAP, what: 'other-building' }],
    ['a swap of nothing', swapSchema, { ...SWAP, segmentId: '' }],
    ['a swap with a novel', swapSchema, { ...SWAP, note: 'x'.repeat(301) }],
    ['a swap at a word', swapSchema, { ...SWAP, atMs: 'yesterday' }],
    ['a swap with more in it', swapSchema, { ...SWAP, price: 7 }],
    ['a hunt about nothing at all', openHuntSchema, {}],
    ['a hunt about a finding and a device', openHuntSchema, { findingId: 'f', siteId: 's' }],
    ['an end that is none', endHuntSchema, { huntId: 'h', state: 'open' }],
    ['an empty line', huntNoteSchema, { huntId: 'h', text: '   ' }],
    ['a check that there is not', ruleOutSchema, { huntId: 'h', check: 'moon', out: true }],
    ['a tick that is no yes and no no', ruleOutSchema, { huntId: 'h', check: 'backup', out: 'perhaps' }],
    ['a queue of nothing', queueSetSchema, { huntId: 'h', mbps: 0 }],
    ['a queue below nothing', queueSetSchema, { huntId: 'h', mbps: -3 }],
    ['a queue beyond every line', queueSetSchema, { huntId: 'h', mbps: 100_001 }],
    ['a queue that is no number', queueSetSchema, { huntId: 'h', mbps: Number.NaN }],
    ['letting be without a reason', letBeSchema, { findingId: 'f', reason: ' ' }],
    ['a complaint about the weather', complaintSchema, { code: null, what: 'weather' }],
    ['a complaint with a name of a page', complaintSchema, { code: null, what: 'calls', deviceName: 'x'.repeat(81) }],
    ['a complaint with a code of a page', complaintSchema, { code: 'x'.repeat(21), what: 'calls' }],
  ] as const)('refuses %s', (_, schema, input) => {
    expect(schema.safeParse(input).success).toBe(false);
  });

  it('says what to do where a person typed it', () => {
    const words = (result: { error?: { issues: readonly { message: string }[] } | undefined }) =>
      result.error?.issues[0]?.message;
    expect(words(letBeSchema.safeParse({ findingId: 'f', reason: '' }))).toMatch(/why/);
    expect(words(huntNoteSchema.safeParse({ huntId: 'h', text: '' }))).toMatch(/Write a line/);
    expect(words(queueSetSchema.safeParse({ huntId: 'h', mbps: 0 }))).toMatch(/above 0/);
  });
});
