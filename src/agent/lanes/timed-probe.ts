import { request as requestHttp } from 'node:http';
import { request as requestHttps } from 'node:https';
import { connect } from 'node:net';
import { ANSWER_WITHIN_MS, type Lane } from '@/core';
import { hostAndPort } from './host-and-port';
import type { LaneProbe, OnEcho } from '@/session/lanes';

const HTTPS_PORT = 443;

/** Asks once, and says how long it took, ms. Rejects when nothing came. */
export type AskOnce = (target: string, signal: AbortSignal) => Promise<number>;

/** How long the handshake of a TCP port takes (RFC 9293): one round trip, also where no echo is answered. A refusal is an answer. */
export const askPort: AskOnce = (target, signal) =>
  new Promise((resolve, reject) => {
    const fromMs = performance.now();
    const socket = connect({ ...hostAndPort(target, HTTPS_PORT), signal });
    const answered = () => {
      socket.destroy();
      resolve(performance.now() - fromMs);
    };
    socket.once('connect', answered);
    socket.once('error', (error: NodeJS.ErrnoException) => {
      if (error.code === 'ECONNREFUSED') answered();
      else reject(error);
    });
  });

/** How long it takes from nothing to the first byte of a web page: name, handshake, TLS and answer together. */
export const askPage: AskOnce = (target, signal) =>
  new Promise((resolve, reject) => {
    const fromMs = performance.now();
    const send = target.startsWith('https:') ? requestHttps : requestHttp;
    const asked = send(target, { method: 'HEAD', agent: false, signal, headers: { 'User-Agent': 'bent-straw-agent' } });
    asked.once('response', (answer) => {
      answer.destroy();
      resolve(performance.now() - fromMs);
    });
    asked.once('error', reject);
    asked.end();
  });

/** Asks again and again, each time anew; one that has not answered when the next one is due is not waited for longer than 10 s. */
export function openTimedProbe(
  ask: AskOnce,
  { target, everyMs }: Lane,
  onEcho: OnEcho,
  nowMs: () => number,
): LaneProbe {
  const closing = new AbortController();
  const once = () => {
    const atMs = nowMs();
    const signal = AbortSignal.any([closing.signal, AbortSignal.timeout(ANSWER_WITHIN_MS)]);
    ask(target, signal).then(
      (ms) => onEcho({ atMs, ms }),
      () => {
        if (!closing.signal.aborted) onEcho({ atMs, ms: null });
      },
    );
  };
  once();
  const timer = setInterval(once, everyMs);
  return {
    close: () => {
      clearInterval(timer);
      closing.abort();
    },
  };
}
