import { headers } from 'next/headers';
import { unstable_rethrow } from 'next/navigation';
import { diskTroubleOf, theConsole } from '@/services';
import { failed, REQUEST_ID_HEADER, type ConsoleFaultCode, type Outcome } from '@/wire';

/** What an error that nobody expected becomes: a fault with a code; what it was stands in the log under the request's id. */
async function faultOf(error: unknown): Promise<{ readonly ok: false } & Outcome<never, ConsoleFaultCode>> {
  const id = (await headers()).get(REQUEST_ID_HEADER) ?? 'unknown';
  const reason = diskTroubleOf(error);
  if (reason !== null) {
    theConsole().log.error({ id, reason }, 'the data folder cannot be written');
    return failed('store-full', { reason });
  }
  theConsole().log.error({ id, err: error }, 'unexpected');
  return failed('unexpected', { id });
}

/** Does something that may fail in ways nobody expected: that too is an outcome. What Next throws to lead elsewhere goes on. */
export async function guarded<Value>(
  act: () => Promise<Outcome<Value, ConsoleFaultCode>>,
): Promise<Outcome<Value, ConsoleFaultCode>> {
  try {
    return await act();
  } catch (error) {
    unstable_rethrow(error);
    return faultOf(error);
  }
}
