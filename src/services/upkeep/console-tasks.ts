import { forgetOldSignIns, renewEndedCodes } from '../access';
import { forgetOldAudit } from '../audit';
import { moveAlternations } from '../alternations';
import { deliverDue, forgetOldAlarms, sumUpWeeks, watchAlarms } from '../alarms';
import { measureCases } from '../cases';
import type { ConsoleContext } from '../console/console-context';
import { refreshDueDiagnoses } from '../diagnosis';
import { forgetOldOffices } from '../office/offices';
import { seeWhoElse, sumLanes } from '../lanes';
import { endLateLooks } from '../looks';
import { forgetLeftImports } from '../imports';
import { checkPeerKeys } from '../office/peer-check';
import { judgeSomeAnew } from '../runs/judge-anew';
import { readWeeks } from '../runs/kept-weeks';
import { forgetOldRemovals } from '../office/removals';
import { sweepSilentRuns } from '../runs/sweep-silent-runs';
import { forgetOldTimes, keepSchedules } from '../schedules';
import { forgetOldTurns, moveQueue } from '../turns';
import { nightlyBackup } from './nightly-backup';
import { thinSamples } from './keeping';
import type { UpkeepTask } from './upkeep';

const SECOND_MS = 1000;
const MINUTE_MS = 60 * SECOND_MS;

/** All sweeping and deleting of a console: whoever only reads changes nothing. */
export function consoleTasks(context: ConsoleContext): UpkeepTask[] {
  return [
    { name: 'end silent runs', everyMs: 2 * SECOND_MS, act: () => sweepSilentRuns(context) },
    { name: 'move the queue', everyMs: SECOND_MS, act: () => moveQueue(context) },
    { name: 'take turns about', everyMs: SECOND_MS, act: () => moveAlternations(context) },
    { name: 'keep schedules', everyMs: 2 * SECOND_MS, act: () => keepSchedules(context) },
    { name: 'see what is to be told', everyMs: 20 * SECOND_MS, act: () => watchAlarms(context) },
    { name: 'tell it', everyMs: 2 * SECOND_MS, act: () => deliverDue(context) },
    { name: 'sum up weeks', everyMs: 10 * MINUTE_MS, act: () => sumUpWeeks(context) },
    { name: 'see who else used the line', everyMs: 10 * SECOND_MS, act: () => seeWhoElse(context) },
    { name: 'judge runs anew', everyMs: SECOND_MS, act: () => judgeSomeAnew(context) },
    { name: 'look for what stands out', everyMs: SECOND_MS, act: () => refreshDueDiagnoses(context) },
    { name: 'read the weeks of offices', everyMs: 30 * SECOND_MS, act: () => readWeeks(context) },
    { name: 'measure what cases miss', everyMs: MINUTE_MS, act: () => measureCases(context) },
    { name: 'look at the keys of peers', everyMs: 10 * MINUTE_MS, act: () => checkPeerKeys(context) },
    { name: 'renew codes that have ended', everyMs: MINUTE_MS, act: () => renewEndedCodes(context) },
    { name: 'forget sign-ins that have ended', everyMs: 10 * MINUTE_MS, act: () => forgetOldSignIns(context) },
    { name: 'forget what happened long ago', everyMs: 60 * MINUTE_MS, act: () => forgetOldAudit(context) },
    { name: 'forget what was told', everyMs: 60 * MINUTE_MS, act: () => forgetOldAlarms(context) },
    { name: 'forget times of long ago', everyMs: 60 * MINUTE_MS, act: () => forgetOldTimes(context) },
    { name: 'sum up lanes', everyMs: MINUTE_MS, act: () => sumLanes(context) },
    { name: 'end looks of which nothing came', everyMs: 10 * SECOND_MS, act: () => endLateLooks(context) },
    { name: 'forget old turns', everyMs: 10 * MINUTE_MS, act: () => forgetOldTurns(context) },
    { name: 'forget removals', everyMs: 10 * MINUTE_MS, act: () => forgetOldRemovals(context) },
    { name: 'forget files that were left', everyMs: 10 * MINUTE_MS, act: () => forgetLeftImports(context) },
    { name: 'forget removed offices', everyMs: 10 * MINUTE_MS, act: () => forgetOldOffices(context) },
    { name: 'let old samples go', everyMs: MINUTE_MS, act: () => thinSamples(context) },
    { name: 'copy the night', everyMs: 5 * MINUTE_MS, act: () => nightlyBackup(context) },
  ];
}
