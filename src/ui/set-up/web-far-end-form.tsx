import type { SetUp } from '@/services';
import { Button } from '../parts/button';
import { Confirm } from '../parts/confirm';
import type { FormAction } from '../form/form-state';
import { ActionForm, NoteField, TextField } from '../form/action-form';

type Peer = SetUp['peers'][number];

/** What a run loads at most, where nobody has said otherwise, MB: enough for ten seconds at 800 Mb/s. */
const USUAL_MB = 1000;

interface WebFarEndFormProps {
  readonly siteId: string;
  readonly peer: Peer | null;
  readonly save: FormAction;
  readonly remove: (peerId: string) => Promise<void>;
}

/** A web server as the far end: what agents may load, and how much of it. */
export function WebFarEndForm({ siteId, peer, save, remove }: WebFarEndFormProps) {
  const web = peer?.web ?? null;
  return (
    <ActionForm
      form="web-far-end"
      action={save}
      label={peer?.name ?? 'New web server'}
      save={peer === null ? 'Add the web server' : 'Save the web server'}
      beside={
        peer !== null && (
          <Confirm
            trigger={<Button look="quiet">Remove</Button>}
            title={`Remove ${peer.name}?`}
            consequence="Agents no longer load it. Runs already made keep its name. It can be put back for a day."
            action="Remove it"
            onConfirm={() => void remove(peer.id)}
          />
        )
      }
    >
      <input type="hidden" name="siteId" value={siteId} />
      {peer !== null && <input type="hidden" name="peerId" value={peer.id} />}
      <div className="grid gap-x-8 gap-y-4 sm:grid-cols-2">
        <TextField name="name" label="name" value={peer?.name ?? ''} />
        <TextField
          name="contact"
          label="contact"
          value={web?.contact ?? ''}
          hint="an e-mail address or a page: its owner sees it with each request"
        />
        <NoteField
          name="pages"
          label="what may be loaded"
          value={web?.pages.join('\n') ?? ''}
          hint="large files, an address a line; several are loaded side by side"
        />
        <TextField
          name="mostMb"
          label="a run loads at most"
          unit="MB"
          value={String((web?.mostBytes ?? USUAL_MB * 1e6) / 1e6)}
        />
      </div>
    </ActionForm>
  );
}
