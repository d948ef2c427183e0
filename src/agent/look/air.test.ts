import { chmodSync, mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { linuxView } from '../machine/linux/linux-view';
import { lookAtAir } from './air';
import { LookFault } from './look-fault';

/** A machine with a radio, whose programs print what they are told to. */
describe('what the radio hears', () => {
  let folder: string;
  const path = process.env['PATH'];
  beforeEach(() => {
    folder = mkdtempSync(join(tmpdir(), 'bent-straw-air-'));
    mkdirSync(join(folder, 'net/wlan7/phy80211'), { recursive: true });
    mkdirSync(join(folder, 'bin'));
    process.env['PATH'] = `${join(folder, 'bin')}:/bin:/usr/bin`;
  });
  afterEach(() => {
    process.env['PATH'] = path;
    rmSync(folder, { recursive: true });
  });
  const plays = (program: string, script: string) => {
    const file = join(folder, 'bin', program);
    writeFileSync(file, `#!/bin/sh\n${script}\n`);
    chmodSync(file, 0o755);
  };
  const look = () => lookAtAir(linuxView(join(folder, 'net')));
  const ONE = 'BSS 02:00:5e:00:53:a0(on wlan7)\\n\\tfreq: 2437.0\\n\\tsignal: -58.00 dBm\\n\\tSSID: Larkspur';
  const codeOf = (asked: Promise<unknown>) =>
    asked.catch((error: unknown) => (error instanceof LookFault ? error.code : error));

  it('is asked of iw, of the radio that there is', async () => {
    plays('iw', `[ "$2" = wlan7 ] && [ "$4" = "" ] && printf '${ONE}'`);
    expect(await look()).toMatchObject({ device: 'wlan7', by: 'iw', networks: [{ name: 'Larkspur' }] });
  });

  it('is what was heard lately where this user may not scan', async () => {
    plays('iw', `[ "$4" = dump ] && printf '${ONE}' && exit 0; exit 255`);
    expect(await look()).toMatchObject({ by: 'iw', networks: [{ name: 'Larkspur' }] });
  });

  it('is asked of NetworkManager where there is no iw', async () => {
    plays('iw', 'exit 1');
    plays('nmcli', `printf '*:02\\\\:00\\\\:5E\\\\:00\\\\:53\\\\:A0:Larkspur:2437 MHz:84:20 MHz\\n'`);
    expect(await look()).toMatchObject({ by: 'nmcli', networks: [{ name: 'Larkspur', own: true }] });
  });

  it('is said not to be known where nothing can be asked, or there is no radio', async () => {
    plays('iw', 'exit 1');
    plays('nmcli', 'exit 1');
    expect(await codeOf(look())).toBe('no-scan');
    expect(await codeOf(lookAtAir(linuxView(join(folder, 'none'))))).toBe('no-radio');
  });
});
