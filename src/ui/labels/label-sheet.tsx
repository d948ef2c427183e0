import type { ShownLabel } from '@/services';
import { Button } from '../parts/button';
import { PrintButton } from '../parts/print-button';

interface LabelSheetProps {
  readonly siteName: string;
  readonly labels: readonly (ShownLabel & { readonly qrSvg: string })[];
  readonly make: () => Promise<void>;
  readonly revoke: () => Promise<void>;
}

/** Labels to print and cut: whoever scans one says in one press that it is slow there, and it is measured at once. */
export function LabelSheet({ siteName, labels, make, revoke }: LabelSheetProps) {
  return (
    <>
      <div className="print:hidden">
        <h1 className="text-xl font-semibold">Labels</h1>
        <p className="mb-3 mt-1 max-w-[46rem] text-quiet">
          One for each spot and each device. Whoever scans it can say in one press that it is slow there; it is then
          measured at once, inside and out, and stands on the board with its minute. A label lets nobody read anything.
        </p>
        <div className="mb-6 flex flex-wrap gap-3">
          <form action={make}>
            <Button type="submit" look={labels.length === 0 ? 'main' : 'plain'}>
              {labels.length === 0 ? 'Make the labels' : 'Make those that are missing'}
            </Button>
          </form>
          {labels.length > 0 && (
            <>
              <PrintButton />
              <form action={revoke}>
                <Button type="submit" look="quiet">
                  Revoke all of them
                </Button>
              </form>
            </>
          )}
        </div>
      </div>
      <ul className="grid grid-cols-2 sm:grid-cols-3 lg:grid-cols-4 print:grid-cols-3" aria-label="Labels to cut out">
        {labels.map(({ id, address, deviceName, spotName, qrSvg }) => (
          <li
            key={id}
            className="flex break-inside-avoid flex-col items-center border border-dashed border-quiet p-4 text-center"
          >
            <p className="w-full truncate text-xs text-quiet">{siteName}</p>
            <p className="w-full truncate font-semibold">{deviceName ?? spotName}</p>
            {deviceName !== null && <p className="w-full truncate text-xs text-quiet">{spotName ?? ''}</p>}
            <div className="my-2 size-28" dangerouslySetInnerHTML={{ __html: qrSvg }} />
            <p className="text-sm">Is it slow here? Scan, and say so.</p>
            <p className="figure mt-1 w-full truncate text-[0.62rem] text-quiet">
              {address.replace(/^https?:\/\//, '')}
            </p>
          </li>
        ))}
      </ul>
    </>
  );
}
