import { bytesAt } from '@/core';
import { ended, lineOf, startIn } from './command';

/** Headers of a packet as veth and the shaper see it: Ethernet 14, IPv4 20, TCP 32 with timestamps. */
const HEADER_BYTES = 66;

type Sample = readonly [wallMs: number, receivedBytes: number, receivedPackets: number];

/** What the kernel counted on one interface while it was watched. */
export class KernelCount {
  constructor(private readonly samples: readonly Sample[]) {}

  /** TCP payload that the interface had received at each wall time, bytes: all bytes less the headers of all packets. */
  payloadAt(wallMs: readonly number[]): number[] {
    const at = this.samples.map(([sampled]) => sampled);
    const payload = this.samples.map(([, bytes, packets]) => bytes - HEADER_BYTES * packets);
    return wallMs.map((time) => bytesAt(at, payload, time));
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
