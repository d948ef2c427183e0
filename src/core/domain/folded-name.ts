/**
 * A name as it is searched: without case, accents and the difference between ß and ss, so that "Übungsraum" is found by
 * "ubungs", and "straße" by "STRASSE".
 */
export function foldedName(name: string): string {
  // There is a capital ß: down first, so that it goes the way of the small one.
  return name.normalize('NFKD').replace(/\p{M}/gu, '').toLowerCase().toUpperCase().toLowerCase();
}
