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

/**
 * The same line of a file, in whichever file it stands, is the same run: its id is made of what it says. It begins with the
 * time, so that runs that lie beside each other in time do so in each index.
 */
function idOf(siteId: string, run: ImportedRun): string {
  const { startedAtMs, device, link, reach, peer, downBps, upBps, idleMs, jitterMs, addedMs, lossShare } = run;
  const said = [siteId, device, link, reach, peer, downBps, upBps, idleMs, jitterMs, addedMs, lossShare];
  const hash = createHash('sha256').update(JSON.stringify(said)).digest('hex');
  return `${startedAtMs.toString(16).padStart(12, '0')}${hash.slice(0, 20)}`;
}

const LONGEST_TAG = 40;
function tagsOf(own: readonly string[], tag: string): readonly string[] {
  const all = tag === '' ? own : [...own, tag];
  return all.length < 2 ? all : [...new Set(all.map((each) => each.slice(0, LONGEST_TAG)))];
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
      // One plain object: there are hundreds of thousands of them, and spreading takes twenty times as long.
      return {
        id,
        setId: run.set === null ? id : `${siteId} ${run.set}`,
        deviceId: deviceIds.get(foldedName(run.device)) ?? '',
        lineId: run.line === null ? null : (lineIds.get(foldedName(run.line)) ?? null),
        deviceName: run.device,
        spotName: run.spot,
        peerName: run.peer,
        lineName: run.line,
        reach: run.reach,
        link: LINKS[run.link],
        linkKind: run.link,
        profile: run.profile ?? 'unknown',
        startedAtMs: run.startedAtMs,
        endedAtMs: run.endedAtMs,
        downBps: run.downBps,
        upBps: run.upBps,
        idleMs: run.idleMs,
        addedMs: run.addedMs,
        brief: briefOfImported(run),
        notes: run.notes,
        tags: tagsOf(run.tags, tag),
      };
    },
  };
}
export type ImportRows = Awaited<ReturnType<typeof importRows>>;
