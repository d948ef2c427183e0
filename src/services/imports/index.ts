export type { StoredImport } from '@/store';
export { broughtInDocument, broughtInOf } from './brought-in';
export { type ImportCheck, type RefusedLine } from './check-import';
export { openImportsOf } from './open-imports';
export { type ImportShape } from './import-file';
export {
  clearImports,
  closeImport,
  forgetLeftImports,
  lookAtImport,
  openImport,
  receiveImport,
  takeIn,
  undoImport,
  type TakeIn,
} from './imports';
