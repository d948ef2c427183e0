import type { EngineBrowser } from './engine-browser';

const PATIENCE_MS = 60_000;
const LOOK_MS = 100;

const quoted = JSON.stringify;

/** Waits until an expression in the page is true, looking again and again. */
export async function until(browser: EngineBrowser, expression: string, what: string): Promise<void> {
  const untilMs = performance.now() + PATIENCE_MS;
  while (!(await browser.evaluate<boolean>(`Boolean(${expression})`))) {
    if (performance.now() > untilMs) throw new Error(`${browser.name}: ${what} did not come.\n${await seen(browser)}`);
    await new Promise((resolve) => setTimeout(resolve, LOOK_MS));
  }
}

/** All text on the page. */
export function seen(browser: EngineBrowser): Promise<string> {
  return browser.evaluate<string>('document.body.innerText');
}

export async function untilSeen(browser: EngineBrowser, text: string): Promise<void> {
  await until(browser, `document.body.innerText.includes(${quoted(text)})`, quoted(text));
}

const button = (words: string) =>
  `[...document.querySelectorAll('button')].find((b) => b.innerText.includes(${quoted(words)}) && !b.disabled)`;

/** Presses a button by its words, once it is there. */
export async function press(browser: EngineBrowser, words: string): Promise<void> {
  await until(browser, button(words), `the button ${quoted(words)}`);
  // The click comes after the answer: a page that measures at once would keep the driver waiting.
  await browser.evaluate(`setTimeout(() => ${button(words)}.click(), 0) && null`);
}

/** Types into the field with this hint, as a person would: the page hears of each change. */
export async function type(browser: EngineBrowser, hint: string, text: string): Promise<void> {
  const field = `[...document.querySelectorAll('input')].find((i) => i.placeholder.includes(${quoted(hint)}))`;
  // Before React has taken the page over it would put its own value back.
  const taken = `${field} && Object.keys(${field}).some((key) => key.startsWith('__reactProps'))`;
  await until(browser, taken, `the field with the hint ${quoted(hint)}`);
  await browser.evaluate(`(() => {
    const input = ${field};
    Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value').set.call(input, ${quoted(text)});
    input.dispatchEvent(new Event('input', { bubbles: true }));
    return null;
  })()`);
}

/** Chooses a round button by its label. */
export async function choose(browser: EngineBrowser, label: string): Promise<void> {
  const found = `[...document.querySelectorAll('label')].find((l) => l.innerText.includes(${quoted(label)}))`;
  await until(browser, found, `the choice ${quoted(label)}`);
  await browser.evaluate(`${found}.click() ?? null`);
}

/** Waits for the end of a run on the device page, whatever it was; what is written then. */
export async function resultOrEnd(browser: EngineBrowser): Promise<string> {
  await until(browser, `${button('Run again')} || document.querySelector('[role=alert]')`, 'a result');
  return seen(browser);
}
