import { chmodSync, existsSync, mkdirSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { lockFolder } from './folder-lock';
import { ensureKeyFile } from './key-file';
import { ProgramFault } from '../faults/program-faults';

export type DataFiles = ReturnType<typeof dataFiles>;

/** What lies in the data folder. */
export function dataFiles(folder: string) {
  return {
    database: join(folder, 'bent-straw.sqlite'),
    signingKey: join(folder, 'console-key.pem'),
    peerKey: join(folder, 'peer-key.pem'),
    demoPeerKey: join(folder, 'demo-peer-key.pem'),
    /** The demo prints the passphrase that it made up. */
    demoPassphrase: join(folder, 'demo-passphrase.txt'),
    /** There as long as the demo's history is being written. */
    demoUnfinished: join(folder, 'demo-unfinished'),
    /** The demo's lines, its devices, and the lines that stand for the links of these. */
    practiceLines: join(folder, 'practice-lines.json'),
    demoDevices: join(folder, 'demo-devices.json'),
    demoLinks: join(folder, 'demo-links.json'),
    certificate: { certFile: join(folder, 'certificate.pem'), keyFile: join(folder, 'certificate-key.pem') },
    /** What each part writes down, one file after the other. */
    log: join(folder, 'log'),
    /** What the agent of this machine must remember. */
    ownAgent: join(folder, 'own-agent'),
    /** Nightly copies, one folder each. */
    backups: join(folder, 'backups'),
    uploads: join(folder, 'uploads'),
    trial: join(folder, 'write-trial'),
  };
}

const TRIAL_BYTES = 256 * 1024;

/** Closes to others what an earlier version, or somebody, left open: keys, passphrases' hashes and results lie here. */
function closeToOthers(folder: string): void {
  const { database, signingKey, peerKey, demoPeerKey, demoPassphrase, certificate } = dataFiles(folder);
  const files = [database, `${database}-wal`, `${database}-shm`, signingKey, peerKey, demoPeerKey, demoPassphrase];
  try {
    chmodSync(folder, 0o700);
    for (const file of [...files, certificate.keyFile]) if (existsSync(file)) chmodSync(file, 0o600);
  } catch {
    // A file system without such rights, or a folder of somebody else who lets this user write.
  }
}

function removeTrial(file: string): void {
  try {
    rmSync(file, { force: true });
  } catch {
    // It was never made.
  }
}

/**
 * Makes the folder if needed, tries whether it takes a write (also when run as root, on a read-only or full disk),
 * makes the signing key once, and takes the folder for this process alone. Returns what lets go. Throws ProgramFault.
 */
export async function openDataFolder(folder: string): Promise<() => void> {
  const files = dataFiles(folder);
  try {
    mkdirSync(folder, { recursive: true, mode: 0o700 });
    writeFileSync(files.trial, Buffer.alloc(TRIAL_BYTES), { flush: true });
    rmSync(files.trial);
  } catch (error) {
    removeTrial(files.trial);
    const reason = (error as NodeJS.ErrnoException).code ?? String(error);
    if (reason === 'ENOSPC' || reason === 'EDQUOT') throw new ProgramFault('data-full', { folder });
    throw new ProgramFault('data-not-writable', { folder, reason });
  }
  const lock = await lockFolder(folder);
  if ('heldBy' in lock) throw new ProgramFault('data-in-use', { folder, pid: lock.heldBy });
  ensureKeyFile(files.signingKey);
  closeToOthers(folder);
  return () => lock.release();
}
