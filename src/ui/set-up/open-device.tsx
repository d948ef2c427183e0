'use client';

import type { SetUpDevice } from '@/services';
import { Button } from '../parts/button';
import { Confirm } from '../parts/confirm';
import { WallTime } from '../parts/wall-time';

interface OpenDeviceProps {
  readonly device: SetUpDevice;
  readonly open: (deviceId: string) => Promise<void>;
}

/** A browser is this device. When it lost its cookie, or was replaced, the technician lets another one become it. */
export function OpenDevice({ device, open }: OpenDeviceProps) {
  if (device.openUntilMs !== null)
    return (
      <p className="text-sm text-quiet">
        Another browser may become this device until <WallTime atMs={device.openUntilMs} />.
      </p>
    );
  return (
    <Confirm
      trigger={<Button look="quiet">Let another browser be it</Button>}
      title={`Let another browser be ${device.name}?`}
      consequence="For an hour, whoever holds the code can choose this device on the device page. It stays with the browser that has it until then."
      keep="Leave it as it is"
      action="Let another be it"
      onConfirm={() => void open(device.id)}
    />
  );
}
