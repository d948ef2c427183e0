export { consoleTasks } from './console-tasks';
export { type Backups, type KeptBackup } from '../console/backups';
export { keepingShown, keepSamples, thinSamples, type KeepingShown } from './keeping';
export { backUpNow, backupsShown, type BackupsShown } from './nightly-backup';
export { startUpkeep, type UpkeepTask } from './upkeep';
