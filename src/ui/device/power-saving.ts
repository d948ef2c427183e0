interface BatteryManager {
  readonly charging: boolean;
  readonly level: number;
}

interface NavigatorWithBattery extends Navigator {
  getBattery?(): Promise<BatteryManager>;
}

const LOW_LEVEL = 0.2;
/** Nobody waits longer to hear of a battery before a run. */
const PATIENCE_MS = 500;

const unheard = () => new Promise<undefined>((resolve) => setTimeout(() => resolve(undefined), PATIENCE_MS));

/** What tells that the device saves power, in words; null when nothing does. Browsers tell little: a low battery. */
export async function powerSaving(): Promise<string | null> {
  try {
    const battery = await Promise.race([(navigator as NavigatorWithBattery).getBattery?.(), unheard()]);
    if (battery === undefined || battery.charging || battery.level > LOW_LEVEL) return null;
    return `the battery is at ${Math.round(battery.level * 100)} % and not charging, so the device may be saving power`;
  } catch {
    return null;
  }
}
