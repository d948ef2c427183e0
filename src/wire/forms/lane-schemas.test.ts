import { laneFormSchema, newLaneSchema } from './lane-schemas';

const LANE = { deviceId: 'd', name: 'Far shop', kind: 'echo', target: '192.0.2.1', role: 'outside', everySeconds: 1 };
const messageOf = (change: object) => newLaneSchema.safeParse({ ...LANE, ...change }).error?.issues[0]?.message ?? null;

describe('a lane that somebody adds', () => {
  it.each([
    [{ kind: 'echo', target: 'router.example' }, null],
    [{ kind: 'echo', target: 'fe80::1%eth0' }, null],
    [{ kind: 'echo', target: '-f' }, 'Give a name or an address, such as 192.0.2.1.'],
    [{ kind: 'echo', target: 'a b' }, 'Give a name or an address, such as 192.0.2.1.'],
    [{ kind: 'connect', target: '[2001:db8::1]:443' }, null],
    [{ kind: 'connect', target: '192.0.2.1' }, 'Give a name or an address and a port, such as 192.0.2.1:443.'],
    [{ kind: 'stamp', target: 'router.example', key: 'a word' }, null],
    [{ kind: 'stamp', target: '192.0.2.1:862', key: '0x00ff' }, null],
    [{ kind: 'stamp', target: '[2001:db8::1]:862', key: null }, null],
    [
      { kind: 'stamp', target: '-f' },
      'Give a name or an address, with a port where it is not 862, such as 192.0.2.1:862.',
    ],
    [{ kind: 'stamp', target: '192.0.2.1', key: '0x0f1' }, 'After 0x come pairs of hexadecimal digits.'],
    [{ kind: 'echo', target: '192.0.2.1', key: 'a word' }, 'Only STAMP takes a key. Leave it empty.'],
    [{ kind: 'web', target: 'https://example.com/', everySeconds: 10 }, null],
    [
      { kind: 'web', target: 'file:///etc/passwd', everySeconds: 10 },
      'Give a web address, such as https://example.com.',
    ],
    [{ kind: 'web', target: 'https://example.com/' }, 'A page is asked every 5 seconds at most.'],
    [{ kind: 'probe', target: 'a-peer_1', role: 'inside' }, null],
    [{ kind: 'probe', target: 'https://peer.example' }, 'Choose a peer.'],
    [{ kind: 'probe', target: 'peer', everySeconds: 0.5 }, 'A page, or a radio, is asked once a second at most.'],
    [{ kind: 'signal', target: 'wlan0', role: 'inside', everySeconds: 5 }, null],
    [{ kind: 'retries', target: '--help', role: 'inside' }, 'Give the name of its radio, such as wlan0.'],
    [
      { kind: 'signal', target: 'wlan0', role: 'outside' },
      'A load is one of the line or of a port inside, a radio is inside; a delay is not of the line.',
    ],
  ])('%j: %s', (change, message) => expect(messageOf(change)).toBe(message));

  it('is typed with a decimal comma, and refused with nonsense', () => {
    expect(laneFormSchema.parse({ ...LANE, everySeconds: '0,5' }).everySeconds).toBe(0.5);
    for (const everySeconds of ['', '0', '61', 'often'])
      expect(laneFormSchema.safeParse({ ...LANE, everySeconds }).success).toBe(false);
  });
});
