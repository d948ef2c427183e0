import type { LookAsked, LookFound } from '@/core';
import { lookAtPrograms } from '../machine/look-at-programs';
import { lookAtAir } from './air';
import type { LookHelp } from './answer-look';
import { lookAtEcho } from './echo';
import { LookFault } from './look-fault';
import { lookAtLine } from './line';
import { lookAtNames } from './names';
import { lookFromOutside } from './outside';
import { lookAtPath } from './path';
import { lookUnderLoad } from './path-load';
import { lookAtPorts } from './ports';
import { lookAtShare } from './share';
import { USUAL_LOGIN } from './snmp-session';

const ALONE: LookHelp & { readonly origin: string } = { login: null, far: null, origin: '' };

/** Looks at what is asked for. `origin`: of the console that asks. Throws LookFault with what kept it from that. */
export async function doLook(
  asked: LookAsked,
  signal: AbortSignal,
  { login, far, origin }: LookHelp & { readonly origin: string } = ALONE,
): Promise<LookFound> {
  try {
    switch (asked.what) {
      case 'share':
        return await lookAtShare(asked, signal);
      case 'echo':
        return await lookAtEcho(asked, signal);
      case 'names':
        return await lookAtNames(asked, signal);
      case 'path': {
        const found = await lookAtPath(asked, signal);
        if (asked.loaded !== true) return found;
        return { ...found, loaded: await lookUnderLoad(found.hops, far, { signal, origin }) };
      }
      case 'ports':
        return await lookAtPorts(asked, login ?? USUAL_LOGIN, signal);
      case 'line':
        return await lookAtLine(asked, signal);
      case 'air':
        return await lookAtAir();
      case 'outside':
        return await lookFromOutside(asked, far, { signal, origin });
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
