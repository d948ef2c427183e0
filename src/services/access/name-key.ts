/** A name as it is compared: composed, in small letters, without spaces around it. */
export const nameKeyOf = (name: string): string => name.trim().normalize('NFKC').toLocaleLowerCase();
