import { addLane, beginMark, endLane, endMark, removeMark, type StoredLane, type StoredMark } from '@/services';
import type { NewLaneForm } from '@/wire';
import type { Command, Look } from './command';

const laneFacts = (lane: StoredLane | null): Look | null =>
  lane === null
    ? null
    : {
        ...{ siteId: lane.siteId, subject: lane.name },
        facts: { kind: lane.kind, target: lane.target, everyMs: lane.everyMs, asked: lane.removedAtMs === null },
      };
const markFacts = (mark: StoredMark | null): Look | null =>
  mark === null
    ? null
    : { siteId: mark.siteId, subject: mark.label, facts: { fromMs: mark.fromMs, untilMs: mark.untilMs } };

export const LANE_COMMANDS = {
  addLane: {
    ...{ scope: 'everything', changes: ['lanes'], audited: 'lane-added' },
    look: (_, made) => Promise.resolve(laneFacts(made)),
    run: ({ context, input }) => addLane(context, input),
  } satisfies Command<NewLaneForm, StoredLane>,

  endLane: {
    ...{ scope: 'everything', changes: ['lanes'], audited: 'lane-ended' },
    look: ({ context, input }) => context.store.lanes.byId(input.id).then(laneFacts),
    run: ({ context, input }) => endLane(context, input.id),
  } satisfies Command<{ readonly id: string }, null>,

  beginMark: {
    ...{ scope: 'measure', changes: ['lanes'], audited: 'mark-begun' },
    look: (_, made) => Promise.resolve(markFacts(made)),
    run: ({ context, actor, input }) => beginMark(context, actor.name, input),
  } satisfies Command<{ readonly siteId: string; readonly label: string }, StoredMark>,

  endMark: {
    ...{ scope: 'measure', changes: ['lanes'], audited: 'mark-ended' },
    look: ({ context, input }) => context.store.lanes.mark(input.id).then(markFacts),
    run: ({ context, input }) => endMark(context, input.id),
  } satisfies Command<{ readonly id: string }, StoredMark>,

  removeMark: {
    ...{ scope: 'everything', changes: ['lanes'], audited: 'mark-removed' },
    look: ({ context, input }) => context.store.lanes.mark(input.id).then(markFacts),
    run: ({ context, input }) => removeMark(context, input.id),
  } satisfies Command<{ readonly id: string }, null>,
};
