import { DeviceEntrance } from '../device-entrance';

export default async function JoinByCodePage({ params }: { readonly params: Promise<{ code: string }> }) {
  return <DeviceEntrance code={decodeURIComponent((await params).code)} />;
}
