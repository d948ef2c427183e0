/** Why a file is not opened, or not taken for a copy. Nothing was changed in it. */
export type StoreFaultCode = 'store-damaged' | 'store-newer' | 'store-foreign';

export class StoreFault extends Error {
  constructor(
    readonly code: StoreFaultCode,
    /** In the words of the database. */
    readonly reason: string,
  ) {
    super(`${code}: ${reason}`);
  }
}
