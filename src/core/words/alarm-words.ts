import type { Alarm } from '../watch/alarms';
import { findingWords } from './finding-words';
import { faultWords } from './lane-words';
import { countWords, delayFigure, durationWords, rateWords, sizeWords } from './quantity-words';
import type { Moment } from './time-words';

/** What is told when something begins. `moment`: how the office tells a time. */
export function alarmWords(alarm: Alarm, moment: Moment): string {
  switch (alarm.kind) {
    case 'plan-not-met':
      return `${alarm.line}: the plan was not met in the last ${countWords(alarm.occasions, 'occasion')}.`;
    case 'added-delay':
      return `${alarm.line}: under load everything waits ${delayFigure(alarm.addedMs)} ms longer, more than the ${delayFigure(alarm.overMs)} ms that you named.`;
    case 'agent-silent':
      return `${alarm.agent} has been silent since ${moment(alarm.sinceMs)}.`;
    case 'outage': {
      const { fault, names, air, fromMs, untilMs } = alarm;
      const length = untilMs === null ? 'and it goes on' : `for ${durationWords((untilMs - fromMs) / 1000)}`;
      return `Silent since ${moment(fromMs)}, ${length}: ${faultWords(fault, names, air)}.`;
    }
    case 'finding':
      return findingWords(alarm.finding).sentence;
    case 'level-shift': {
      const way = alarm.direction === 'down' ? 'download' : 'upload';
      return `${alarm.line}: since ${moment(alarm.untilMs)} the ${way} gives ${rateWords(alarm.afterBps)} instead of ${rateWords(alarm.beforeBps)}.`;
    }
    case 'budget':
      return `${alarm.line}: ${sizeWords(alarm.movedBytes)} of the ${sizeWords(alarm.budgetBytes)} for this month have been moved.`;
  }
}

/** What is told when it is over. */
export function alarmOverWords(alarm: Alarm): string {
  switch (alarm.kind) {
    case 'plan-not-met':
      return `${alarm.line}: the plan is met again.`;
    case 'added-delay':
      return `${alarm.line}: under load it waits no longer than you named.`;
    case 'agent-silent':
      return `${alarm.agent} is heard again.`;
    case 'outage':
      return `${alarm.names.join(', ')}: answered again.`;
    case 'finding':
      return `No longer seen: ${findingWords(alarm.finding).sentence}`;
    case 'level-shift':
      return `${alarm.line}: the change of the ${alarm.direction === 'down' ? 'download' : 'upload'} is no news any more.`;
    case 'budget':
      return `${alarm.line}: a new month, or more data volume.`;
  }
}
