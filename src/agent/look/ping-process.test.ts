import { chmodSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { doLook } from './do-look';
import { LookFault } from './look-fault';
import { ping } from './ping-process';

const never = new AbortController().signal;
const codeOf = (look: Promise<unknown>) =>
  look.then(
    () => 'it worked',
    (error: unknown) => (error instanceof LookFault ? error.code : error),
  );

describe('ping of the system', () => {
  const before = process.env['PATH'];
  let folder: string;
  beforeEach(() => {
    folder = mkdtempSync(join(tmpdir(), 'bent-straw-ping-'));
  });
  afterEach(() => {
    process.env['PATH'] = before;
    rmSync(folder, { recursive: true });
  });
  /** One that says what another system's does. */
  const standIn = (said: string, exit: number) => {
    writeFileSync(join(folder, 'ping'), `#!/bin/sh\necho "${said}" >&2\nexit ${exit}\n`);
    chmodSync(join(folder, 'ping'), 0o755);
    process.env['PATH'] = `${folder}:${before}`;
  };

  it('reads what it says of this machine', async () => {
    const { events, address } = await ping('127.0.0.1', ['-c', '2', '-i', '0.2'], never);
    expect(address).toBe('127.0.0.1');
    expect(events).toHaveLength(2);
  });

  it('tells a name that nobody has from a machine without a ping', async () => {
    expect(await codeOf(ping('nobody.invalid', ['-c', '1'], never))).toBe('target-unknown');
    process.env['PATH'] = folder;
    expect(await codeOf(ping('127.0.0.1', ['-c', '1'], never))).toBe('no-ping');
  });

  it.each(['ping: socktype: SOCK_RAW: Operation not permitted', 'ping: Lacking privilege for icmp socket.'])(
    'that may not be used (%p) is said to be so',
    async (said) => {
      standIn(said, 2);
      expect(await codeOf(ping('127.0.0.1', ['-c', '1'], never))).toBe('no-ping');
    },
  );

  it.each([
    'ping: attic.example: Name or service not known',
    'ping: attic.example: Temporary failure in name resolution',
    'ping: attic.example: No address associated with hostname',
    'ping: unknown host',
  ])('that knows no address (%p) is said to be so', async (said) => {
    standIn(said, 2);
    expect(await codeOf(ping('attic.example', ['-c', '1'], never))).toBe('target-unknown');
  });

  it('of programs needs ss, and says how to get it', async () => {
    process.env['PATH'] = folder;
    const look = doLook({ what: 'programs', seconds: 1 }, never);
    expect(await codeOf(look)).toBe('no-ss');
    await expect(look).rejects.toThrow('Install iproute2, then try again.');
  });
});
