import { finalBytes, flagWords, median, reportOf, type LossSummary, type ProfileName, type RunSamples } from '@/core';
import { command } from '../net/command';
import { nodeClient } from '../clients/node-client';
import { LAB_CONDITIONS, truthOf } from '../measure-run';
import { clientFor, onBench, symmetric, watchedRuns, type ClientName } from './lab-cell';
import { medianOf, Table } from './table';

const CLIENTS: readonly ClientName[] = ['Chromium', 'Node'];
const flagsOf = (samples: RunSamples) => reportOf(samples, { ...LAB_CONDITIONS, reach: 'internet' }).fitness;

/** LAB_PROFILES=quick,standard measures these alone. */
function economyProfiles() {
  const chosen = process.env.LAB_PROFILES?.split(',');
  return (['quick', 'standard', 'thorough'] as const).filter((profile) => chosen?.includes(profile) ?? true);
}

/** How long a run takes, what it moves, and what the idle delay is against `ping`. */
export async function economyTable(runs: number): Promise<void> {
  const table = new Table(
    'Time, data and idle delay',
    '50 Mb/s both ways, base delay 20 ms, queue 50 ms. Data: against the same line loaded for 10 s in each direction. Idle: over `ping`’s median, WebSocket probes, at a base delay of 0 in brackets.',
    [
      'client',
      'profile',
      'took, s',
      'data, share of 10 s',
      'error down, up',
      'idle over ping, ms',
      'UDP idle over ping, ms',
    ],
  );
  for (const client of CLIENTS)
    for (const profile of economyProfiles()) {
      const config = { ...symmetric(50, 50), baseMs: 20 };
      const done = await watchedRuns(config, client, runs, profile);
      const carried = (50e6 * 1448) / 1514;
      const share = done.runs.map(
        ({ samples }) =>
          ((finalBytes(samples.download) ?? 0) + (finalBytes(samples.upload) ?? 0)) / ((carried / 8) * 20),
      );
      const error = (way: 'down' | 'up') =>
        medianOf(
          done.runs.map(({ report }) =>
            report[way].rate === null ? null : (report[way].rate.steadyBps / carried - 1) * 100,
          ),
          2,
        );
      const idleOver = done.runs.map((run) => {
        const ping = truthOf(run, 'down')?.pingIdleMs;
        return ping === null || ping === undefined || run.report.idleDelay === null
          ? null
          : run.report.idleDelay.medianMs - ping;
      });
      const udpOver = done.runs.map(({ samples, ...run }) => {
        const idle = samples.phases.find(({ phase }) => phase === 'idle')!;
        const inside = samples.udp?.rttMs.filter(
          (rtt, index) =>
            rtt !== null && samples.udp!.sentMs[index]! >= idle.fromMs && samples.udp!.sentMs[index]! < idle.toMs,
        );
        const ping = truthOf({ samples, ...run }, 'down')?.pingIdleMs;
        const middle = inside === undefined ? null : median(inside as number[]);
        return middle === null || ping === null || ping === undefined ? null : middle - ping;
      });
      table.row(
        client,
        profile,
        medianOf(done.runs.map(({ tookMs }) => tookMs / 1000)),
        medianOf(share, 2),
        `${error('down')} %, ${error('up')} %`,
        medianOf(idleOver, 2),
        medianOf(udpOver, 2),
      );
    }
}

/** How many packets were lost in each direction; null: not known. */
/** How many packets a run says were lost on which way. */
export function lostPackets(loss: LossSummary | null): { readonly up: number | null; readonly down: number | null } {
  if (loss === null || loss.lossUpRatio === null) return { up: null, down: null };
  const up = Math.round(loss.lossUpRatio * loss.sent);
  return { up, down: loss.lossDownRatio === null ? null : Math.round(loss.lossDownRatio * (loss.sent - up)) };
}

