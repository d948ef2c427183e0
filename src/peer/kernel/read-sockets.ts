import { execFile } from 'node:child_process';
import type { KernelSighting } from '@/core';

/** Longer than this and the kernel's answer would be about another time; also keeps a hung `ss` from piling up. */
const PATIENCE_MS = 1000;

function figure(text: string, name: string): number | null {
  const found = new RegExp(`(?:^|\\s)${name}:([\\d.]+)`).exec(text)?.[1];
  return found === undefined ? null : Number(found);
}

/** `busy_time:12ms` as ms. */
function duration(text: string, name: string): number | null {
  const found = new RegExp(`(?:^|\\s)${name}:([\\d.]+)ms`).exec(text)?.[1];
  return found === undefined ? null : Number(found);
}

function portOf(address: string): number {
  return Number(/:(\d+)$/.exec(address)?.[1] ?? NaN);
}

/**
 * Reads what `ss -tinHO` prints: one line a connection. Connections to other ports than `clientPorts` are left out.
 * `retrans:0/5` means 0 waiting and 5 in all; `rtt:0.3/0.1` is smoothed / variance. What is not printed is null.
 */
export function readSockets(text: string, clientPorts: ReadonlySet<number>, atMs: number): KernelSighting[] {
  return text.split('\n').flatMap((line) => {
    const addresses = line.trim().split(/\s+/).slice(0, 4);
    const port = portOf(addresses.at(-1) ?? '');
    if (!clientPorts.has(port)) return [];
    const retransmitted = /\sretrans:\d+\/(\d+)/.exec(line)?.[1];
    const limited = duration(line, 'rwnd_limited');
    const busyMs = duration(line, 'busy');
    return [
      {
        atMs,
        port,
        mssBytes: figure(line, 'mss'),
        pathMtuBytes: figure(line, 'pmtu'),
        rttMs: figure(line, 'rtt'),
        minRttMs: figure(line, 'minrtt'),
        // The kernel prints these only once they are more than 0.
        retransmitted: retransmitted === undefined ? 0 : Number(retransmitted),
        spurious: figure(line, 'dsack_dups') ?? 0,
        bytesAcked: figure(line, 'bytes_acked'),
        busyMs,
        receiverLimitedMs: limited ?? (busyMs === null ? null : 0),
        congestionControl: /\s(bbr\w*|cubic|reno|dctcp|vegas|westwood)\s/.exec(line)?.[1] ?? null,
      },
    ];
  });
}

/** Asks the kernel about the connections of a local port. Null where `ss` is missing or does not answer in time. */
export function askKernel(localPort: number): Promise<string | null> {
  return new Promise((resolve) => {
    execFile(
      'ss',
      ['-tinHO', 'state', 'established', `( sport = :${localPort} )`],
      { timeout: PATIENCE_MS, maxBuffer: 4 * 1024 * 1024 },
      (error, stdout) => resolve(error === null ? stdout : null),
    );
  });
}
