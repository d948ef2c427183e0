import { hourAt } from '../diagnosis/office-hours';
import { zoneOffsets } from './zone-offsets';

const NOW = Date.UTC(2026, 10, 26);
const HOUR = 3600_000;

describe('how clocks go at a place', () => {
  it.each(['Europe/Berlin', 'America/New_York', 'Australia/Lord_Howe', 'Asia/Kolkata', 'UTC', 'Africa/Casablanca'])(
    'tells every hour of it as the calendar does: %s',
    (zone) => {
      const offsets = zoneOffsets(zone, NOW);
      for (let atMs = Date.UTC(2025, 11, 28); atMs < Date.UTC(2027, 0, 3); atMs += 7 * HOUR) {
        const { minutes } = offsets.find(({ untilMs }) => untilMs === null || atMs < untilMs)!;
        expect(new Date(atMs + minutes * 60_000).getUTCHours()).toBe(hourAt(atMs, zone));
      }
    },
  );

  it('changes at the very minute: summer time in Berlin began at 01:00 UTC on 29 March 2026', () => {
    const change = zoneOffsets('Europe/Berlin', NOW).find(
      ({ untilMs }) => untilMs !== null && untilMs > Date.UTC(2026, 0, 1),
    )!;
    expect(change).toEqual({ untilMs: Date.UTC(2026, 2, 29, 1), minutes: 60 });
  });
});
