import { Mark } from '../shell/mark';

interface TrustPageProps {
  readonly httpsAddress: string;
  /** Whether this very page came by https. */
  readonly secured: boolean;
  readonly fingerprint: string;
}

const WITHOUT_HTTPS = [
  'Keep the screen of a device awake while it stands by: it goes dark, and the device counts as away.',
  'Keep the passphrase from somebody who listens on the same network.',
];

/** What https is good for here, what the browser will say, and how to see that it is the right certificate. */
export function TrustPage({ httpsAddress, secured, fingerprint }: TrustPageProps) {
  return (
    <main className="mx-auto max-w-[38rem] px-6 pb-16 pt-16">
      <p className="mb-8 flex items-center gap-2 font-semibold">
        <Mark /> Bent Straw
      </p>
      <h1 className="text-2xl font-semibold">{secured ? 'This page came by https' : 'Opening it by https'}</h1>
      <p className="mt-2 text-quiet">
        The same port speaks both. Measuring works by either; figures of very fast links are a little lower by https,
        because what is sent has to be enciphered.
      </p>
      <h2 className="mt-6 font-semibold">What plain http cannot do</h2>
      <ul className="mt-1 list-disc pl-5 text-quiet">
        {WITHOUT_HTTPS.map((sentence) => (
          <li key={sentence}>{sentence}</li>
        ))}
      </ul>
      <h2 className="mt-6 font-semibold">What the browser will say</h2>
      <p className="mt-1 text-quiet">
        That the connection is not private. The certificate was made on this machine, so nobody else vouches for it.
        Open{' '}
        <a href={httpsAddress} className="text-ink underline">
          {httpsAddress}
        </a>
        , look at the certificate, and compare its SHA-256 fingerprint with this one before you go on:
      </p>
      <p className="figure mt-3 break-all border border-hairline bg-sheet p-3 text-sm">{fingerprint}</p>
      <p className="mt-3 text-quiet">
        To have no question at all, start the program with a certificate that your devices trust already: --tls-cert
        FILE --tls-key FILE.
      </p>
    </main>
  );
}
