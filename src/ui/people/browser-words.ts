import Bowser from 'bowser';

/** "Firefox on Windows", from what a browser says it is (User-Agent, RFC 9110 §10.1.5); null says nothing. */
export function browserWords(userAgent: string | null): string {
  if (userAgent === null || userAgent === '') return 'a browser that says nothing of itself';
  const { browser, os } = Bowser.parse(userAgent);
  const name = browser.name || 'another browser';
  return os.name ? `${name} on ${os.name}` : name;
}
