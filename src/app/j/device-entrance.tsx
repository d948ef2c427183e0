import { CONSOLE_FAULTS, joinPageOf, theConsole } from '@/services';
import { DevicePage } from '@/ui/device/device-page';
import { problemOf } from '@/wire';
import { visitorWith } from '../visitor';
import { CodeForm } from '@/ui/device/code-form';

/** Lets a device in, or says why not and asks for the code. */
export async function DeviceEntrance({ code }: { readonly code: string | null }) {
  const joined = await joinPageOf(theConsole(), await visitorWith(code));
  if (joined.ok) return <DevicePage join={joined.value} />;
  const problem = problemOf(CONSOLE_FAULTS, joined.fault);
  return <CodeForm title={problem.title} detail={problem.detail} askCode={joined.fault.code !== 'site-missing'} />;
}
