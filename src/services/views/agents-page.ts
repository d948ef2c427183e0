import { linkChangeWords, machineSentence } from '@/core';
import type { StoredAgent, StoredLinkChange, StoredNeighbour } from '@/store';
import { isMadeUp, makersOf } from '../agents/makers';
import type { ConsoleContext } from '../console/console-context';

const DAY_MS = 24 * 3600_000;
/** So long what changed of a link is told. */
const CHANGES_MS = 30 * DAY_MS;
/** Who was not heard for so long is not here. */
const HEARD_MS = 7 * DAY_MS;
/** A clock that is off by more is worth telling, ms. */
const CLOCK_OFF_MS = 2000;

/** An agent as it is shown. */
export interface ShownAgent extends Pick<StoredAgent, 'deviceId' | 'version' | 'facts' | 'joinedAtMs' | 'outbox'> {
  readonly name: string;
  readonly spotName: string | null;
  readonly present: boolean;
  /** Measures just now. */
  readonly busy: boolean;
  readonly seenAtMs: number;
  /** How it is connected, as a sentence. */
  readonly sentence: string;
  /** Whether it is of another version than this console: it goes on working, and is to be fetched anew. */
  readonly otherVersion: boolean;
  /** How far its clock is off, ms; null: not worth telling. */
  readonly clockOffMs: number | null;
  readonly lastRunAtMs: number | null;
}

/** A fact of a link that changed, as a sentence. */
export interface ShownLinkChange extends Pick<StoredLinkChange, 'id' | 'deviceId' | 'atMs' | 'seenAtMs'> {
  readonly deviceName: string;
  readonly sentence: string;
}

/** Somebody else on the network of the office. */
export interface ShownNeighbour extends Pick<StoredNeighbour, 'mac' | 'address' | 'name' | 'firstAtMs' | 'lastAtMs'> {
  /** Nobody has said yet that he knows it. */
  readonly fresh: boolean;
  /** The agent that it is; null: none of ours. */
  readonly agentName: string | null;
  /** Who made its network interface; null: the registry does not say. */
  readonly maker: string | null;
  /** Its address is one that it made up by itself, as phones do. */
  readonly madeUp: boolean;
}

export interface AgentsPage {
  /** Of the last week. */
  readonly neighbours: readonly ShownNeighbour[];
  readonly agents: readonly ShownAgent[];
  readonly changes: readonly ShownLinkChange[];
  /** Agents of all offices that stand by and can serve as the far end of a run, those of this office first. */
  readonly farEnds: readonly { readonly deviceId: string; readonly name: string; readonly isHere: boolean }[];
}

/** Who could be one of the two ends of a run between machines. */
async function farEndsFor({ store, standing }: ConsoleContext, siteId: string): Promise<AgentsPage['farEnds']> {
  const sites = await store.sites.all();
  const found = await Promise.all(
    sites.map(async ({ id, name: office }) => {
      const [agents, devices] = await Promise.all([store.agents.ofSite(id), store.sites.devicesOf(id)]);
      return agents
        .filter(({ deviceId, can }) => can.includes('far-end') && standing.isPresent(deviceId))
        .flatMap(({ deviceId }) => {
          const name = devices.find((device) => device.id === deviceId)?.name;
          const isHere = id === siteId;
          return name === undefined ? [] : [{ deviceId, name: isHere ? name : `${name}, ${office}`, isHere }];
        });
    }),
  );
  return found.flat().sort((one, other) => Number(other.isHere) - Number(one.isHere));
}

/** The machines of an office that stand by without a person. */
export async function agentsPageOf(context: ConsoleContext, siteId: string): Promise<AgentsPage> {
  const { agents, sites, turns } = context.store;
  const nowMs = context.wallMs();
  const [found, devices, spots, changes, open, lastRuns, heard] = await Promise.all([
    agents.ofSite(siteId),
    sites.devicesOf(siteId),
    sites.spotsOf(siteId),
    agents.changesOf(siteId, nowMs - CHANGES_MS),
    turns.open(),
    agents.lastRuns(siteId),
    agents.neighboursOf(siteId, nowMs - HEARD_MS),
  ]);
  const makers = await makersOf(
    context,
    heard.map(({ mac }) => mac),
  );
  const deviceOf = (id: string) => devices.find((device) => device.id === id);
  const busy = new Set(open.filter(({ status }) => status === 'running').map(({ deviceId }) => deviceId));
  const shown = found.map((agent): ShownAgent => {
    const device = deviceOf(agent.deviceId);
    const present = context.standing.isPresent(agent.deviceId);
    return {
      ...{ deviceId: agent.deviceId, version: agent.version, facts: agent.facts, outbox: agent.outbox },
      joinedAtMs: agent.joinedAtMs,
      name: device?.name ?? '',
      spotName: spots.find(({ id }) => id === device?.spotId)?.name ?? null,
      ...{ present, busy: busy.has(agent.deviceId), seenAtMs: present ? nowMs : agent.seenAtMs },
      sentence: machineSentence(agent.facts),
      otherVersion: agent.version !== context.version,
      clockOffMs: Math.abs(agent.clockOffsetMs) > CLOCK_OFF_MS ? agent.clockOffsetMs : null,
      lastRunAtMs: lastRuns.get(agent.deviceId) ?? null,
    };
  });
  const agentAt = (address: string) =>
    shown.find(({ facts }) => facts.links.some(({ addresses }) => addresses.includes(address)));
  return {
    neighbours: heard.map(({ mac, address, name, firstAtMs, lastAtMs, knownAtMs }) => ({
      ...{ mac, address, name, firstAtMs, lastAtMs, fresh: knownAtMs === null },
      agentName: agentAt(address)?.name ?? null,
      maker: makers.get(mac) ?? null,
      madeUp: isMadeUp(mac),
    })),
    agents: shown,
    farEnds: await farEndsFor(context, siteId),
    changes: changes.map(({ id, deviceId, atMs, seenAtMs, ...change }) => ({
      ...{ id, deviceId, atMs, seenAtMs },
      deviceName: deviceOf(deviceId)?.name ?? 'a device that was removed',
      sentence: linkChangeWords(change),
    })),
  };
}
