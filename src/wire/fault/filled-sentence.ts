/** A catalogue's sentence with the facts of one case: each `{name}` is replaced by its fact. */
export function filledSentence(sentence: string, facts: Readonly<Record<string, string | number>>): string {
  return sentence.replace(/\{(\w+)\}/g, (whole, name: string) => String(facts[name] ?? whole));
}
