import type { AirFound } from '@/core';
import { thisMachine } from '../machine/this-machine';
import { LookFault } from './look-fault';

/** Networks that a radio of this machine hears. Throws LookFault. */
export async function lookAtAir(machine = thisMachine): Promise<AirFound> {
  const found = await machine.air();
  if (!('trouble' in found)) return found;
  throw found.trouble === 'no-radio' ? new LookFault('no-radio') : new LookFault('no-scan', { device: found.device });
}
