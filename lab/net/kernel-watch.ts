import { bytesAt } from '@/core';
import { ended, lineOf, startIn } from './command';

/** Headers of a packet as veth and the shaper see it: Ethernet 14, IPv4 20, TCP 32 with timestamps. */
const HEADER_BYTES = 66;

type Sample = readonly [wallMs: number, rxBytes: number, rxPackets: number, txBytes: number, txPackets: number];

/** What the kernel counted on one interface while it was watched. */
export class KernelCount {
  constructor(private readonly samples: readonly Sample[]) {}

  /** TCP payload that crossed the interface between two wall times, bytes: all bytes less the headers of all packets. */
  payloadBytes(way: 'received' | 'sent', fromWallMs: number, toWallMs: number): number {
    const at = this.samples.map(([wallMs]) => wallMs);
    const column = (index: number) => this.samples.map((sample) => sample[index]!);
    const [bytes, packets] = way === 'received' ? [column(1), column(2)] : [column(3), column(4)];
    const moved = (series: readonly number[]) => bytesAt(at, series, toWallMs) - bytesAt(at, series, fromWallMs);
    return moved(bytes) - HEADER_BYTES * moved(packets);
  }
}

/** Watches an interface of a namespace; the returned function ends it and gives what was counted. */
export async function watchKernel(netns: string, device: string): Promise<() => Promise<KernelCount>> {
  const child = startIn(netns, process.execPath, 'lab/children/watch-kernel.mjs', device);
  await lineOf(child, /^ready$/);
  return async () => {
    let text = '';
    child.stdout!.on('data', (part: Buffer) => (text += part.toString()));
    child.stdin!.end();
    await ended(child);
    return new KernelCount(JSON.parse(text) as Sample[]);
  };
}
