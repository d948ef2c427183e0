import WebSocket from 'ws';
import { oneRun, postTo } from '@/agent';
import { LOOK_KINDS, type Link, type LookAsked, type MachineFacts } from '@/core';
import { DEVICE_COOKIE } from '@/services/access/device-cookie';
import { memoryOutbox } from '@/session';
import {
  AGENT_PROTOCOL,
  DEMO_AGENT_VERSION,
  standingOrderSchema,
  type LookOutcome,
  type RunGrant,
  type StandingAnswer,
  type StandingOrder,
} from '@/wire';
import { STANDING_PATH } from '@/wire/console/device';
import { programVersion } from '../folder/version';
import { demoNeighbours } from './scenario';
import type { SimulatedDevice } from './simulated-devices';
import { takeSimulatedLook } from './simulated-looks';
import { watchAsAgent } from './watch-as-agent';

const BACK_AFTER_MS = 2000;

type Asked = Extract<StandingOrder, { kind: 'asked' }>;

/** Its link stands between it and whatever it was sent to. */
function overItsLink(grant: RunGrant, { ways }: SimulatedDevice): RunGrant {
  const url = new URL(grant.peer.baseUrl);
  const way = ways[Number(url.port)];
  if (way === undefined) return grant;
  return { ...grant, peer: { ...grant.peer, baseUrl: `http://127.0.0.1:${way}` } };
}

/** Runs as a browser would that was asked to; what became of it stands in the record. */
async function measure(origin: string, device: SimulatedDevice, asked: Asked): Promise<void> {
  await oneRun({
    ...{ origin, post: postAs(origin, device), outbox: memoryOutbox() },
    order: {
      ...{ code: null, deviceId: device.deviceId, holdMs: 0 },
      ...{ deviceName: null, deviceKind: null, spotName: device.spotName, link: device.link },
      ...{ reach: asked.reach, profile: asked.profile, told: [], noticed: [], turnId: asked.turnId },
      ...{ loadsWeb: false, pacedMbps: null },
    },
    authenticated: true,
    agentVersion: DEMO_AGENT_VERSION,
    reroute: (grant) => overItsLink(grant, device),
    onProgress: () => undefined,
    onWaiting: () => undefined,
    signal: new AbortController().signal,
  });
}

/** What an agent says of itself when it begins to stand by. */
const helloOf = (facts: MachineFacts): StandingAnswer => ({
  kind: 'hello',
  hello: {
    version: programVersion(),
    protocol: AGENT_PROTOCOL,
    facts,
    clockMs: Date.now(),
    can: [...LOOK_KINDS, 'lanes', 'stamp', 'load', 'path-load'],
    outbox: 0,
    neighbours: demoNeighbours(facts.gateway?.address ?? '198.51.100.1'),
  },
});

function postAs(origin: string, { deviceId, deviceName, cookie }: SimulatedDevice) {
  return postTo(origin, deviceName, { of: () => ({ id: deviceId, cookie }), remember: () => undefined });
}

/** Finds what there is to find in the demo's network. */
async function look(origin: string, device: SimulatedDevice, id: string, asked: LookAsked, signal: AbortSignal) {
  const post = postAs(origin, device);
  const found = await takeSimulatedLook(asked, device.machine?.gateway?.address ?? '198.51.100.1', signal);
  const outcome: LookOutcome =
    found === null
      ? { ok: false, code: 'look-stopped', sentence: 'It was stopped before it was done.' }
      : { ok: true, found };
  await post(`/api/v1/looks/${encodeURIComponent(id)}/outcome`, outcome);
}

/** Stands by as a device of the demo and measures when it is asked to. Returns what ends it. */
export function standAsDevice(
  origin: string,
  device: SimulatedDevice,
  linkOf: (device: SimulatedDevice) => Link,
  onTrouble: (sentence: string) => void,
  laneFolder: string,
): () => void {
  const isPage = device.machine === null;
  let over = false;
  let socket: WebSocket | null = null;
  const timers = new Set<ReturnType<typeof setTimeout>>();
  const later = (act: () => void, ms: number) => {
    const timer = setTimeout(() => {
      timers.delete(timer);
      act();
    }, ms);
    timers.add(timer);
    return timer;
  };
  let looking = new AbortController();
  let begin: ReturnType<typeof setTimeout> | undefined;

  const watch =
    device.machine === null
      ? null
      : watchAsAgent(origin, laneFolder, postAs(origin, device), (beats) => {
          if (socket?.readyState === WebSocket.OPEN) socket.send(JSON.stringify({ kind: 'beats', beats }));
        });
  const hear = (order: StandingOrder) => {
    switch (order.kind) {
      case 'lanes':
        watch?.clock.learn(order.nowMs);
        watch?.lanes.set(order.lanes, order.live);
        return;
      case 'asked':
        begin = later(() => {
          // A page that measures does not stand by meanwhile; an agent does.
          if (isPage) socket?.close();
          void measure(origin, { ...device, link: linkOf(device) }, order)
            .catch((error: Error) => onTrouble(`${device.deviceName} did not measure: ${error.message}`))
            .finally(() => isPage && open());
        }, order.inMs);
        return;
      case 'look':
        looking = new AbortController();
        void look(origin, device, order.lookId, order.asked, looking.signal).catch((error: Error) =>
          onTrouble(`${device.deviceName} did not look: ${error.message}`),
        );
        return;
      case 'look-withdrawn':
        looking.abort();
        return;
      case 'withdrawn':
        clearTimeout(begin);
        return;
      // No device of the demo says that it can.
      case 'serve':
      case 'serve-over':
        return;
      case 'dismissed':
        // Removed, or a real browser stands by as this device: that one is it from now on.
        over = true;
    }
  };
  let measuring = false;
  const open = () => {
    measuring = false;
    if (over) return;
    const opened = new WebSocket(`${origin.replace(/^http/, 'ws')}${STANDING_PATH}`, {
      headers: { Cookie: `${DEVICE_COOKIE}=${device.cookie}` },
    });
    socket = opened;
    opened.on('open', () => {
      if (device.machine !== null) opened.send(JSON.stringify(helloOf(device.machine)));
    });
    opened.on('message', (data: Buffer) => {
      const order = standingOrderSchema.safeParse(JSON.parse(data.toString())).data;
      if (order === undefined) return;
      measuring ||= isPage && order.kind === 'asked';
      hear(order);
      if (order.kind === 'withdrawn') measuring = false;
    });
    opened.on('error', () => undefined);
    opened.on('close', () => {
      if (!over && !measuring) later(open, BACK_AFTER_MS);
    });
  };
  open();
  return () => {
    over = true;
    looking.abort();
    void watch?.lanes.close();
    for (const timer of timers) clearTimeout(timer);
    socket?.terminate();
  };
}
