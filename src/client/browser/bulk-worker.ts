import { servePull } from './bulk-pull';
import type { BulkOrder, BulkReport } from './bulk-messages';

/** A worker that does nothing but take a download in. Ends by being terminated. */
const pull = servePull((report: BulkReport) => self.postMessage(report));
self.onmessage = ({ data }: MessageEvent<BulkOrder>) => pull.take(data);
