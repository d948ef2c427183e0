import { connect } from 'node:net';
import { setTimeout as sleep } from 'node:timers/promises';
import { igdCounters, openLoadCounters } from '@/agent/lanes/load-counters';
import { openLoadProbe } from '@/agent/lanes/load-probe';
import { lineUseOf, type Lane, type LoadStep } from '@/core';
import { LabRouter, ROUTER, type KernelCount } from '../net/lab-router';
import { percentOf, Table } from './table';

const EVERY_MS = 15_000;
const OTHERS_MBPS = [10, 50, 180, 500] as const;
const OWN_MBPS = 200;
const BESIDE_MS = 50_000;
const RUN_MS = 25_000;
const COUNT_EVERY_MS = 400;

/** What the kernel had counted at a moment, between two of its readings. */
function bytesAt(counts: readonly KernelCount[], atMs: number): number {
  const after = counts.findIndex((count) => count.atMs >= atMs);
  const [one, other] = [counts[after - 1]!, counts[after]!];
  return one.bytes + ((other.bytes - one.bytes) * (atMs - one.atMs)) / (other.atMs - one.atMs);
}
const meanMbps = (counts: readonly KernelCount[], fromMs: number, untilMs: number) =>
  (8 * (bytesAt(counts, untilMs) - bytesAt(counts, fromMs))) / 1000 / (untilMs - fromMs);

/** Takes what comes for a while: as a run does. Payload bytes, and when. */
async function ownRun({ host, port }: LabRouter['server']) {
  const fromMs = Date.now();
  let downBytes = 0;
  const socket = connect(port, host);
  socket.on('data', (part) => (downBytes += part.length));
  await sleep(RUN_MS);
  socket.destroy();
  return { fromMs, untilMs: Date.now(), downBytes, upBytes: 0 };
}

/** What both ways of asking made of one load of others, with a run in the middle. */
async function oneLoad(router: LabRouter, others: number) {
  router.shape(OWN_MBPS, others);
  const stop = await router.others();
  const counts = { wan0: [] as KernelCount[], oth0: [] as KernelCount[] };
  const count = () => {
    for (const device of ['wan0', 'oth0'] as const) counts[device].push(router.counted(device));
  };
  const counting = setInterval(count, COUNT_EVERY_MS);
  const login = JSON.stringify({ community: router.community, port: 161, user: null });
  const ways = {
    SNMP: {
      target: `${ROUTER.inside}/${router.indexOf('wan0')}`,
      open: () => openLoadCounters(`${ROUTER.inside}/${router.indexOf('wan0')}`, login),
    },
    'UPnP IGD': { target: 'igd', open: () => igdCounters({ address: ROUTER.inside, port: 1900 }) },
  };
  const heard = Object.entries(ways).map(([name, { target, open }]) => {
    const steps: LoadStep[] = [];
    const lane: Lane = { id: name, name, kind: 'load-in', target, role: 'line', everyMs: EVERY_MS };
    const probe = openLoadProbe(lane, ({ atMs, ms }) => steps.push({ atMs, mbps: ms! }), Date.now, open);
    return { name, steps, probe };
  });
  await sleep(BESIDE_MS);
  const run = await ownRun(router.server);
  await sleep(BESIDE_MS);
  heard.forEach(({ probe }) => probe.close());
  clearInterval(counting);
  await stop();
  return heard.map(({ name, steps }) => {
    const off = steps
      .slice(0, -1)
      .map(({ atMs, mbps }, place) => mbps / meanMbps(counts.wan0, atMs, steps[place + 1]!.atMs) - 1);
    const use = lineUseOf({ down: steps, up: [] }, run, EVERY_MS);
    const truth = use === null ? null : meanMbps(counts.oth0, use.fromMs, use.untilMs);
    return { name, off, told: use?.downBps ?? null, truth };
  });
}

/** Others on the line, as Debian's snmpd and miniupnpd on a router tell it, held against the kernel's own count. */
export async function loadsTable(): Promise<void> {
  const missing = LabRouter.missing();
  if (missing !== null) return console.error(missing);
  const router = new LabRouter();
  await router.open();
  const table = new Table(
    'Loads: who else is on the line',
    `A router with Debian’s snmpd and miniupnpd, read every ${EVERY_MS / 1000} s; others at a steady rate, and in the middle a run of ${RUN_MS / 1000} s at ${OWN_MBPS} Mb/s.`,
    [
      'asked by',
      'others, Mb/s',
      'readings',
      'each against the kernel’s count of the port (worst)',
      'others around the run, Mb/s: told, counted',
      'off',
    ],
  );
  try {
    for (const others of OTHERS_MBPS)
      for (const { name, off, told, truth } of await oneLoad(router, others)) {
        const figures =
          told === null || truth === null
            ? ['not told', '–']
            : [`${(told / 1e6).toFixed(1)}, ${truth.toFixed(1)}`, `${(100 * (told / 1e6 / truth - 1)).toFixed(2)} %`];
        table.row(name, others, off.length, percentOf(off), ...figures);
      }
  } finally {
    await router.close();
  }
}
