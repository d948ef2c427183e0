import type { KeptBackup } from '../console/backups';
import type { ConsoleContext } from '../console/console-context';
import { openTestConsole, type TestConsole } from '../console/console-for-tests';
import { backupsShown, backUpNow, nightlyBackup } from './nightly-backup';

const COPY: KeptBackup = { folder: '/srv/straw/backups/night', madeAtMs: Date.UTC(2026, 10, 27, 2), runs: 346 };

describe('copies of the record', () => {
  let console: TestConsole;
  let made: ('night' | 'asked')[];
  let due: boolean;
  let trouble: Error | null;
  let context: ConsoleContext;
  beforeEach(async () => {
    console = await openTestConsole();
    [made, due, trouble] = [[], true, null];
    context = {
      ...console.context,
      backups: {
        make: (kind) => {
          if (trouble !== null) return Promise.reject(trouble);
          made.push(kind);
          return Promise.resolve(COPY);
        },
        list: () => made.map(() => COPY),
        isNightDue: () => due,
      },
    };
  });
  afterEach(() => console.close());

  it('is made at night where one is due, and not else', async () => {
    due = false;
    await nightlyBackup(context);
    expect(made).toEqual([]);
    due = true;
    await nightlyBackup(context);
    expect(made).toEqual(['night']);
    expect(backupsShown(context)).toEqual({ newest: COPY, count: 1, trouble: null });
  });

  it('that fails is told with its reason, by night too, until one works again', async () => {
    trouble = new Error('ENOSPC: no space left on device');
    // The upkeep goes on with its other tasks.
    await expect(nightlyBackup(context)).resolves.toBeUndefined();
    expect(backupsShown(context)).toEqual({
      ...{ newest: null, count: 0 },
      trouble: { atMs: context.wallMs(), why: 'ENOSPC: no space left on device' },
    });
    const asked = await backUpNow(context);
    expect(asked).toMatchObject({ ok: false, fault: { code: 'backup-failed', facts: { why: trouble.message } } });
    trouble = null;
    expect(await backUpNow(context)).toEqual({ ok: true, value: COPY });
    expect(backupsShown(context).trouble).toBeNull();
  });
});
