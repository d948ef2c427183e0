'use client';

import type { SetUp } from '@/services';
import type { FormAction } from '../form/form-state';
import { ActionForm, TextField } from '../form/action-form';
import { Button } from '../parts/button';
import { Confirm } from '../parts/confirm';
import { Section } from './section';

interface OfficeSectionProps {
  readonly site: NonNullable<SetUp['site']>;
  readonly save: FormAction;
  readonly remove: (siteId: string) => Promise<void>;
  readonly removeDemoData: () => Promise<void>;
}

export function OfficeSection({ site, save, remove, removeDemoData }: OfficeSectionProps) {
  return (
    <Section title="Office" hint="Everything that is measured belongs to an office.">
      <ActionForm
        form="office"
        action={save}
        label="Office"
        save="Save the office"
        beside={
          <>
            <Confirm
              trigger={<Button look="quiet">Remove this office</Button>}
              title={`Remove ${site.name}?`}
              consequence="Its lines, devices, peers and all of its runs go with it. It can be put back for a day."
              action="Remove it"
              onConfirm={() => void remove(site.id)}
            />
            {site.demo && (
              <Confirm
                trigger={<Button look="quiet">Remove all demo data</Button>}
                title="Remove all demo data?"
                consequence="Both made-up offices go, with all of their runs. They can be put back for a day."
                action="Remove it"
                onConfirm={() => void removeDemoData()}
              />
            )}
          </>
        }
      >
        <input type="hidden" name="siteId" value={site.id} />
        <div className="grid gap-y-4">
          <TextField name="name" label="name" value={site.name} />
          <TextField
            name="timeZone"
            label="time zone"
            value={site.timeZone ?? ''}
            hint="whose hours its evenings are, for example Europe/Dublin; empty: that of the console"
          />
        </div>
      </ActionForm>
    </Section>
  );
}
