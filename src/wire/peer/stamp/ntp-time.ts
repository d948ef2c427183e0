/** Seconds from the NTP era (1900) to the Unix epoch (RFC 5905 §6). */
const NTP_TO_UNIX_SECONDS = 2_208_988_800;
const FRACTIONS = 2 ** 32;

/** Writes UTC epoch ms as a 64-bit NTP timestamp: whole seconds, then fractions of 2⁻³² s. */
export function writeNtpTime(view: DataView, offset: number, epochMs: number): void {
  const seconds = Math.floor(epochMs / 1000);
  view.setUint32(offset, (seconds + NTP_TO_UNIX_SECONDS) >>> 0);
  view.setUint32(offset + 4, Math.min(FRACTIONS - 1, Math.round(((epochMs - seconds * 1000) / 1000) * FRACTIONS)));
}

/** UTC epoch ms of a 64-bit NTP timestamp of era 0 (until 2036). */
export function readNtpTime(view: DataView, offset: number): number {
  return (view.getUint32(offset) - NTP_TO_UNIX_SECONDS) * 1000 + (view.getUint32(offset + 4) / FRACTIONS) * 1000;
}
