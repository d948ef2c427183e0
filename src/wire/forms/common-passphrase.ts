/**
 * What is tried first by whoever guesses: words that many people choose, alone, doubled, or with a few digits or signs
 * after them. Written small, without spaces.
 */
const COMMON_WORDS = [
  ...['password', 'passphrase', 'passwort', 'motdepasse', 'contrasena', 'kennwort', 'wachtwoord', 'letmein', 'welcome'],
  ...['willkommen', 'administrator', 'admin', 'root', 'user', 'guest', 'default', 'changeme', 'secret', 'geheim'],
  ...['qwerty', 'qwertz', 'azerty', 'qwertyuiop', 'qwertzuiop', 'asdfghjkl', 'zxcvbnm', '1q2w3e4r', 'abcdef', 'abcd'],
  ...['iloveyou', 'sunshine', 'princess', 'dragon', 'monkey', 'football', 'baseball', 'superman', 'batman', 'master'],
  ...['internet', 'network', 'router', 'computer', 'server', 'wireless', 'bentstraw', 'straw', 'technician', 'office'],
  ...['correcthorsebatterystaple', 'trustno1', 'whatever', 'starwars', 'summer', 'winter', 'spring', 'autumn'],
];

/** What is left of a word when digits and signs at its ends are taken off. */
const bare = (text: string) => text.replace(/^[\d\W_]+|[\d\W_]+$/g, '');

/** Whether a text is a run of neighbours: 123456789012, abcdefghijkl, or the same backwards. */
function isSequence(text: string): boolean {
  const steps = new Set([...text].slice(1).map((letter, index) => letter.codePointAt(0)! - text.codePointAt(index)!));
  const [step] = steps;
  return steps.size === 1 && Math.abs(step!) <= 1;
}

/** Whether somebody who guesses would come upon it soon. `name`: of whoever chose it. */
export function isCommonPassphrase(passphrase: string, name: string): boolean {
  const text = passphrase.normalize('NFKC').toLocaleLowerCase().replace(/\s+/g, '');
  if (new Set(text).size < 5 || isSequence(text)) return true;
  const own = name.normalize('NFKC').toLocaleLowerCase().replace(/\s+/g, '');
  const words = own.length < 3 ? COMMON_WORDS : [...COMMON_WORDS, own];
  const core = bare(text);
  // Digits alone, in any order: too few of them to be a secret.
  if (core === '') return true;
  // The longest first: it may hold a shorter one.
  const byLength = words.toSorted((one, other) => other.length - one.length);
  // Whatever is left when every such word, and every sign, is taken out of it.
  const left = byLength.reduce((rest, word) => rest.replaceAll(word, ''), core).replace(/[\d\W_]/g, '');
  return left.length < 3;
}
