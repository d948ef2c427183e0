import { createHash } from 'node:crypto';
import { realpathSync, rmSync } from 'node:fs';
import { connect, createServer, type Server } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/** The longest path that a socket of every system takes. */
const LONGEST_PATH = 100;
const ANSWER_WITHIN_MS = 1000;

/** Where the owner of a folder listens: in the folder, or, where that path is too long, beside other temporary files. */
function lockPath(folder: string): string {
  const whole = realpathSync(folder);
  const name = createHash('sha256').update(whole).digest('hex').slice(0, 24);
  if (process.platform === 'win32') return `\\\\.\\pipe\\bent-straw-${name}`;
  const inside = join(whole, 'in-use');
  return inside.length <= LONGEST_PATH ? inside : join(tmpdir(), `bent-straw-${name}`);
}

function listen(path: string): Promise<Server> {
  return new Promise((resolve, reject) => {
    // Tells whoever asks which process it is.
    const server = createServer((socket) => socket.end(String(process.pid)));
    server.once('error', reject);
    server.listen(path, () => resolve(server));
  });
}

/** The process that owns a lock; null when nobody does: what lies there was left by one that is gone. */
function ownerOf(path: string): Promise<number | null> {
  return new Promise((resolve) => {
    let said = '';
    const socket = connect(path);
    socket.setTimeout(ANSWER_WITHIN_MS, () => socket.destroy());
    socket.on('data', (part: Buffer) => (said += part.toString()));
    socket.on('error', () => resolve(null));
    // One that is there and says nothing is there all the same.
    socket.on('close', () => resolve(Number(said) || 0));
  });
}

/**
 * Takes a folder for this process alone, by a socket that it owns: the system lets go of it with the process, whatever
 * its id, and after a restart of the machine nobody has it. Gives what lets go, or the process that has it.
 */
export async function lockFolder(folder: string): Promise<{ release(): void } | { readonly heldBy: number }> {
  const path = lockPath(folder);
  const held = (server: Server) => {
    server.unref();
    return { release: () => void server.close() };
  };
  try {
    return held(await listen(path));
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code !== 'EADDRINUSE') throw error;
  }
  const owner = await ownerOf(path);
  if (owner !== null) return { heldBy: owner };
  rmSync(path, { force: true });
  try {
    return held(await listen(path));
  } catch {
    return { heldBy: (await ownerOf(path)) ?? 0 };
  }
}
