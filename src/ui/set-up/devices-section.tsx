'use client';

import { linkKindOf, linkKindWords, nominalRateFigure, type Link } from '@/core';
import type { SetUp } from '@/services';
import { LINK_CHOICE_WORDS } from '../device/link-choice';
import { Button } from '../parts/button';
import { Confirm } from '../parts/confirm';
import type { EditActions } from '../form/form-state';
import { Section } from './section';
import { ChoiceField, ActionForm, TextField } from '../form/action-form';

type Device = SetUp['devices'][number];

interface DevicesSectionProps extends Pick<SetUp, 'devices'> {
  readonly siteId: string;
  readonly actions: EditActions;
  readonly spots: readonly string[];
}

function linkWords(link: Link): string {
  const rate =
    link.medium === 'wired' && link.negotiatedBps !== null ? `, ${nominalRateFigure(link.negotiatedBps)} Mb/s` : '';
  return linkKindWords(linkKindOf(link)) + rate;
}

interface DeviceFormProps {
  readonly siteId: string;
  readonly device: Device | null;
  readonly actions: EditActions;
}

function DeviceForm({ siteId, device, actions }: DeviceFormProps) {
  const link = device?.link ?? ({ medium: 'unknown' } as const);
  const negotiated =
    link.medium === 'wired' && link.negotiatedBps !== null ? nominalRateFigure(link.negotiatedBps) : '';
  return (
    <ActionForm
      action={actions.save}
      label={device === null ? 'New device' : device.name}
      save={device === null ? 'Add the device' : 'Save the device'}
      beside={
        device !== null && (
          <Confirm
            trigger={<Button look="quiet">Remove</Button>}
            title={`Remove ${device.name}?`}
            consequence="It leaves the board. Its runs stay in the ledger under its name."
            action="Remove it"
            onConfirm={() => void actions.remove(device.id)}
          />
        )
      }
    >
      <input type="hidden" name="siteId" value={siteId} />
      {device !== null && <input type="hidden" name="deviceId" value={device.id} />}
      <div className="grid gap-x-8 gap-y-4 sm:grid-cols-2">
        <TextField name="name" label="name" value={device?.name ?? ''} />
        <TextField name="spotName" label="spot" value={device?.spotName ?? ''} list="set-up-spots" />
        <ChoiceField
          name="linkChoice"
          label="connected"
          value={linkKindOf(link)}
          options={Object.entries(LINK_CHOICE_WORDS)}
        />
        <TextField name="negotiatedMbps" label="a cable came up at, if known" unit="Mb/s" value={negotiated} />
      </div>
    </ActionForm>
  );
}

/** The devices, each edited where it stands. */
export function DevicesSection({ siteId, devices, spots, actions }: DevicesSectionProps) {
  return (
    <Section title="Devices" hint="They also add themselves when they join with the code.">
      <datalist id="set-up-spots">
        {spots.map((spot) => (
          <option key={spot} value={spot} />
        ))}
      </datalist>
      <ul>
        {devices.map((device) => (
          <li key={device.id} className="border-b border-hairline">
            <details className="group">
              <summary className="grid cursor-pointer grid-cols-[1fr_8rem_10rem_2.5rem] gap-4 py-2 hover:bg-sheet">
                <span className="break-words">{device.name}</span>
                <span className="truncate text-quiet">{device.spotName || 'no spot'}</span>
                <span className="text-quiet">{linkWords(device.link)}</span>
                <span className="text-sm underline decoration-hairline underline-offset-4">edit</span>
              </summary>
              <div className="pb-5 pt-2">
                <DeviceForm siteId={siteId} device={device} actions={actions} />
              </div>
            </details>
          </li>
        ))}
        <li>
          <details>
            <summary className="py-2 underline decoration-hairline underline-offset-4 hover:decoration-ink">
              Add a device
            </summary>
            <div className="pb-3 pt-2">
              <DeviceForm key={devices.length} siteId={siteId} device={null} actions={actions} />
            </div>
          </details>
        </li>
      </ul>
    </Section>
  );
}
