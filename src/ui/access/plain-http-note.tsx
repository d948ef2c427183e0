/** Said where a passphrase is typed into a page that others on the network can read. */
export function PlainHttpNote({ saferAddress }: { readonly saferAddress: string | null }) {
  if (saferAddress === null) return null;
  return (
    <p role="note" className="mb-6 border-l-[3px] border-thin bg-sheet px-4 py-3 text-sm">
      This page came by plain http: whoever listens on this network can read the passphrase.{' '}
      <a href={`${saferAddress}/sign-in`} className="underline">
        Open it by https
      </a>{' '}
      instead; the browser will ask about the certificate, and{' '}
      <a href="/trust" className="underline">
        how to check that
      </a>{' '}
      is written down.
    </p>
  );
}
