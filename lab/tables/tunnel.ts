import { ceilingOfTunnel, flagWords, reportOf } from '@/core';
import { LAB_CONDITIONS } from '../measure-run';
import { readyForLab } from '../net/lab-rights';
import { openTunnel } from '../net/openvpn';
import { onBench, symmetric } from './lab-cell';
import { Table } from './table';

/** A real OpenVPN tunnel: what it leaves of the line, and whether the run notices it by itself. */
export async function tunnelTable(runs: number): Promise<void> {
  const missing = await readyForLab({ openvpn: 'openvpn', openssl: 'openssl' });
  if (missing !== null) return console.log(missing);
  const table = new Table(
    'Through OpenVPN (UDP, AES-256-GCM)',
    '100 Mb/s of frames both ways, base delay 20 ms, queue 50 ms. The ceiling is that of such a tunnel over Ethernet of the same frame rate.',
    ['run', 'down, Mb/s', 'up, Mb/s', 'kernel’s MSS', 'what it says'],
  );
  await onBench({ ...symmetric(100, 50), baseMs: 20 }, 'Node', async ({ line, program, client }) => {
    const tunnel = await openTunnel(line);
    try {
      for (let run = 1; run <= runs; run += 1) {
        const done = await client.run(program.joinAddress.replace(line.peerAddress, tunnel.peerAddress), 'standard');
        if (done.status === 'unfinished') {
          table.row(run, '–', '–', '–', done.sentence);
          continue;
        }
        const report = reportOf(done.samples, { ...LAB_CONDITIONS, reach: 'internet' });
        const mbps = (way: 'down' | 'up') => ((report[way].rate?.steadyBps ?? 0) / 1e6).toFixed(1);
        const tunnelFlag = report.fitness.find(({ code }) => code === 'through-tunnel');
        table.row(
          run,
          mbps('down'),
          mbps('up'),
          done.samples.kernel[0]?.mssBytes ?? '–',
          tunnelFlag === undefined ? 'no tunnel noticed' : flagWords(tunnelFlag).fact,
        );
      }
    } finally {
      await tunnel.close();
    }
  });
  // The shaper counts 14 bytes a frame where Ethernet has 38.
  const { payloadBps } = ceilingOfTunnel({
    kind: 'openvpn',
    carrierBps: 100e6,
    outerIpVersion: 4,
    ipVersion: 4,
    timestamps: true,
  });
  console.log(
    `\nThe formula’s ceiling: ${((payloadBps / 1e6) * (1530 / 1506)).toFixed(1)} Mb/s with the shaper’s framing.`,
  );
}
