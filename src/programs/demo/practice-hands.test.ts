import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { PracticeDocument } from '@/peer';
import { openTestConsole, type TestConsole } from '@/services/console/console-for-tests';
import { demoPracticeDocument, devicePracticeDocument } from './practice-document';
import { practiceHands } from './practice-hands';
import { seedDemo } from './seed-demo';

const SLOW = { downMbps: 94.1, upMbps: 94.1, queueMs: 6, roundTripMs: 0.4 };

describe('hands of the demo', () => {
  let console: TestConsole;
  let folder: string;
  const read = (name: string) => JSON.parse(readFileSync(join(folder, name), 'utf8')) as PracticeDocument;
  const deviceOf = async (name: string) => {
    const [mill] = await console.context.store.sites.all();
    return (await console.context.store.sites.devicesOf(mill!.id)).find((device) => device.name === name)!;
  };

  // Three weeks of history take seconds and no test changes them; the files of the practice lines are new for each.
  beforeAll(async () => {
    console = await openTestConsole();
    await seedDemo(console.context);
  }, 60_000);
  afterAll(() => console.close());
  beforeEach(async () => {
    folder = mkdtempSync(join(tmpdir(), 'bent-straw-'));
    const lines = ['Scan room workstation', 'Press desk'].map((name, index) => ({
      ...{ name: `${name} to port 4870`, plays: SLOW, listenPort: 5001 + index, toPort: 4870 },
    }));
    writeFileSync(join(folder, 'demo-links.json'), JSON.stringify(devicePracticeDocument(lines)));
    writeFileSync(join(folder, 'practice-lines.json'), JSON.stringify(demoPracticeDocument(4870)));
    const { id } = await deviceOf('Scan room workstation');
    writeFileSync(join(folder, 'demo-devices.json'), JSON.stringify([{ deviceId: id, link: { medium: 'unknown' } }]));
  });
  afterEach(() => rmSync(folder, { recursive: true }));

  it('swap the cable of the scan room: its link carries more, comes up faster, and nobody else’s changes', async () => {
    const { id } = await deviceOf('Scan room workstation');
    await practiceHands(folder, console.context.store).swapped({ what: 'other-cable', deviceId: id });
    const [scan, press] = read('demo-links.json').lines;
    expect(scan!.down.rateMbps).toBe(941);
    expect(press!.down.rateMbps).toBe(94.1);
    expect((await deviceOf('Scan room workstation')).link).toMatchObject({ negotiatedBps: 1e9 });
    expect(readFileSync(join(folder, 'demo-devices.json'), 'utf8')).toContain('1000000000');
  });

  it('mend nothing by the wrong swap', async () => {
    const before = readFileSync(join(folder, 'demo-links.json'), 'utf8');
    const { id } = await deviceOf('Scan room workstation');
    const hands = practiceHands(folder, console.context.store);
    for (const what of ['other-port', 'other-device', 'other']) await hands.swapped({ what, deviceId: id });
    await hands.swapped({ what: 'other-cable', deviceId: null });
    expect(readFileSync(join(folder, 'demo-links.json'), 'utf8')).toBe(before);
  });

  it('have nothing to do in a demo without played devices, and the swap is written down all the same', async () => {
    rmSync(join(folder, 'demo-links.json'));
    rmSync(join(folder, 'demo-devices.json'));
    rmSync(join(folder, 'practice-lines.json'));
    const { id } = await deviceOf('Scan room workstation');
    const hands = practiceHands(folder, console.context.store);
    await expect(hands.swapped({ what: 'other-cable', deviceId: id })).resolves.toBeUndefined();
    await expect(hands.queueSet('Tarnfell Fibre 500/100', 90e6)).resolves.toBeUndefined();
    expect(readdirSync(folder)).toEqual([]);
  });

  it('set the queue of one line: short where the rate is below what the line gives, as deep as ever above', async () => {
    const hands = practiceHands(folder, console.context.store);
    const up = () => read('practice-lines.json').lines.map((line) => [line.up.rateMbps, line.up.queueMs]);
    const [, ...others] = up();
    await hands.queueSet('Tarnfell Fibre 500/100', 90e6);
    expect(up()).toEqual([[90, 9], ...others]);
    // A figure that was too low is raised again, and one above what the line gives holds nothing.
    await hands.queueSet('Tarnfell Fibre 500/100', 95e6);
    expect(up()[0]).toEqual([95, 9]);
    await hands.queueSet('Tarnfell Fibre 500/100', 120e6);
    expect(up()[0]).toEqual([100, 240]);
    await hands.queueSet('Tarnfell Fibre 500/100', 90e6);
    await hands.queueSet('no such line', 10e6);
    expect(up()).toEqual([[90, 9], ...others]);
  });
});
