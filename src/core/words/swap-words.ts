import type { SwapCode } from '../diagnose/swap';

/** What was changed, as it is chosen and as it stands in a story. */
export const SWAP_WORDS: Readonly<Record<SwapCode, string>> = {
  'other-cable': 'another cable',
  'other-port': 'another port',
  'past-the-switch': 'past the switch',
  'other-switch': 'another switch',
  'other-device': 'another device in its place',
  'device-mended': 'the device mended',
  'by-cable': 'by cable instead of the air',
  'other-band': 'another band',
  'other-channel': 'another channel',
  'air-cleared': 'what disturbed the air taken away',
  'tunnel-off': 'the tunnel off',
  'tunnel-changed': 'the tunnel set up anew',
  'router-replaced': 'the router replaced',
  'queue-managed': 'the queue managed',
  'line-changed': 'the provider changed the line',
  'peer-moved': 'the far end moved',
  other: 'something else',
};
