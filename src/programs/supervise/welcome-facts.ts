import { hereToken, joinAddresses, welcomeToken, type ConsoleContext } from '@/services';
import type { PartFacts } from './child-link';

/** What the launcher shows of a console that is ready: how a device joins, and how the technician gets in. */
export async function welcomeFacts(context: ConsoleContext): Promise<PartFacts> {
  const { store, port, signingKey, wallMs } = context;
  const [site] = await store.sites.all();
  const isOpen = (await store.access.technicians()).length > 0;
  return {
    joinCode: site?.joinCode ?? null,
    joinAddress: site === undefined ? null : joinAddresses(port, site.joinCode)[0]!,
    /** Opens the console from this machine, once. */
    here: site === undefined ? null : hereToken(signingKey, wallMs()),
    /** Sets the first passphrase; null when there is one. */
    welcome: isOpen ? null : welcomeToken({ signingKey }),
  };
}
