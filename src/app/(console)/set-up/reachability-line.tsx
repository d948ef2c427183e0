import { agoWords } from '@/core';
import { reachabilityOf, theConsole } from '@/services';

/** Whether other devices can open the address, and what step is missing if not. */
export async function ReachabilityLine() {
  const context = theConsole();
  const { addresses, firewall, reachedFrom } = await reachabilityOf(context);
  const deaf = addresses.filter(({ listens }) => !listens);
  return (
    <ul className="space-y-1 text-sm text-quiet">
      {addresses.length === 0 && (
        <li className="font-medium text-starved">
          This machine has no address in a network: only its own browser can open the page. Plug its cable in.
        </li>
      )}
      {deaf.map(({ address }) => (
        <li key={address} className="font-medium text-starved">
          Port {context.port} does not answer at {address}. Start the program again without binding it to one address.
        </li>
      ))}
      {reachedFrom !== null && (
        <li>
          Another machine, {reachedFrom.address}, opened it {agoWords(context.wallMs() - reachedFrom.atMs)}: the way is
          open.
        </li>
      )}
      {firewall !== null && !firewall.open && (
        <li className="font-medium text-starved">
          The firewall of this machine ({firewall.name}) lets nobody in at port {context.port}. As root, type:{' '}
          <span className="figure select-all text-[0.8rem]">{firewall.step}</span>
        </li>
      )}
      {reachedFrom === null && (firewall === null || firewall.open) && addresses.length > deaf.length && (
        <li>
          Port {context.port} answers here, and {firewall === null ? 'no firewall of this machine' : firewall.name}{' '}
          stands in its way{firewall === null ? '' : ' no longer'}. No other machine has opened it yet since the start;
          if one cannot, look at the firewall of the network between them.
        </li>
      )}
    </ul>
  );
}