/** Loss against the kernel's own count of what it dropped. */
export async function lossTable(runs: number): Promise<void> {
  const table = new Table(
    'Loss against the kernel’s drop counter',
    '100 Mb/s, base delay 20 ms. Node: STAMP; the kernel’s count of UDP packets dropped by chance in each direction, beside what the run says. Chromium: data channel, its ratio beside the one set.',
    [
      'set',
      'client',
      'runs',
      'sent',
      'lost up: run / kernel',
      'lost down: run / kernel',
      'ratio, there and back',
      'expected',
    ],
  );
  for (const lossRatio of [0, 0.005, 0.01, 0.05])
    for (const client of CLIENTS)
      await onBench(
        { ...symmetric(100, 1000), baseMs: 20, lossRatio },
        client,
        async ({ line, program, client: device }) => {
          const total = { sent: 0, unanswered: 0, up: 0, down: 0, kernelUp: 0, kernelDown: 0 };
          for (let run = 0; run < runs; run += 1) {
            const before = { up: line.dropped('up').udp, down: line.dropped('down').udp };
            const done = await device.run(program.joinAddress, client === 'Node' ? 'standard' : 'thorough');
            const loss = done.status === 'finished' ? reportOf(done.samples, LAB_CONDITIONS).loss : null;
            if (loss === null) {
              console.error(`  no loss: ${done.status === 'finished' ? 'not measured' : done.sentence}`);
              continue;
            }
            const lost = lostPackets(loss);
            total.sent += loss.sent;
            total.unanswered += Math.round(loss.lossRatio * loss.sent);
            total.up += lost.up ?? 0;
            total.down += lost.down ?? 0;
            total.kernelUp += line.dropped('up').udp - before.up;
            total.kernelDown += line.dropped('down').udp - before.down;
          }
          // A data channel sends acknowledgements of its own, which the kernel drops and counts too.
          const kernel = (count: number) => (client === 'Node' ? count : 'n/a');
          table.row(
            `${lossRatio * 100} %`,
            client,
            runs,
            total.sent,
            `${total.up} / ${kernel(total.kernelUp)}`,
            `${total.down} / ${kernel(total.kernelDown)}`,
            `${((total.unanswered / total.sent) * 100).toFixed(2)} %`,
            `${((1 - (1 - lossRatio) ** 2) * 100).toFixed(2)} %`,
          );
        },
      );
}

/** Whether a run that cannot tell the truth says so, and whether every failure ends in bounded time. */
export async function troubleTable(): Promise<void> {
  const table = new Table(
    'Trouble, tried',
    'One run each against 50 Mb/s, base delay 20 ms, queue 50 ms. What the run says, and how long it took. The blackhole is lifted after 18 s, so that the result can be handed in over the same line.',
    ['what happens', 'client', 'runs', 'took, s', 'down, up', 'what it says'],
  );
  const base = { ...symmetric(50, 50), baseMs: 20 };
  const after = (ms: number, act: () => void) => setTimeout(act, ms);
  type Act = (bench: Parameters<Parameters<typeof onBench>[2]>[0]) => void;
  const cases: [string, Partial<Parameters<typeof onBench>[0]>, Act, ProfileName?][] = [
    [
      'the line’s rate halves during the download',
      base,
      ({ line }) => after(5500, () => line.shape('down', { rateMbps: 25, queueMs: 50 })),
    ],
    [
      'the line is dead for 5 s in the middle',
      base,
      ({ line }) => after(5000, () => after(5000, line.cut(['down', 'up']))),
    ],
    ['nothing gets up (one-way blackhole)', base, ({ line }) => after(4500, () => after(18_000, line.cut(['up'])))],
    ['20 % loss', { ...base, lossRatio: 0.2 }, () => undefined],
    [
      'the peer is killed and restarted',
      base,
      ({ program }) =>
        after(6000, () => command('pkill', '-KILL', '-P', String(program.launcherPid), '-f', 'peer-main')),
    ],
  ];
  for (const [what, config, act] of cases)
    for (const client of CLIENTS)
      await onBench(config, client, async (bench) => {
        act(bench);
        const done = await bench.client.run(bench.program.joinAddress, 'standard');
        const took = (done.tookMs / 1000).toFixed(1);
        if (done.status === 'unfinished')
          return table.row(what, client, 1, took, '–', done.sentence.replaceAll('|', '/'));
        const report = reportOf(done.samples, LAB_CONDITIONS);
        const rates = [report.down.rate, report.up.rate].map((rate) =>
          rate === null ? '–' : (rate.steadyBps / 1e6).toFixed(1),
        );
        const dips = report.down.rate!.dips.reduce((sum, { fromMs, toMs }) => sum + toMs - fromMs, 0);
        const says = [
          ...report.fitness.map(({ code }) => code),
          `steadiness ${report.down.rate!.steadiness.toFixed(2)}`,
          ...(dips > 0 ? [`dips of ${(dips / 1000).toFixed(1)} s`] : []),
        ];
        table.row(what, client, 1, took, rates.join(', '), says.join('; '));
      });
}

