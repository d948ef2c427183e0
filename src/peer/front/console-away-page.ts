import type { Problem } from '@/wire';

const STYLE = `:root{color-scheme:light dark}body{margin:0;min-height:100vh;display:grid;place-items:center;background:#fbf7ef;color:#1b2733;font:1.1rem/1.5 system-ui,sans-serif}
main{max-width:32rem;padding:2rem}h1{font-size:1.4rem;margin:0 0 .5rem}a{color:inherit}@media(prefers-color-scheme:dark){body{background:#141c25;color:#ece4d4}}`;

/** A page that needs nothing but itself. `text` is HTML. */
function page(title: string, text: string, head = ''): string {
  return `<!doctype html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width">
${head}<title>${title}</title><style>${STYLE}</style></head><body><main><h1>${title}</h1>
<p>${text}</p></main></body></html>`;
}

/** What a person sees when the console is down: it says so and looks again by itself. */
export function consoleAwayPage(): string {
  return page(
    'The console is not answering',
    'It is starting, or it has stopped. This page looks again every three seconds. A result that is waiting on this device is kept and handed in when the console is back.',
    '<meta http-equiv="refresh" content="3">',
  );
}

/** What a person sees of a request that the door itself refuses. Catalogue sentences hold nothing that was sent. */
export function refusedPage({ title, detail }: Problem): string {
  return page(title, `${detail} <a href="/">To the board</a>`);
}
