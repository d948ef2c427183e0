import { KNOCK_NAMES, type OutsideFound } from '@/core';
import { rangeWordsOf } from './address-range';
import { CELL, FIGURE, Table } from './found-table';

/** How an office is seen from outside: each address with whom it belongs to, and the ports that were knocked at. */
export function OutsideTable({ found }: { readonly found: OutsideFound }) {
  const addresses = [
    ['this machine', found.ownAddress],
    ['the office’s router says', found.routerAddress],
    [`${found.peer} sees`, found.seenAddress],
  ] as const;
  return (
    <>
      <Table label="Addresses" heads={['who', 'address', 'whose it is']}>
        {addresses.map(([who, address]) => (
          <tr key={who} className="border-t border-hairline">
            <td className={`${CELL} break-words`}>{who}</td>
            <td className={FIGURE}>{address ?? 'not told'}</td>
            <td className={`${CELL} text-quiet`}>{address === null ? '' : rangeWordsOf(address)}</td>
          </tr>
        ))}
      </Table>
      {found.ports.length > 0 && (
        <Table label="Ports from outside" heads={['port', 'from outside']}>
          {found.ports.map(({ port, state }) => (
            <tr key={port} className="border-t border-hairline">
              <td className={FIGURE}>{port}</td>
              <td className={`${CELL} ${state === 'open' ? 'font-medium' : 'text-quiet'}`}>{KNOCK_NAMES[state]}</td>
            </tr>
          ))}
        </Table>
      )}
    </>
  );
}
