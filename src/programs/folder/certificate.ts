import { X509Certificate } from 'node:crypto';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { createSecureContext } from 'node:tls';
import { ProgramFault } from '../faults/program-faults';

/** Files with a certificate and its key, PEM. */
export interface CertificateFiles {
  readonly certFile: string;
  readonly keyFile: string;
}

const DAY_MS = 24 * 3600_000;
/** The longest that browsers take for a certificate that a person has accepted. */
const LIFE_MS = 825 * DAY_MS;
const RENEW_MS = 30 * DAY_MS;

/** A certificate of one's own, as given on the command line; null when none is. Throws ProgramFault when it is unusable. */
export function readCertificate(certFile?: string, keyFile?: string): CertificateFiles | null {
  if (certFile === undefined && keyFile === undefined) return null;
  if (certFile === undefined || keyFile === undefined) throw new ProgramFault('certificate-half');
  try {
    createSecureContext({ cert: readFileSync(certFile), key: readFileSync(keyFile) });
  } catch (error) {
    throw new ProgramFault('certificate-unusable', { file: certFile, reason: (error as Error).message });
  }
  return { certFile, keyFile };
}

function isFresh(certFile: string, nowMs: number): boolean {
  return Date.parse(new X509Certificate(readFileSync(certFile)).validTo) - nowMs > RENEW_MS;
}

/**
 * Makes a certificate for this machine's addresses where there is none yet, or where it is about to end. Browsers ask
 * before they trust it: nobody but this machine vouches for it.
 */
export async function ensureCertificate(
  files: CertificateFiles,
  addresses: readonly string[],
  nowMs: number,
): Promise<void> {
  if (existsSync(files.certFile) && existsSync(files.keyFile) && isFresh(files.certFile, nowMs)) return;
  const { generate } = await import('selfsigned');
  const made = await generate([{ name: 'commonName', value: 'Bent Straw' }], {
    keyType: 'ec',
    algorithm: 'sha256',
    notBeforeDate: new Date(nowMs - DAY_MS),
    notAfterDate: new Date(nowMs + LIFE_MS),
    extensions: [
      { name: 'basicConstraints', cA: false },
      { name: 'keyUsage', digitalSignature: true },
      { name: 'extKeyUsage', serverAuth: true },
      {
        name: 'subjectAltName',
        altNames: [
          { type: 2, value: 'localhost' },
          ...['127.0.0.1', '::1', ...addresses].map((ip) => ({ type: 7, ip }) as const),
        ],
      },
    ],
  });
  writeFileSync(files.keyFile, made.private, { mode: 0o600, flush: true });
  writeFileSync(files.certFile, made.cert, { flush: true });
}

/** SHA-256 of a certificate, as browsers show it: what a person compares before accepting it. */
export function fingerprintOf(certFile: string): string {
  return new X509Certificate(readFileSync(certFile)).fingerprint256;
}
