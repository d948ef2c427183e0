'use client';

import { useState } from 'react';
import { DEVICE_KINDS, linkKindOf, linkKindWords, nominalRateFigure, type Link } from '@/core';
import type { SetUp, SetUpDevice } from '@/services';
import { Button } from '../parts/button';
import { Confirm } from '../parts/confirm';
import type { EditActions } from '../form/form-state';
import { Section } from './section';
import { ActionForm, ChoiceField, NoteField, TextField } from '../form/action-form';
import { LinkFields } from './link-fields';
import { MergeDevice } from './merge-device';
import { OpenDevice } from './open-device';

export interface DeviceActions extends EditActions {
  /** The first is the second: its runs become that one's. */
  readonly merge: (fromId: string, intoId: string) => Promise<void>;
  /** For an hour another browser may become this device. */
  readonly open: (deviceId: string) => Promise<void>;
}

interface DevicesSectionProps extends Pick<SetUp, 'devices'> {
  readonly siteId: string;
  readonly actions: DeviceActions;
  readonly spots: readonly string[];
}

function linkWords(link: Link): string {
  const kind = linkKindWords(linkKindOf(link));
  if (link.medium === 'wired' && link.negotiatedBps !== null)
    return `${kind}, ${nominalRateFigure(link.negotiatedBps)} Mb/s`;
  if (link.medium === 'wifi' && link.accessPoint !== undefined) return `${kind}, ${link.accessPoint}`;
  return kind;
}

interface DeviceFormProps {
  readonly siteId: string;
  readonly device: SetUpDevice | null;
  readonly others: readonly SetUpDevice[];
  readonly actions: DeviceActions;
}

function DeviceForm({ siteId, device, others, actions }: DeviceFormProps) {
  return (
    <ActionForm
      form="device"
      action={actions.save}
      label={device === null ? 'New device' : device.name}
      save={device === null ? 'Add the device' : 'Save the device'}
      beside={
        device !== null && (
          <>
            <Confirm
              trigger={<Button look="quiet">Remove</Button>}
              title={`Remove ${device.name}?`}
              consequence="It leaves the board. Its runs stay in the ledger under its name. It can be put back for a day."
              action="Remove it"
              onConfirm={() => void actions.remove(device.id)}
            />
            {device.taken && <OpenDevice device={device} open={actions.open} />}
            {others.length > 0 && <MergeDevice device={device} others={others} merge={actions.merge} />}
          </>
        )
      }
    >
      <input type="hidden" name="siteId" value={siteId} />
      {device !== null && <input type="hidden" name="deviceId" value={device.id} />}
      <div className="grid gap-x-8 gap-y-4 sm:grid-cols-2">
        <TextField name="name" label="name" value={device?.name ?? ''} />
        <TextField name="spotName" label="spot" value={device?.spotName ?? ''} list="set-up-spots" />
        <ChoiceField
          name="kind"
          label="what it is"
          value={device?.kind ?? ''}
          options={[['', 'not said'], ...DEVICE_KINDS.map((kind) => [kind, kind] as const)]}
        />
        <LinkFields link={device?.link ?? { medium: 'unknown' }} />
        <div className="sm:col-span-2">
          <NoteField name="notes" label="notes" value={device?.notes ?? ''} />
        </div>
      </div>
    </ActionForm>
  );
}

/** A form that is made only once it is opened: an office has many devices. */
function OpenedForm(props: DeviceFormProps & { readonly summary: React.ReactNode }) {
  const [opened, setOpened] = useState(false);
  const { summary, ...form } = props;
  return (
    <details onToggle={(event) => event.currentTarget.open && setOpened(true)}>
      {summary}
      <div className="pb-5 pt-2">{opened && <DeviceForm {...form} />}</div>
    </details>
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
            <OpenedForm
              siteId={siteId}
              device={device}
              others={devices.filter((other) => other.id !== device.id)}
              actions={actions}
              summary={
                <summary className="grid cursor-pointer grid-cols-[1fr_auto] gap-x-4 py-2 md:grid-cols-[1fr_8rem_11rem_2.5rem] hover:bg-sheet">
                  <span className="min-w-0 break-words">{device.name}</span>
                  <span className="truncate text-quiet max-md:order-3">{device.spotName || 'no spot'}</span>
                  <span className="truncate text-quiet max-md:order-4">{linkWords(device.link)}</span>
                  <span className="text-sm underline decoration-hairline underline-offset-4 max-md:text-right">
                    edit
                  </span>
                </summary>
              }
            />
          </li>
        ))}
        <li>
          <OpenedForm
            key={devices.length}
            siteId={siteId}
            device={null}
            others={[]}
            actions={actions}
            summary={
              <summary className="py-2 underline decoration-hairline underline-offset-4 hover:decoration-ink">
                Add a device
              </summary>
            }
          />
        </li>
      </ul>
    </Section>
  );
}
