/** What a person sees when the console is down: it says so and looks again by itself. Needs nothing but itself. */
export function consoleAwayPage(): string {
  return `<!doctype html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width">
<meta http-equiv="refresh" content="3"><title>Console not answering</title><style>
:root{color-scheme:light dark}body{margin:0;min-height:100vh;display:grid;place-items:center;background:#fbf7ef;color:#1b2733;font:1.1rem/1.5 system-ui,sans-serif}
main{max-width:32rem;padding:2rem}h1{font-size:1.4rem;margin:0 0 .5rem}@media(prefers-color-scheme:dark){body{background:#141c25;color:#ece4d4}}
</style></head><body><main><h1>The console is not answering</h1>
<p>It is starting, or it has stopped. This page looks again every three seconds. A result that is waiting on this device is kept and handed in when the console is back.</p>
</main></body></html>`;
}
