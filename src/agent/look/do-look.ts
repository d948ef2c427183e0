import type { LookAsked, LookFound, SnmpLogin } from '@/core';
import { lookAtPrograms } from '../machine/look-at-programs';
import { lookAtAir } from './air';
import { lookAtEcho } from './echo';
import { LookFault } from './look-fault';
import { lookAtLine } from './line';
import { lookAtNames } from './names';
import { lookAtPath } from './path';
import { lookAtPorts } from './ports';
import { lookAtShare } from './share';
import { USUAL_LOGIN } from './snmp-session';

/** `login`: for a device that is asked by SNMP. Looks at what is asked for. Throws LookFault with what kept it from that. */
export async function doLook(
  asked: LookAsked,
  signal: AbortSignal,
  login: SnmpLogin | null = null,
): Promise<LookFound> {
  try {
    switch (asked.what) {
      case 'share':
        return await lookAtShare(asked, signal);
      case 'echo':
        return await lookAtEcho(asked, signal);
      case 'names':
        return await lookAtNames(asked, signal);
      case 'path':
        return await lookAtPath(asked, signal);
      case 'ports':
        return await lookAtPorts(asked, login ?? USUAL_LOGIN, signal);
      case 'line':
        return await lookAtLine(asked, signal);
      case 'air':
        return await lookAtAir();
      case 'programs': {
        const programs = await lookAtPrograms(asked.seconds * 1000, signal);
        if (programs === null) throw new LookFault('no-ss');
        return { what: 'programs', seconds: asked.seconds, programs };
      }
    }
  } catch (error) {
    if (error instanceof LookFault) throw error;
    throw new LookFault('look-failed', { why: error instanceof Error ? error.message : String(error) });
  }
}
