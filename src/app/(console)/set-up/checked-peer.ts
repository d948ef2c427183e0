import { cache } from 'react';
import { checkPeer, theConsole, type SetUp } from '@/services';

/** How a peer stands, asked once for all parts of one page. */
export const checkedPeer = cache((peer: SetUp['peers'][number]) => checkPeer(theConsole(), peer));
