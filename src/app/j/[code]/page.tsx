import { DeviceEntrance } from '../device-entrance';

interface JoinByCodeProps {
  readonly params: Promise<{ code: string }>;
  readonly searchParams: Promise<{ profile?: string | string[] }>;
}

export default async function JoinByCodePage({ params, searchParams }: JoinByCodeProps) {
  const { profile } = await searchParams;
  return <DeviceEntrance code={decodeURIComponent((await params).code)} profile={profile} />;
}
