import { caseFile } from '../case-file';

/** All data of a case, as they are attached to its record. */
export const GET = caseFile('json');
