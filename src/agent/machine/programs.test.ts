import { noticedPrograms, programWords } from './look-at-programs';
import { programsBetween, readConnections } from './programs';

/** As the tool prints: state, queues, both ends, whose it is, then what the kernel knows of it. */
const line = (local: string, peer: string, who: string, acked: number | null, received: number | null) =>
  `ESTAB 0      0      ${local}  ${peer}  ${who}\t cubic wscale:7,7 rto:204 rtt:3.1/1.2 mss:1448 bytes_sent:9${acked === null ? '' : ` bytes_acked:${acked}`}${received === null ? '' : ` bytes_received:${received}`} segs_out:7 send 12Mbps`;
const RSYNC = 'users:(("rsync",pid=812,fd=3))';
const FIRST = [
  line('192.0.2.7:50122', '203.0.113.9:443', RSYNC, 1000, 200),
  line('192.0.2.7:50124', '203.0.113.9:443', RSYNC, 5000, null),
  line('192.168.1.7:50200', '192.168.1.2:445', 'users:(("smbd",pid=9,fd=1),("smbd",pid=10,fd=1))', 10, 10),
  line('[2001:db8::7]:40000', '[2001:db8:1::9]:22', '', 4, 4),
  line('127.0.0.1:5000', '127.0.0.1:40010', 'users:(("node",pid=1,fd=1))', 9e9, 9e9),
  'LISTEN 0 128 0.0.0.0:22 0.0.0.0:*',
  '',
].join('\n');

describe('the connections of a machine', () => {
  it('are read with their program, their far end and their counters', () => {
    expect(readConnections(FIRST)).toMatchObject([
      { peerAddress: '203.0.113.9', program: 'rsync', upBytes: 1000, downBytes: 200 },
      { peerAddress: '203.0.113.9', program: 'rsync', upBytes: 5000, downBytes: 0 },
      { peerAddress: '192.168.1.2', program: 'smbd' },
      { peerAddress: '2001:db8:1::9', program: null, upBytes: 4 },
    ]);
  });

  it.each(['', 'nonsense', 'ESTAB 0 0 a b', 'a b c d e bytes_acked:x'])(
    'are none in "%s", or hold no figure',
    (text) => {
      for (const { upBytes, downBytes } of readConnections(text)) expect([upBytes, downBytes]).toEqual([0, 0]);
    },
  );
});

describe('what programs move', () => {
  const later = (changes: Readonly<Record<string, string>>) =>
    readConnections(Object.entries(changes).reduce((text, [from, to]) => text.replace(from, to), FIRST));

  it('is the difference between two looks, all connections of a program together, the busiest first', () => {
    const after = later({
      'bytes_acked:1000': 'bytes_acked:1001000',
      'bytes_acked:5000': 'bytes_acked:2005000',
      'bytes_acked:10 bytes_received:10': 'bytes_acked:10 bytes_received:125010',
    });
    expect(programsBetween(readConnections(FIRST), after, 2000)).toEqual([
      { program: 'rsync', inside: false, upBps: 12e6, downBps: 0 },
      { program: 'smbd', inside: true, upBps: 0, downBps: 0.5e6 },
    ]);
  });

  it('counts a connection whole that was opened meanwhile, also between the same ports', () => {
    const [, , , ssh] = readConnections(FIRST);
    const again = [{ ...ssh!, upBytes: 3, downBytes: 250_000 }];
    expect(programsBetween([], again, 1000)[0]).toMatchObject({ downBps: 2e6, program: null });
    expect(programsBetween([ssh!], again, 1000)[0]).toMatchObject({ downBps: 2e6 });
  });

  it('is told where it matters to a measurement, and by name where the name is known', () => {
    const busy = [
      { program: 'rsync', inside: false, upBps: 24.1e6, downBps: 2e5 },
      { program: null, inside: true, upBps: 0, downBps: 9e6 },
      { program: 'ntpd', inside: false, upBps: 800, downBps: 800 },
    ];
    expect(noticedPrograms(busy)).toEqual([
      'Just before: rsync moves 24.1 Mb/s up and 0.20 Mb/s down, to the outside.',
      'Just before: a program of another user moves 0.00 Mb/s up and 9.00 Mb/s down, inside this network.',
    ]);
    expect(noticedPrograms(null)).toEqual([]);
    expect(programWords(busy[0]!).length).toBeLessThan(180);
  });
});
