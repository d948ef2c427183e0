import { readSockets } from './read-sockets';

/** As `ss -tinHO` printed it on Linux 6, one line a connection. */
const PRINTED = [
  '0 4344000 10.87.3.2:4870 10.87.1.2:41282  cubic wscale:10,10 rto:204 rtt:50.3/0.4 ato:40 mss:1448 pmtu:1500 rcvmss:588 advmss:1448 cwnd:420 ssthresh:300 bytes_sent:61250000 bytes_retrans:14480 bytes_acked:60500000 segs_out:42300 retrans:0/10 dsack_dups:3 reordering:9 busy:5120ms rwnd_limited:2304ms(45.0%) minrtt:0.412 snd_wnd:1249280',
  '0 0 [::ffff:10.87.3.2]:4870 [::ffff:10.87.1.2]:41283  bbr wscale:10,10 rto:201 rtt:0.3/0.1 mss:1368 pmtu:1420 cwnd:10 bytes_acked:208 busy:4ms minrtt:0.2',
  '0 0 10.87.3.2:4870 10.87.1.9:50000  cubic rtt:9/1 mss:536 pmtu:1500 busy:1ms',
].join('\n');

describe('what the kernel says of connections', () => {
  const [bulk, probe, ...rest] = readSockets(PRINTED, new Set([41_282, 41_283]), 77);

  it('is read field by field', () => {
    expect(bulk).toEqual({
      ...{ atMs: 77, port: 41_282, mssBytes: 1448, pathMtuBytes: 1500, rttMs: 50.3, minRttMs: 0.412 },
      ...{ retransmitted: 10, spurious: 3, bytesAcked: 60_500_000, busyMs: 5120, receiverLimitedMs: 2304 },
      congestionControl: 'cubic',
    });
  });

  it('takes what is printed only once it happened for not having happened', () => {
    expect(probe).toMatchObject({ retransmitted: 0, spurious: 0, receiverLimitedMs: 0, congestionControl: 'bbr' });
  });

  it('leaves out connections that are not this client’s', () => {
    expect(rest).toEqual([]);
  });

  it('is unknown where it is not printed', () => {
    const [bare] = readSockets('0 0 127.0.0.1:4870 127.0.0.1:5000  cubic', new Set([5000]), 1);
    expect(bare).toMatchObject({ mssBytes: null, rttMs: null, busyMs: null, receiverLimitedMs: null });
    expect(readSockets('', new Set([5000]), 1)).toEqual([]);
  });
});
