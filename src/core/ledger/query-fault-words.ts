import { kindOfField, type LedgerField } from './ledger-field';
import type { QueryFault } from './ledger-query';

const listed = (words: readonly string[]) =>
  words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')} or ${words.at(-1)!}`;

function exampleOf(field: LedgerField): string {
  const kind = kindOfField(field);
  return kind.kind === 'figure' ? `${field}<100, ${field}=75..200` : `${field}=25.11.2026, ${field}=yesterday`;
}

/** What was typed into the ledger's field and means nothing, and what would. */
export function queryFaultWords({ code, typed, field, known }: QueryFault): string {
  const left = `“${typed}” was left out:`;
  switch (code) {
    case 'field-unknown':
      return `${left} there is nothing of that name. Type one of ${listed(known)}.`;
    case 'value-unknown':
      return `${left} ${field} is ${listed(known)}.`;
    case 'figure-unreadable': {
      const kind = kindOfField(field!);
      return kind.kind === 'figure'
        ? `${left} it is no figure in ${kind.unit}. Type ${exampleOf(field!)}.`
        : `${left} only figures are larger or smaller. Type ${field}=…`;
    }
    case 'day-unreadable':
      return known.length > 0
        ? `${left} it is no ${kindOfField(field!).kind === 'hours' ? 'hour of the day' : 'span'}. Type ${known.map((each) => `${field}=${each}`).join(', ')}.`
        : `${left} it is no day. Type ${exampleOf(field!)}.`;
    case 'value-missing':
      return `${left} it says nothing behind ${field}.`;
  }
}
