import type { PracticeDocument } from '@/peer';
import { DEMO_PORTS } from './demo-ports';
import { MILL_LANE, QUAY_STREET, TUNNEL_SHARE, type DemoLine } from './scenario';

type PracticeLine = PracticeDocument['lines'][number];

function line({ name, roundTripMs, downMbps, downQueueMs, upMbps, upQueueMs }: DemoLine, from: number, to: number) {
  return {
    ...{ name, listenPort: from, to: { host: '127.0.0.1', port: to }, roundTripMs },
    down: { rateMbps: downMbps, queueMs: downQueueMs },
    up: { rateMbps: upMbps, queueMs: upQueueMs },
  } satisfies PracticeLine;
}

/** In each direction the slower of what one line sends and the other receives, less the tunnel's own headers. */
function tunnel(name: string, own: DemoLine, far: DemoLine, from: number, to: number): PracticeLine {
  const rate = (sends: number, receives: number) => Math.min(sends, receives) * TUNNEL_SHARE;
  return {
    ...{ name, listenPort: from, to: { host: '127.0.0.1', port: to } },
    roundTripMs: own.roundTripMs + far.roundTripMs,
    down: { rateMbps: rate(far.upMbps, own.downMbps), queueMs: far.upQueueMs },
    up: { rateMbps: rate(own.upMbps, far.downMbps), queueMs: own.upQueueMs },
  };
}

/** A link of a simulated device, towards one of the addresses that it measures against. */
export interface DevicePractice {
  readonly name: string;
  readonly plays: {
    readonly downMbps: number;
    readonly upMbps: number;
    readonly queueMs: number;
    readonly roundTripMs: number;
  };
  readonly listenPort: number;
  readonly toPort: number;
}

/** The demo's practice lines, as the JSON document that the practice program reads. */
export function demoPracticeDocument(frontPort: number): PracticeDocument {
  const at = (place: keyof typeof DEMO_PORTS) => frontPort + DEMO_PORTS[place];
  const [mill, quay] = [MILL_LANE.line, QUAY_STREET.line];
  return {
    lines: [
      line(mill, at('millLine'), at('outsidePeer')),
      line(quay, at('quayLine'), at('outsidePeer')),
      tunnel('tunnel from Mill Lane', mill, quay, at('millTunnel'), at('front')),
      tunnel('tunnel from Quay Street', quay, mill, at('quayTunnel'), at('front')),
    ],
  };
}

/** The links of the simulated devices, as practice lines in front of what they measure against. */
export function devicePracticeDocument(devices: readonly DevicePractice[]): PracticeDocument {
  return {
    lines: devices.map(({ name, plays, listenPort, toPort }) => ({
      ...{ name, listenPort, to: { host: '127.0.0.1', port: toPort }, roundTripMs: plays.roundTripMs },
      down: { rateMbps: plays.downMbps, queueMs: plays.queueMs },
      up: { rateMbps: plays.upMbps, queueMs: plays.queueMs },
    })),
  };
}
