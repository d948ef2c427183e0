import { once } from 'node:events';
import type { AddressInfo } from 'node:net';
import { join } from 'node:path';
import type { OpenedFarEnd } from '@/agent';
import { createFrontDoor, Peer, StampReflector } from '@/peer';
import { publicKeyText, readPublicKey } from '@/wire/peer/ticket';
import { ensureKeyFile } from '../folder/key-file';
import { programVersion } from '../folder/version';
import { monotonicMs, preciseWallMs, wallMs } from '../supervise/clocks';

/** Tried first, so that a firewall can be opened for it; taken by another program, any other will do. */
export const FAR_END_PORT = 4872;

async function listenOn(door: ReturnType<typeof createFrontDoor>, port: number): Promise<number> {
  door.listen(port);
  await once(door, 'listening');
  return (door.address() as AddressInfo).port;
}

/** A peer in this process, for one run of another machine: rates, delay, and UDP on the same port number. */
export async function openFarEnd(name: string, folder: string, trust: string): Promise<OpenedFarEnd> {
  const trusted = readPublicKey(trust);
  if (trusted === null) throw new Error('that is no key of a console');
  const identity = ensureKeyFile(join(folder, 'far-end-key.pem'));
  const open = async (port: number) => {
    const reflector = await StampReflector.start({ port, openTo: [], host: undefined, wallMs: preciseWallMs });
    const peer = new Peer({
      ...{ identity, reflector, channels: null, name, version: programVersion(), trusted: [trusted], mostSessions: 1 },
      ...{ wallMs, monotonicMs },
    });
    const door = createFrontDoor(peer, { consolePort: null, hosts: [], proxies: [], tls: null, doorSecret: '' });
    const close = () => {
      peer.close();
      door.closeAllConnections();
      door.close();
      void reflector.close();
    };
    try {
      return { port: await listenOn(door, port), publicKey: publicKeyText(identity), close };
    } catch (error) {
      close();
      throw error;
    }
  };
  return open(FAR_END_PORT).catch(() => open(0));
}
