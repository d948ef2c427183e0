import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';

/** What the lab uses of the system, and the Debian package that has it. */
const TOOLS: Readonly<Record<string, string>> = {
  ip: 'iproute2',
  tc: 'iproute2',
  nft: 'nftables',
  ping: 'iputils-ping',
  sysctl: 'procps',
  pkill: 'procps',
  cc: 'gcc',
};

const has = (tool: string) => spawnSync('sh', ['-c', `command -v ${tool}`]).status === 0;

/** The process of a lab that is under way: its namespaces are named after it. */
function otherLab(): number | null {
  const names = spawnSync('ip', ['netns', 'list'], { encoding: 'utf8' }).stdout;
  const pids = [...names.matchAll(/^straw(\d+)-/gm)].map(([, pid]) => Number(pid));
  return pids.find((pid) => pid !== process.pid && existsSync(`/proc/${pid}`)) ?? null;
}

/** Installs what is missing, where it may; `more`: what one table needs besides. Gives the sentence that says why the lab cannot run here; null when it can. */
export function readyForLab(more: Readonly<Record<string, string>> = {}): Promise<string | null> {
  if (process.getuid?.() !== 0)
    return Promise.resolve('The lab makes network namespaces and needs root. Run it again as root: sudo npm run lab.');
  const packages = [
    ...new Set(Object.entries({ ...TOOLS, ...more }).flatMap(([tool, name]) => (has(tool) ? [] : [name]))),
  ];
  if (packages.length > 0) {
    console.error(`Installing ${packages.join(', ')} …`);
    spawnSync('apt-get', ['update'], { stdio: 'ignore' });
    const installed = spawnSync('apt-get', ['install', '-y', '--no-install-recommends', ...packages]);
    if (installed.status !== 0)
      return Promise.resolve(
        `The lab needs ${packages.join(', ')}, which could not be installed. Install them and run it again.`,
      );
  }
  const other = otherLab();
  if (other !== null)
    return Promise.resolve(
      `Another lab runs as process ${other}; two at once spoil each other's figures. Wait for it, or stop it: kill ${other}.`,
    );
  const trial = `straw${process.pid}-trial`;
  const made = spawnSync('ip', ['netns', 'add', trial]);
  spawnSync('ip', ['netns', 'del', trial]);
  if (made.status !== 0)
    return Promise.resolve('This machine does not let network namespaces be made, so the lab cannot run here.');
  if (!existsSync('/dev/net/tun'))
    return Promise.resolve(
      'There is no /dev/net/tun here, so the lab can make no delay. Load the module tun and run it again.',
    );
  return Promise.resolve(null);
}