/** Two clients at once: each is told that it was not alone, and their sum is the line. */
export async function togetherTable(): Promise<void> {
  const table = new Table(
    'Two clients at once',
    '100 Mb/s, base delay 20 ms, queue 50 ms; two agents started together.',
    ['run', 'down, Mb/s', 'up, Mb/s', 'what it says'],
  );
  await onBench({ ...symmetric(100, 50), baseMs: 20 }, 'Node', async ({ line, program }) => {
    const netns = line.netns('client');
    const done = await Promise.all(
      ['first', 'second'].map((name) => nodeClient(netns).run(program.joinAddress, 'standard', name)),
    );
    let [down, up] = [0, 0];
    done.forEach((run, index) => {
      if (run.status === 'unfinished') return table.row(index + 1, '–', '–', run.sentence);
      const report = reportOf(run.samples, LAB_CONDITIONS);
      down += report.down.rate?.steadyBps ?? 0;
      up += report.up.rate?.steadyBps ?? 0;
      table.row(
        index + 1,
        ((report.down.rate?.steadyBps ?? 0) / 1e6).toFixed(1),
        ((report.up.rate?.steadyBps ?? 0) / 1e6).toFixed(1),
        flagsOf(run.samples)
          .map((flag) => `${flag.code} (${flagWords(flag).fact})`)
          .join('; '),
      );
    });
    table.row(
      'sum',
      (down / 1e6).toFixed(1),
      (up / 1e6).toFixed(1),
      `the line carries ${((100 * 1448) / 1514).toFixed(1)}`,
    );
  });
}

/** Without a shaper: what the engine itself can do on this machine, and what it does to a bystander's probes. */
export async function unshapedTable(runs: number): Promise<void> {
  const table = new Table('Unshaped', 'Between namespaces, MTU 1500, nothing shaped.', [
    'client',
    'down, Gb/s',
    'up, Gb/s',
    'wanted',
    'delay added down, ms',
    'said to be limited by the device',
  ]);
  const clients: readonly ClientName[] = ['Chromium', 'Firefox', 'WebKit', 'Node'];
  for (const client of clients.filter((name) => (process.env['LAB_CLIENT'] ?? name) === name)) {
    const done = await watchedRuns({}, client, runs);
    const limited = done.runs.filter(({ samples }) => flagsOf(samples).some(({ code }) => code === 'device-limited'));
    const gbps = (way: 'down' | 'up') =>
      medianOf(done.runs.map(({ report }) => (report[way].rate?.steadyBps ?? 0) / 1e9));
    table.row(
      client,
      gbps('down'),
      gbps('up'),
      client === 'Node' ? '8' : client === 'Chromium' ? '5 and 2.5' : '–',
      medianOf(done.runs.map(({ report }) => report.down.addedMs)),
      `${limited.length} of ${done.runs.length}`,
    );
  }
  await onBench({}, 'Node', async ({ line, program, client }) => {
    const alone = await client.run(program.joinAddress, 'delay', 'bystander');
    const busy = (await clientFor('Node', line, program)).run(program.joinAddress, 'thorough', 'puller');
    const beside = await (await clientFor('Node', line, program)).run(program.joinAddress, 'delay', 'bystander 2');
    await busy;
    const idleOf = (run: typeof alone) =>
      run.status === 'finished' ? (reportOf(run.samples, LAB_CONDITIONS).idleDelay?.medianMs ?? null) : null;
    console.log(
      `\nA probe’s echo on a peer that serves another client at full rate: median ${medianOf([idleOf(beside)], 2)} ms, ${medianOf([idleOf(alone)], 2)} ms when it serves nobody (wanted: within 3 ms).`,
    );
  });
}
