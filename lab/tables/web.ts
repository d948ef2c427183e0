import { existsSync, mkdtempSync, rmSync, truncateSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { generate } from 'selfsigned';
import { webClient } from '../clients/web-client';
import { ended, isInstalled, startIn } from '../net/command';
import { LabLine, PLAIN_LINE, type LabLineConfig } from '../net/lab-line';
import { addRows, HEADS, NOTE } from './accuracy';
import { quietRuns } from './lab-cell';
import { Table } from './table';

const PORTS = { 'HTTP/1.1': 8080, 'HTTP/2': 8443 } as const;
/** Nothing of it lies on the disk: a hole of so many bytes. */
const PAGE_BYTES = 4e9;

/** nginx as a web server of somebody else's, at the far end of a line. */
async function startWebServer(line: LabLine) {
  const folder = mkdtempSync(join(tmpdir(), 'bent-straw-web-'));
  const at = (name: string) => join(folder, name);
  const { cert, private: key } = await generate([{ name: 'commonName', value: line.peerAddress }], {
    extensions: [{ name: 'subjectAltName', altNames: [{ type: 7, ip: line.peerAddress }] }],
  });
  writeFileSync(at('cert.pem'), cert);
  writeFileSync(at('key.pem'), key);
  writeFileSync(at('large.bin'), '');
  truncateSync(at('large.bin'), PAGE_BYTES);
  writeFileSync(
    at('nginx.conf'),
    `daemon off; user root; worker_processes 1; pid ${at('pid')}; error_log ${at('log')};
     events {} http { access_log off; sendfile on; server { listen ${PORTS['HTTP/1.1']};
     listen ${PORTS['HTTP/2']} ssl http2; ssl_certificate ${at('cert.pem')}; ssl_certificate_key ${at('key.pem')};
     root ${folder}; } }`,
  );
  const child = startIn(line.netns('peer'), 'nginx', '-c', at('nginx.conf'));
  // It writes this once it listens.
  while (!existsSync(at('pid')) && child.exitCode === null) await new Promise((resolve) => setTimeout(resolve, 20));
  return {
    caFile: at('cert.pem'),
    stop: async () => {
      child.kill('SIGTERM');
      await ended(child);
      rmSync(folder, { recursive: true, force: true });
    },
  };
}

const LINES: readonly (readonly [string, Partial<LabLineConfig>])[] = [
  ['24/2, 40 ms', { down: { rateMbps: 24, queueMs: 50 }, up: { rateMbps: 2, queueMs: 50 }, baseMs: 40 }],
  ['100/20, 20 ms', { down: { rateMbps: 100, queueMs: 200 }, up: { rateMbps: 20, queueMs: 50 }, baseMs: 20 }],
  ['500/100, 12 ms', { down: { rateMbps: 500, queueMs: 50 }, up: { rateMbps: 100, queueMs: 50 }, baseMs: 12 }],
  ['300/300, 150 ms', { down: { rateMbps: 300, queueMs: 50 }, up: { rateMbps: 300, queueMs: 50 }, baseMs: 150 }],
];

/** A web server as the far end, downloads alone, held against the kernel. */
export async function webTable(runs: number): Promise<void> {
  if (!isInstalled('nginx')) return console.error('nginx is not installed. Install Debian’s package nginx-light.');
  const table = new Table('A web server as the far end (nginx), cubic', NOTE, HEADS);
  for (const [name, config] of LINES)
    for (const version of ['HTTP/1.1', 'HTTP/2'] as const) {
      const line = new LabLine({ ...PLAIN_LINE, ...config });
      const stops: (() => Promise<void>)[] = [() => line.close()];
      try {
        await line.open();
        const server = await startWebServer(line);
        stops.push(() => server.stop());
        const scheme = version === 'HTTP/2' ? 'https' : 'http';
        const page = `${scheme}://${line.peerAddress}:${PORTS[version]}/large.bin`;
        const bench = { line, program: { joinAddress: page }, client: webClient(line.netns('client'), server.caFile) };
        const done = await quietRuns(bench, runs, 'standard');
        addRows(table, name, version, done.line, done.runs, ['down']);
      } finally {
        for (const stop of stops.reverse()) await stop().catch((error: Error) => console.error(error.message));
      }
    }
}
