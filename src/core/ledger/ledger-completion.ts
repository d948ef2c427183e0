import { kindOfField, LEDGER_FIELD_NAMES, fieldNamed, type FieldOf } from './ledger-field';
import { wordsTyped } from './ledger-query';

/** Names that runs of the office have, by field. */
export type KnownValues = Readonly<Record<FieldOf<'text'>, readonly string[]>>;

/** What may be meant: `text` in place of what stands from `from` to `to`. */
export interface Completion {
  readonly text: string;
  readonly about: string;
}

export interface Completions {
  readonly from: number;
  readonly to: number;
  readonly options: readonly Completion[];
}

const MOST = 8;
const quoted = (value: string) => (/[\s,"]/.test(value) ? `"${value.replaceAll('"', '')}"` : value);
const holds = (value: string, part: string) => value.toLowerCase().includes(part.toLowerCase());
const startsFirst = (part: string) => (a: string, b: string) =>
  Number(b.toLowerCase().startsWith(part.toLowerCase())) - Number(a.toLowerCase().startsWith(part.toLowerCase()));

function valuesFor(name: string, known: KnownValues): readonly string[] | null {
  const field = fieldNamed(name);
  if (field === null) return null;
  const kind = kindOfField(field);
  if (kind.kind === 'choice') return kind.choices.map(([typed]) => typed);
  if (kind.kind === 'text') return known[field as FieldOf<'text'>];
  if (kind.kind === 'day') return ['today', 'yesterday'];
  if (kind.kind === 'hours') return ['7..19', '19..22', '22..6'];
  return kind.kind === 'span' ? ['24h', '7d', '4w', '52w'] : [];
}

/** What the word at the caret may become: the names of fields, or of a field the values that it can have. */
export function completionsAt(text: string, caret: number, known: KnownValues): Completions {
  const word = wordsTyped(text).find(({ from, to }) => from < caret && caret <= to) ?? {
    from: caret,
    to: caret,
    text: '',
  };
  const typed = text.slice(word.from, caret);
  const [, name, values] = /^-?([A-Za-z]+)!?=(.*)$/s.exec(typed) ?? [];
  if (name !== undefined && values !== undefined) {
    const part = (values.match(/[^,]*$/)?.[0] ?? '').replaceAll('"', '');
    const found = (valuesFor(name, known) ?? [])
      .filter((value) => holds(value, part) && value.toLowerCase() !== part.toLowerCase())
      .sort(startsFirst(part));
    const from = caret - (values.match(/[^,]*$/)?.[0] ?? '').length;
    return { from, to: word.to, options: found.slice(0, MOST).map((value) => ({ text: quoted(value), about: '' })) };
  }
  const part = typed.replace(/^-/, '');
  const from = word.from + (typed.length - part.length);
  const fields = LEDGER_FIELD_NAMES.filter((field) => field.startsWith(part.toLowerCase())).map((field) => {
    const { kind, about } = kindOfField(field);
    return { text: `${field}${kind === 'figure' ? '<' : '='}`, about };
  });
  return { from, to: word.to, options: part === '' && caret > 0 && word.text !== '' ? [] : fields };
}
