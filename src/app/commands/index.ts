import { ACCESS_COMMANDS } from './access-commands';
import { AGENT_COMMANDS } from './agent-commands';
import { ALARM_COMMANDS } from './alarm-commands';
import { CASE_COMMANDS } from './case-commands';
import { HUNT_COMMANDS } from './hunt-commands';
import { IMPORT_COMMANDS } from './import-commands';
import { LANE_COMMANDS } from './lane-commands';
import { LOOK_COMMANDS } from './look-commands';
import { OFFICE_COMMANDS } from './office-commands';
import { RUN_COMMANDS } from './run-commands';
import { SIDE_COMMANDS } from './side-commands';

/** Everything that can be done to a console, behind its pages and its API alike. */
export const COMMANDS = {
  ...OFFICE_COMMANDS,
  ...RUN_COMMANDS,
  ...ACCESS_COMMANDS,
  ...HUNT_COMMANDS,
  ...SIDE_COMMANDS,
  ...CASE_COMMANDS,
  ...AGENT_COMMANDS,
  ...LOOK_COMMANDS,
  ...LANE_COMMANDS,
  ...ALARM_COMMANDS,
  ...IMPORT_COMMANDS,
};

export { act, actOnForm } from './act';
export { carryOut, mayDo } from './carry-out';
export type { Actor, Command } from './command';
export { actorHere, perform } from './perform';
