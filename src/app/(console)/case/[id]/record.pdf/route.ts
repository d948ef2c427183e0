import { caseFile } from '../case-file';

/** The record of a case, to be printed or sent. */
export const GET = caseFile('pdf');
