/** What was typed into a field of a form; blank where there is none. */
export function typedIn(form: HTMLFormElement, name: string): string {
  const value = new FormData(form).get(name);
  return typeof value === 'string' ? value : '';
}
