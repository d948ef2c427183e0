import { headers } from 'next/headers';
import { joinPageOf, theConsole } from '@/services';
import { DevicePage } from '@/ui/device/device-page';
import { CONSOLE_FAULTS, problemOf, profileSchema } from '@/wire';
import { OldBrowserNote } from '@/ui/device/old-browser-note';
import { visitorWith } from '../visitor';
import { CodeForm } from '@/ui/device/code-form';

interface DeviceEntranceProps {
  readonly code: string | null;
  /** Chosen in the address; anything that is no profile means the standard one. */
  readonly profile: unknown;
}

/** Lets a device in, or says why not and asks for the code. */
export async function DeviceEntrance({ code, profile }: DeviceEntranceProps) {
  const asked = await headers();
  const userAgent = asked.get('user-agent') ?? '';
  const nonce = /'nonce-([^']+)'/.exec(asked.get('content-security-policy') ?? '')?.[1];
  const address = `${asked.get('x-forwarded-proto') ?? 'http'}://${asked.get('host') ?? ''}/j/${code ?? ''}`;
  const joined = await joinPageOf(theConsole(), await visitorWith(code), userAgent);
  if (joined.ok)
    return (
      <>
        <OldBrowserNote nonce={nonce} address={address} />
        <DevicePage join={joined.value} profile={profileSchema.catch('standard').parse(profile)} />
      </>
    );
  const problem = problemOf(CONSOLE_FAULTS, joined.fault);
  return <CodeForm title={problem.title} detail={problem.detail} askCode={joined.fault.code !== 'site-missing'} />;
}
