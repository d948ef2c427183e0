import { execFileSync } from 'node:child_process';
import { existsSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { hiddenFromService, systemdUnit } from './systemd-unit';

const of = (program: string) =>
  systemdUnit({ what: 'agent', state: 'bent-straw', words: [process.execPath, program, 'serve'] });
const valueOf = (unit: string, key: string) => new RegExp(`^${key}=(.*)$`, 'm').exec(unit)?.[1];

describe('the unit of an agent', () => {
  it('starts with the network, comes back whatever happens, and may write its state alone', () => {
    const unit = of('/opt/straw/agent.mjs');
    expect(valueOf(unit, 'ExecStart')).toBe(`${process.execPath} /opt/straw/agent.mjs serve`);
    expect(valueOf(unit, 'Restart')).toBe('always');
    expect(valueOf(unit, 'After')).toBe('network-online.target');
    expect([valueOf(unit, 'DynamicUser'), valueOf(unit, 'ProtectSystem')]).toEqual(['yes', 'strict']);
    expect(valueOf(unit, 'StateDirectory')).toBe('bent-straw');
  });

  it('keeps a path with blanks, quotes, percent and dollar signs as it is', () => {
    const unit = of('/opt/my "straw"/100 %/$HOME/agent.mjs');
    expect(valueOf(unit, 'ExecStart')).toContain('"/opt/my \\"straw\\"/100 %%/$$HOME/agent.mjs"');
  });

  it('hides what people have at home from the service, which is known beforehand', () => {
    const words = ['/root/.nvm/bin/node', '/opt/straw/dist/launch.js', '--data', '/home/ines/data', '/run/user/0/x'];
    expect(hiddenFromService(words)).toEqual(['/root/.nvm/bin/node', '/home/ines/data', '/run/user/0/x']);
    expect(hiddenFromService(['/usr/bin/node', '/srv/root/x', '/var/lib/home/x', 'root'])).toEqual([]);
    expect(valueOf(of('/opt/straw/agent.mjs'), 'ProtectHome')).toBe('yes');
  });

  it('slows down only what is meant to be small', () => {
    const options = { what: 'x', state: 'x', words: ['x'] };
    expect(systemdUnit(options)).not.toMatch(/MemoryHigh|MALLOC/);
    expect(valueOf(systemdUnit({ ...options, memory: '200M' }), 'MemoryHigh')).toBe('200M');
    expect(systemdUnit({ ...options, memory: '200M' })).toMatch(
      /\nEnvironment=MALLOC_ARENA_MAX=1 MALLOC_TRIM_THRESHOLD_=131072 MALLOC_MMAP_THRESHOLD_=131072\n/,
    );
  });

  const ANALYZE = '/usr/bin/systemd-analyze';
  (existsSync(ANALYZE) ? it : it.skip)('is one that systemd understands', () => {
    const folder = mkdtempSync(join(tmpdir(), 'bent-straw-'));
    const [program, unit] = [join(folder, 'agent.mjs'), join(folder, 'bent-straw-agent.service')];
    writeFileSync(program, '');
    writeFileSync(unit, of(program));
    expect(execFileSync(ANALYZE, ['verify', unit], { encoding: 'utf8', stdio: 'pipe' })).toBe('');
    rmSync(folder, { recursive: true });
  });
});
