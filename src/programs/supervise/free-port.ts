import { createServer } from 'node:net';
import { listenFault, ProgramFault } from '../faults/program-faults';

/** Reads a port from the command line. Throws ProgramFault. */
export function readPort(text: string): number {
  const port = Number(text);
  if (!Number.isInteger(port) || port < 1 || port > 65_535) throw new ProgramFault('port-invalid', { port: text });
  return port;
}

/** Reads a range of ports from the command line: `4900-4931`. Throws ProgramFault. */
export function readPortRange(text: string): [number, number] {
  const [, from, to] = /^(\d+)-(\d+)$/.exec(text) ?? [];
  if (from === undefined || to === undefined || Number(from) >= Number(to))
    throw new ProgramFault('port-range-invalid', { range: text });
  return [readPort(from), readPort(to)];
}

function tryListen(port: number, host?: string): Promise<number> {
  return new Promise((resolve, reject) => {
    const server = createServer();
    server.once('error', reject);
    server.listen(port, host, () => {
      const address = server.address();
      server.close(() => resolve(typeof address === 'object' && address !== null ? address.port : port));
    });
  });
}

/** Rejects with a ProgramFault when a port cannot be opened. */
export async function mustBeFree(port: number): Promise<void> {
  await tryListen(port).catch((error: NodeJS.ErrnoException) => {
    throw listenFault(error, port);
  });
}

/** Gives loopback ports that are free now, never the same one twice: the system may offer one again that was let go. */
export function distinctLoopbackPorts(): () => Promise<number> {
  const given = new Set<number>();
  const next = async (): Promise<number> => {
    const port = await freeLoopbackPort();
    if (given.has(port)) return next();
    given.add(port);
    return port;
  };
  return next;
}

/** A loopback port that is free now. */
export function freeLoopbackPort(): Promise<number> {
  return tryListen(0, '127.0.0.1');
}
