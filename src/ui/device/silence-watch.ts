const LOOK_MS = 1000;
/**
 * So many looks in a row without a word. A run speaks ten times a second; before its first word it may open sessions
 * for twelve seconds, and after its last it closes for six.
 */
const PATIENT_LOOKS = 25;

/**
 * Tells once when whoever should speak has fallen silent for so many looks in a row, a second apart. Looks are counted, not time: a page that was frozen, with all
 * that it started, has not waited.
 */
export function watchSilence(onSilent: () => void, patientLooks = PATIENT_LOOKS): { heard(): void; stop(): void } {
  let looks = 0;
  const looking = setInterval(() => {
    looks += 1;
    if (looks < patientLooks) return;
    clearInterval(looking);
    onSilent();
  }, LOOK_MS);
  return { heard: () => (looks = 0), stop: () => clearInterval(looking) };
}
