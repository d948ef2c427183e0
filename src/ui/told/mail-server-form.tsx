import type { MailServer } from '@/services';
import { ActionForm, ChoiceField, TextField } from '../form/action-form';
import type { FormAction } from '../form/form-state';

const SECURITY = [
  ['starttls', 'secured before anything is said (STARTTLS)'],
  ['tls', 'secured from the first byte (TLS)'],
  ['none', 'not at all: readable on the way'],
] as const;

interface MailServerFormProps {
  /** Null: none is named. */
  readonly server: Omit<MailServer, 'password'> | null;
  readonly save: FormAction;
}

/** The server by which mail leaves. Its password is kept sealed and never shown again. */
export function MailServerForm({ server, save }: MailServerFormProps) {
  return (
    <ActionForm form="mail-server" action={save} label="Mail server" save="Save">
      <div className="grid max-w-[62rem] gap-x-8 gap-y-2 sm:grid-cols-3">
        <TextField name="host" label="host" value={server?.host ?? ''} hint="nothing: no mail leaves" />
        <ChoiceField name="security" label="secured" value={server?.security ?? 'starttls'} options={SECURITY} />
        <TextField
          name="port"
          label="port"
          value={server === null ? '' : String(server.port)}
          hint="nothing: the usual one"
        />
        <TextField name="from" label="messages come from" value={server?.from ?? ''} />
        <TextField name="user" label="name there" value={server?.user ?? ''} hint="nothing: it asks for none" />
        <TextField
          name="password"
          label="password there"
          value=""
          kind="new-password"
          hint={server === null ? 'kept sealed, never shown again' : 'nothing: as it is'}
        />
      </div>
    </ActionForm>
  );
}
