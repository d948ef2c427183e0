/**
 * A name as it is searched: without case, accents and the difference between ß and ss, so that "Übungsraum" is found by
 * "ubungs", and "straße" by "STRASSE".
 */
export function foldedName(name: string): string {
  return name.normalize('NFKD').replace(/\p{M}/gu, '').toUpperCase().toLowerCase();
}
