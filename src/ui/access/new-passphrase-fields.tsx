import { LEAST_PASSPHRASE } from '@/wire';
import { TextField } from '../form/action-form';

/** A passphrase that is set for the first time, typed twice. */
export function NewPassphraseFields() {
  return (
    <>
      <TextField
        name="passphrase"
        label="passphrase"
        value=""
        kind="new-password"
        hint={`at least ${LEAST_PASSPHRASE} characters; four words do well`}
      />
      <TextField name="again" label="the same again" value="" kind="new-password" />
    </>
  );
}
