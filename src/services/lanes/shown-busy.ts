import { busyTimes, busyWords, isLoad, type LaneKind, type LoadSteps } from '@/core';
import type { StoredLane } from '@/store';
import type { ConsoleContext } from '../console/console-context';
import { crossingOf } from '../office/line-choice';
import type { ShownSteps } from './steps-of-span';

type Read = Pick<StoredLane, 'id' | 'name' | 'kind' | 'role' | 'everyMs'> & { readonly steps: ShownSteps };

interface Reader {
  readonly deviceId: string;
  readonly lanes: readonly Read[];
}

/** So many are told, the newest. */
const MOST_BUSY = 40;

/** A time at which the line was busy, as the machine saw it that reads its router. */
export interface ShownBusyTime {
  readonly deviceId: string;
  readonly fromMs: number;
  readonly untilMs: number;
  readonly sentence: string;
}

const loadOf = ({ id, name, everyMs, steps }: Read): LoadSteps => ({
  ...{ laneId: id, name, stepMs: steps.stepMs === 0 ? everyMs : steps.stepMs },
  ...{ atMs: steps.atMs, mbps: steps.medianMs },
});

/** When the line was busy, as each machine that reads its router saw it, held against the plan of now; the newest first. */
export async function busyOf(context: ConsoleContext, siteId: string, machines: readonly Reader[]) {
  const { plan } = await crossingOf(context, siteId, { reach: 'internet' }, context.wallMs());
  if (plan === null) return [];
  const promised = { down: plan.downBps / 1e6, up: plan.upBps / 1e6 };
  return machines.flatMap(({ deviceId, lanes }) => {
    const loads = lanes.filter(({ kind }) => isLoad(kind));
    const ofLine = (kind: LaneKind) => loads.find((lane) => lane.role === 'line' && lane.kind === kind);
    const [down, up] = [ofLine('load-in'), ofLine('load-out')];
    const line = { down: down === undefined ? null : loadOf(down), up: up === undefined ? null : loadOf(up) };
    const ports = loads.filter(({ role }) => role !== 'line').map(loadOf);
    return busyTimes(line, promised, ports)
      .slice(0, MOST_BUSY)
      .map((busy): ShownBusyTime => {
        const { fromMs, untilMs } = busy;
        return { deviceId, fromMs, untilMs, sentence: busyWords(busy) };
      });
  });
}
