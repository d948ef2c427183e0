import type { SetUp } from '@/services';
import type { FormAction } from '../form/form-state';
import { Button } from '../parts/button';
import { WallTime } from '../parts/wall-time';
import { Section } from './section';
import { ActionForm, TextField } from '../form/action-form';

interface OfficeSectionProps {
  readonly site: NonNullable<SetUp['site']>;
  readonly save: FormAction;
  readonly renewCode: (siteId: string) => Promise<void>;
}

export function OfficeSection({ site, save, renewCode }: OfficeSectionProps) {
  return (
    <Section title="Office" hint="Devices join with its code.">
      <ActionForm action={save} label="Office" save="Save the office">
        <div className="grid gap-5 sm:grid-cols-[1fr_10rem]">
          <TextField name="name" label="name" value={site.name} />
          <div>
            <p className="text-sm text-quiet">code</p>
            <p className="figure py-1.5 text-lg">{site.joinCode}</p>
          </div>
        </div>
      </ActionForm>
      <form
        action={renewCode.bind(null, site.id)}
        className="mt-3 flex flex-wrap items-baseline gap-x-4 text-sm text-quiet"
      >
        <span>
          The code works until <WallTime atMs={site.joinCodeUntilMs} />. Devices that have joined stay.
        </span>
        <Button type="submit" look="quiet" className="text-sm">
          Make a new code; the old one stops at once
        </Button>
      </form>
    </Section>
  );
}
