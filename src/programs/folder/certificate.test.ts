import { X509Certificate } from 'node:crypto';
import { mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { ProgramFault } from '../faults/program-faults';
import { ensureCertificate, fingerprintOf, readCertificate } from './certificate';

const DAY_MS = 24 * 3600_000;
const NOW_MS = Date.UTC(2026, 10, 27, 9);

let folder: string;
const pair = (name: string) => ({ certFile: join(folder, `${name}.pem`), keyFile: join(folder, `${name}-key.pem`) });
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'bent-straw-certificate-'));
});
afterEach(() => rmSync(folder, { recursive: true }));

const faultOf = (certFile?: string, keyFile?: string) => {
  try {
    return readCertificate(certFile, keyFile);
  } catch (error) {
    if (error instanceof ProgramFault) return error;
    throw error;
  }
};

describe('a certificate of one’s own', () => {
  it('needs both halves, and none is no fault', () => {
    expect(faultOf()).toBeNull();
    for (const half of [faultOf('a.pem'), faultOf(undefined, 'a-key.pem')])
      expect(half).toMatchObject({ code: 'certificate-half' });
  });

  it('is refused before the program starts where it is missing, is no certificate, or has another’s key', async () => {
    const [one, other] = [pair('one'), pair('other')];
    await ensureCertificate(one, [], NOW_MS);
    await ensureCertificate(other, [], NOW_MS);
    expect(faultOf(one.certFile, one.keyFile)).toEqual(one);
    const garbage = join(folder, 'garbage.pem');
    writeFileSync(garbage, 'no certificate');
    for (const [cert, key] of [
      [join(folder, 'nothing.pem'), one.keyFile],
      [garbage, one.keyFile],
      [one.certFile, other.keyFile],
      [one.certFile, garbage],
    ] as const) {
      const fault = faultOf(cert, key);
      expect(fault).toMatchObject({ code: 'certificate-unusable' });
      expect((fault as ProgramFault).message).toContain(cert);
    }
  });
});

describe('the certificate that this program makes', () => {
  it('names this machine by all that it is called, is made once, and made anew a month before it ends', async () => {
    const files = pair('made');
    await ensureCertificate(files, ['192.0.2.20', '2001:db8::20'], NOW_MS);
    const first = fingerprintOf(files.certFile);
    const { subjectAltName, validTo } = new X509Certificate(readFileSync(files.certFile));
    for (const name of ['DNS:localhost', '127.0.0.1', '192.0.2.20', '2001:DB8:0:0:0:0:0:20'])
      expect(subjectAltName).toContain(name);
    await ensureCertificate(files, [], NOW_MS + 700 * DAY_MS);
    expect(fingerprintOf(files.certFile)).toBe(first);
    await ensureCertificate(files, [], Date.parse(validTo) - 29 * DAY_MS);
    expect(fingerprintOf(files.certFile)).not.toBe(first);
    expect(first).toMatch(/^([0-9A-F]{2}:){31}[0-9A-F]{2}$/);
  });

  it('keeps its key to itself', async () => {
    const files = pair('made');
    await ensureCertificate(files, [], NOW_MS);
    expect(statSync(files.keyFile).mode & 0o077).toBe(0);
  });
});
