export { consoleTasks } from './console-tasks';
export { backUpNow, backupsShown, type Backups, type BackupsShown, type KeptBackup } from './nightly-backup';
export { startUpkeep, type UpkeepTask } from './upkeep';
