import { execFile } from 'node:child_process';
import { connect } from 'node:net';
import { lanAddresses } from '@/wire/address';
import type { ConsoleContext } from '../console/console-context';
import { readFirewalld, readNft, readUfw, type FirewallSays } from './firewall-rules';

/** Whether other machines of the network can open this console, as far as this machine can tell. */
export interface Reachability {
  readonly addresses: readonly { readonly address: string; readonly listens: boolean }[];
  readonly firewall: FirewallSays | null;
  /** The last other machine that did. */
  readonly reachedFrom: { readonly address: string; readonly atMs: number } | null;
}

const PATIENCE_MS = 1000;

function listens(host: string, port: number): Promise<boolean> {
  return new Promise((resolve) => {
    const socket = connect({ host, port, timeout: PATIENCE_MS });
    const end = (answer: boolean) => {
      socket.destroy();
      resolve(answer);
    };
    socket.once('connect', () => end(true));
    socket.once('timeout', () => end(false));
    socket.once('error', () => end(false));
  });
}

/** What a program of the system prints; null where it is missing, fails, or takes too long. */
function printed(command: string, ...args: string[]): Promise<string | null> {
  return new Promise((resolve) => {
    execFile(command, args, { timeout: PATIENCE_MS, maxBuffer: 1 << 20 }, (error, text) =>
      resolve(error === null ? text : null),
    );
  });
}

async function firewallSays(port: number): Promise<FirewallSays | null> {
  const [ufw, firewalld, nft] = await Promise.all([
    printed('ufw', 'status'),
    printed('firewall-cmd', '--list-ports'),
    printed('nft', 'list', 'ruleset'),
  ]);
  return readUfw(ufw ?? '', port) ?? readFirewalld(firewalld, port) ?? readNft(nft ?? '', port);
}

export async function reachabilityOf(context: ConsoleContext): Promise<Reachability> {
  const { port, reached } = context;
  const addresses = lanAddresses();
  const [answers, firewall] = await Promise.all([
    Promise.all(addresses.map((address) => listens(address, port))),
    firewallSays(port),
  ]);
  return {
    addresses: addresses.map((address, index) => ({ address, listens: answers[index]! })),
    firewall,
    reachedFrom: reached.last,
  };
}
