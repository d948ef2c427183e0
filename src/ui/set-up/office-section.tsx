import type { SetUp } from '@/services';
import type { FormAction } from './form-state';
import { Section } from './section';
import { SetUpForm, TextField } from './set-up-form';

interface OfficeSectionProps {
  readonly site: NonNullable<SetUp['site']>;
  readonly save: FormAction;
}

export function OfficeSection({ site, save }: OfficeSectionProps) {
  return (
    <Section title="Office" hint="Devices join with its code.">
      <SetUpForm action={save} label="Office" save="Save the office">
        <div className="grid gap-5 sm:grid-cols-[1fr_10rem]">
          <TextField name="name" label="name" value={site.name} />
          <div>
            <p className="text-sm text-quiet">code</p>
            <p className="figure py-1.5 text-lg">{site.joinCode}</p>
          </div>
        </div>
      </SetUpForm>
    </Section>
  );
}
