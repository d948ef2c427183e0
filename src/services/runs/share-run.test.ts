import { furnish, openTestConsole, orderFor, startRun, STRANGER, type TestConsole } from '../console/console-for-tests';
import { saveRunNotes } from './run-notes';
import { runPageOf } from '../views/run-page';
import { sharedRunPageOf } from '../views/shared-run-page';
import { shareRun, stopSharing } from './share-run';

describe('a run that is shared', () => {
  let console: TestConsole;
  let runId: string;
  beforeEach(async () => {
    console = await openTestConsole();
    const { code } = await furnish(console);
    const run = await startRun(console.context, { ...STRANGER, code }, orderFor(code), 'http://192.0.2.20:4870');
    if (!run.ok) throw new Error(run.fault.code);
    ({ runId } = run.value);
  });
  afterEach(() => console.close());

  const share = async () => {
    const shared = await shareRun(console.context, runId);
    if (!shared.ok) throw new Error(shared.fault.code);
    return shared.value;
  };
  const opened = async (path: string) => {
    const [, , id, proof] = path.split('/');
    return (await sharedRunPageOf(console.context, id!, proof!)).ok;
  };

  it('opens by its link alone, and the link stays the same', async () => {
    const path = await share();
    expect(path).toMatch(new RegExp(`^/s/${runId}/[\\w-]{43}$`));
    expect(await opened(path)).toBe(true);
    expect(await share()).toBe(path);
    expect(await opened(path.slice(0, -1))).toBe(false);
    const other = 'x'.repeat(43);
    expect(await opened(`/s/${runId}/${other}`)).toBe(false);
  });

  it('is closed for good once the link was revoked; a new link is another one', async () => {
    const first = await share();
    await stopSharing(console.context, runId);
    expect(await opened(first)).toBe(false);
    const second = await share();
    expect(second).not.toBe(first);
    expect(await opened(second)).toBe(true);
    expect(await opened(first)).toBe(false);
  });

  it('has the notes that were written beside it', async () => {
    await saveRunNotes(console.context, runId, 'cable swapped before');
    expect(await runPageOf(console.context, runId)).toMatchObject({
      value: { run: { notes: 'cable swapped before' } },
    });
    expect(await saveRunNotes(console.context, 'none', 'x')).toMatchObject({ fault: { code: 'run-unknown' } });
  });

  it('that does not exist cannot be shared', async () => {
    expect(await shareRun(console.context, 'none')).toMatchObject({ fault: { code: 'run-unknown' } });
    expect(await stopSharing(console.context, 'none')).toMatchObject({ fault: { code: 'run-unknown' } });
  });
});
