import { createHash } from 'node:crypto';
import { briefOfImported, foldedName, USUAL_MTU_BYTES, type ImportedRun, type Link, type LinkKind } from '@/core';
import type { ImportRow } from '@/store';
import type { ConsoleContext } from '../console/console-context';

/** What a link is of which only the kind is known. */
const LINKS: Readonly<Record<LinkKind, Link>> = {
  wired: { medium: 'wired', negotiatedBps: null, mtuBytes: USUAL_MTU_BYTES },
  wifi: { medium: 'wifi', band: null, linkRateBps: null },
  'wifi-2.4': { medium: 'wifi', band: '2.4', linkRateBps: null },
  'wifi-5': { medium: 'wifi', band: '5', linkRateBps: null },
  'wifi-6': { medium: 'wifi', band: '6', linkRateBps: null },
  tunnel: { medium: 'tunnel' },
  unknown: { medium: 'unknown' },
};

/** The same line of a file, in whichever file it stands, is the same run: its id is made of what it says. */
function idOf(siteId: string, run: ImportedRun): string {
  const { startedAtMs, device, link, reach, peer, downBps, upBps, idleMs, jitterMs, addedMs, lossShare } = run;
  const said = [siteId, startedAtMs, device, link, reach, peer, downBps, upBps, idleMs, jitterMs, addedMs, lossShare];
  return createHash('sha256').update(JSON.stringify(said)).digest('hex').slice(0, 32);
}

/** Makes rows of the record of what files say, for one office: its own devices and lines are known by their names. */
export async function importRows({ store }: Pick<ConsoleContext, 'store'>, siteId: string, tag: string) {
  const [devices, lines] = await Promise.all([store.sites.devicesOf(siteId), store.sites.linesOf(siteId)]);
  const idByName = (of: readonly { readonly id: string; readonly name: string }[]) =>
    new Map(of.map(({ id, name }) => [foldedName(name), id]));
  const [deviceIds, lineIds] = [idByName(devices), idByName(lines)];
  return {
    isDevice: (name: string) => deviceIds.has(foldedName(name)),
    rowOf: (run: ImportedRun): ImportRow => {
      const id = idOf(siteId, run);
      return {
        ...{ id, setId: run.set === null ? id : `${siteId} ${run.set}` },
        deviceId: deviceIds.get(foldedName(run.device)) ?? '',
        lineId: run.line === null ? null : (lineIds.get(foldedName(run.line)) ?? null),
        ...{ deviceName: run.device, spotName: run.spot, peerName: run.peer, lineName: run.line },
        ...{ reach: run.reach, link: LINKS[run.link], linkKind: run.link, profile: run.profile ?? 'unknown' },
        ...{ startedAtMs: run.startedAtMs, endedAtMs: run.endedAtMs },
        ...{ downBps: run.downBps, upBps: run.upBps, idleMs: run.idleMs, addedMs: run.addedMs },
        ...{ brief: briefOfImported(run), notes: run.notes },
        tags: [...new Set([...run.tags.map((each) => each.slice(0, 40)), ...(tag === '' ? [] : [tag])])],
      };
    },
  };
}
export type ImportRows = Awaited<ReturnType<typeof importRows>>;
