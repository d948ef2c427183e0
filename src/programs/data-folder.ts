import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { ensureKeyFile } from './key-file';
import { ProgramFault } from './program-faults';

/** What lies in the data folder. */
export function dataFiles(folder: string) {
  return {
    database: join(folder, 'bent-straw.sqlite'),
    signingKey: join(folder, 'console-key.pem'),
    peerKey: join(folder, 'peer-key.pem'),
    demoPeerKey: join(folder, 'demo-peer-key.pem'),
    /** The demo prints the passphrase that it made up. */
    demoPassphrase: join(folder, 'demo-passphrase.txt'),
    certificate: { certFile: join(folder, 'certificate.pem'), keyFile: join(folder, 'certificate-key.pem') },
    lock: join(folder, 'in-use-by'),
    trial: join(folder, 'write-trial'),
  };
}

const TRIAL_BYTES = 256 * 1024;

function removeTrial(file: string): void {
  try {
    rmSync(file, { force: true });
  } catch {
    // It was never made.
  }
}

function isAlive(pid: number): boolean {
  try {
    process.kill(pid, 0);
    return true;
  } catch (error) {
    return (error as NodeJS.ErrnoException).code === 'EPERM';
  }
}

/**
 * Makes the folder if needed, tries whether it takes a write (also when run as root, on a read-only or full disk),
 * makes the signing key once, and marks the folder as in use. Returns what lifts the mark. Throws ProgramFault.
 */
export function openDataFolder(folder: string): () => void {
  const files = dataFiles(folder);
  try {
    mkdirSync(folder, { recursive: true });
    writeFileSync(files.trial, Buffer.alloc(TRIAL_BYTES), { flush: true });
    rmSync(files.trial);
  } catch (error) {
    removeTrial(files.trial);
    const reason = (error as NodeJS.ErrnoException).code ?? String(error);
    if (reason === 'ENOSPC' || reason === 'EDQUOT') throw new ProgramFault('data-full', { folder });
    throw new ProgramFault('data-not-writable', { folder, reason });
  }
  const pid = existsSync(files.lock) ? Number(readFileSync(files.lock, 'utf8')) : NaN;
  if (Number.isInteger(pid) && pid !== process.pid && isAlive(pid))
    throw new ProgramFault('data-in-use', { folder, pid });
  writeFileSync(files.lock, String(process.pid));
  ensureKeyFile(files.signingKey);
  return () => rmSync(files.lock, { force: true });
}
