/** Whether a program answers: `health.js ADDRESS`. Ends with 0 when it does, for whoever keeps containers. */
const [address = ''] = process.argv.slice(2);
const PATIENCE_MS = 4000;

fetch(address, { signal: AbortSignal.timeout(PATIENCE_MS) }).then(
  ({ ok, status }) => {
    if (!ok) console.error(`It answers with ${status}.`);
    process.exit(ok ? 0 : 1);
  },
  (error: unknown) => {
    console.error(error instanceof Error ? error.message : String(error));
    process.exit(1);
  },
);
