import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { command, ended, lineOf, startIn } from './command';
import type { LabLine } from './lab-line';

const INSIDE = { peer: '10.88.0.1', client: '10.88.0.2' } as const;

/** A certificate that vouches for itself, and its fingerprint, by which the two ends know each other. */
function certificate(folder: string, name: string): { cert: string; key: string; fingerprint: string } {
  const [cert, key] = [join(folder, `${name}.crt`), join(folder, `${name}.key`)];
  command(
    ...(['openssl', 'req', '-x509', '-newkey', 'ec', '-pkeyopt', 'ec_paramgen_curve:prime256v1', '-nodes'] as const),
    ...(['-keyout', key, '-out', cert, '-days', '2', '-subj', `/CN=${name}`] as const),
  );
  const printed = command('openssl', 'x509', '-in', cert, '-noout', '-fingerprint', '-sha256');
  return { cert, key, fingerprint: printed.trim().split('=')[1]! };
}

/** A real OpenVPN tunnel (UDP, AES-256-GCM) over a lab line. Gives the peer's address inside it, and what ends it. */
export async function openTunnel(line: LabLine): Promise<{ readonly peerAddress: string; close(): Promise<void> }> {
  const folder = mkdtempSync(join(tmpdir(), 'bent-straw-openvpn-'));
  const [server, client] = [certificate(folder, 'peer'), certificate(folder, 'client')];
  const shared = ['--dev', 'tun0', '--proto', 'udp4', '--port', '1194', '--data-ciphers', 'AES-256-GCM', '--verb', '3'];
  const own = ({ cert, key }: typeof server, other: typeof server) => [
    ...['--cert', cert, '--key', key, '--peer-fingerprint', other.fingerprint],
  ];
  const far = startIn(
    line.netns('peer'),
    'openvpn',
    ...[...shared, '--tls-server', '--dh', 'none', '--ifconfig', INSIDE.peer, INSIDE.client, ...own(server, client)],
  );
  const near = startIn(
    line.netns('client'),
    'openvpn',
    ...[...shared, '--tls-client', '--remote', line.peerAddress, '--ifconfig', INSIDE.client, INSIDE.peer],
    ...own(client, server),
  );
  await lineOf(near, /Initialization Sequence Completed/);
  far.stdout!.resume();
  near.stdout!.resume();
  return {
    peerAddress: INSIDE.peer,
    close: async () => {
      for (const child of [near, far]) child.kill('SIGTERM');
      await Promise.all([ended(near), ended(far)]);
      rmSync(folder, { recursive: true });
    },
  };
}
