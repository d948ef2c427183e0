import { spawn } from 'node:child_process';
import { generateKeyPairSync, randomBytes, randomUUID } from 'node:crypto';
import { closeSync, mkdtempSync, openSync, readFileSync, rmSync, writeFileSync, writeSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { WebSocket } from 'ws';
import { PEER_PATHS, type SessionOpened } from '@/wire';
import { publicKeyText, signTicket } from '@/wire/peer/ticket';
import type { PeerSettings } from '@/programs/entry/peer-main';
import { childOfTool, endsWithTool } from '../end-together';
import { ended } from '../net/command';

/** A server that a client pulls from and pushes to. */
export interface ServerUnderTest {
  readonly name: string;
  /** The process that does the work: its processor time is what is compared. */
  readonly pid: number;
  readonly downUrl: string;
  readonly upUrl: string;
  stop(): Promise<void>;
}

/** Random bytes, as the peer sends them, all in memory. */
const FILE_BYTES = 512 * 1024 ** 2;
const PART_BYTES = 64 * 1024 ** 2;

async function answers(url: string): Promise<void> {
  for (let attempt = 0; attempt < 100; attempt += 1) {
    const response = await fetch(url).catch(() => null);
    if (response !== null) {
      await response.body?.cancel();
      return;
    }
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
  throw new Error(`nothing answers at ${url}`);
}

/**
 * nginx with one worker: a file in memory down, a body read and thrown away up. With sendfile the kernel hands out the
 * file's own pages, without (as nginx is when nobody sets it) nginx copies, as any program must that makes its data.
 */
export async function startNginx(port: number, sendfile: boolean): Promise<ServerUnderTest> {
  const folder = mkdtempSync('/dev/shm/bent-straw-nginx-');
  const file = openSync(join(folder, 'big'), 'w');
  for (let written = 0; written < FILE_BYTES; written += PART_BYTES) writeSync(file, randomBytes(PART_BYTES));
  closeSync(file);
  const config = join(folder, 'nginx.conf');
  writeFileSync(
    config,
    `daemon off; worker_processes 1; pid ${folder}/pid; error_log ${folder}/error.log; user root;
     events { worker_connections 256; }
     http { access_log off; sendfile ${sendfile ? 'on' : 'off'}; tcp_nopush on; keepalive_timeout 60s; client_body_temp_path ${folder}/body;
       server { listen 127.0.0.1:${port}; client_max_body_size 0; lingering_time 600s; lingering_timeout 60s;
         location /down { alias ${folder}/big; } location /up { return 200; } location / { default_type text/plain; return 200 nginx; } } }`,
  );
  // Its memory is the machine's: whatever happens, it is given back.
  endsWithTool(() => rmSync(folder, { recursive: true, force: true }));
  const child = childOfTool(spawn('nginx', ['-c', config], { stdio: 'inherit' }));
  await answers(`http://127.0.0.1:${port}/`);
  const worker = readFileSync(`/proc/${child.pid}/task/${child.pid}/children`, 'utf8').trim().split(' ')[0];
  return {
    name: sendfile ? 'nginx, sendfile' : 'nginx',
    pid: Number(worker),
    downUrl: `http://127.0.0.1:${port}/down`,
    upUrl: `http://127.0.0.1:${port}/up`,
    stop: async () => {
      child.kill('SIGTERM');
      await ended(child);
      rmSync(folder, { recursive: true, force: true });
    },
  };
}

/** The peer as it ships, with a ticketed session whose control connection is open. */
export async function startPeer(port: number): Promise<ServerUnderTest & { openSession(): Promise<WebSocket> }> {
  const { privateKey, publicKey } = generateKeyPairSync('ed25519');
  const folder = mkdtempSync(join(tmpdir(), 'bent-straw-bench-'));
  const settings: PeerSettings = {
    ...{ name: 'bench', host: '127.0.0.1', port, trust: [publicKeyText(publicKey)], tls: null },
    ...{ consolePort: null, mostSessions: 128, udp: null, channelPorts: null },
    log: { folder: null, level: 'info' },
    identityFile: join(folder, 'peer-key.pem'),
  };
  endsWithTool(() => rmSync(folder, { recursive: true, force: true }));
  const child = childOfTool(
    spawn(process.execPath, ['dist/peer-main.js', JSON.stringify(settings)], { stdio: 'inherit' }),
  );
  const origin = `http://127.0.0.1:${port}`;
  await answers(`${origin}${PEER_PATHS.info}`);
  const openSession = async (): Promise<{ session: string; control: WebSocket }> => {
    const nowMs = Date.now();
    const ticket = signTicket(
      {
        // Each a device of its own: a new ticket of the same one ends what that still holds.
        ...{ id: randomUUID(), runId: 'bench', deviceId: randomUUID(), peerKey: null, directions: ['down', 'up'] },
        limits: { seconds: 3600, bytes: 1e15, streams: 16 },
        ...{ issuedAtMs: nowMs, expiresAtMs: nowMs + 60_000 },
      },
      privateKey,
    );
    const response = await fetch(`${origin}${PEER_PATHS.sessions}?ticket=${ticket}`, { method: 'POST' });
    const { session } = (await response.json()) as SessionOpened;
    const control = new WebSocket(`ws://127.0.0.1:${port}${PEER_PATHS.control}?session=${session}`);
    await new Promise((resolve) => control.once('open', resolve));
    return { session, control };
  };
  const { session, control } = await openSession();
  const url = (path: string) => `${origin}${path}?session=${session}&stream={stream}`;
  return {
    name: 'peer',
    pid: child.pid!,
    downUrl: url(PEER_PATHS.down),
    upUrl: url(PEER_PATHS.up),
    openSession: async () => (await openSession()).control,
    stop: async () => {
      control.close();
      child.kill('SIGTERM');
      await ended(child);
    },
  };
}
