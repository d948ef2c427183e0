/** What the page is built for (docs/inside.md, "Browsers"). */
export const OLDEST_BROWSERS = 'Chrome or Edge 111, Firefox 128, Safari 16.4 (iOS 16.4)';
const NOTE_ID = 'old-browser';

/**
 * Run by every browser, also by one that understands nothing newer: shows the note where something that the page stands on is
 * missing. No word of it is newer than 2009.
 */
const LOOK = `(function () {
  var missing = [];
  var need = function (name, there) { if (!there) missing.push(name); };
  var styles = window.CSS && CSS.supports;
  need('modules', 'noModule' in document.createElement('script'));
  need('workers', typeof Worker !== 'undefined');
  need('streams', typeof ReadableStream !== 'undefined' && typeof fetch !== 'undefined');
  need('web sockets', typeof WebSocket !== 'undefined');
  need('arrays as of 2023', typeof [].toSorted === 'function');
  need('colours as of 2023', styles && CSS.supports('color', 'color-mix(in oklab, red, blue)'));
  if (missing.length === 0) return;
  document.getElementById('${NOTE_ID}-missing').textContent = missing.join(', ');
  var note = document.getElementById('${NOTE_ID}').cloneNode(true);
  note.id = '${NOTE_ID}-shown';
  note.hidden = false;
  note.setAttribute('role', 'alert');
  // What the page's own script does in such a browser nobody knows: the note is put back where that took it away.
  var show = function () {
    if (document.body && !document.body.contains(note)) document.body.insertBefore(note, document.body.firstChild);
  };
  show();
  setInterval(show, 500);
})();`;

interface OldBrowserNoteProps {
  readonly nonce: string | undefined;
  /** The address of this page, for whatever measures instead. */
  readonly address: string;
}

/** Says plainly that a browser cannot measure, and what still can. Hidden in those that can. */
export function OldBrowserNote({ nonce, address }: OldBrowserNoteProps) {
  return (
    <>
      <div
        id={NOTE_ID}
        hidden
        suppressHydrationWarning
        style={{ margin: '1.25rem', borderLeft: '3px solid', paddingLeft: '1rem' }}
      >
        <p>
          <strong>This browser is too old to measure.</strong> It takes {OLDEST_BROWSERS} or newer; this one lacks:{' '}
          <span id={`${NOTE_ID}-missing`} suppressHydrationWarning />.
        </p>
        <p>
          What still works: open this address in another browser or on another device, or measure from this machine’s
          command line: <code>npm run agent -- run {address}</code>
        </p>
      </div>
      <script nonce={nonce} suppressHydrationWarning dangerouslySetInnerHTML={{ __html: LOOK }} />
    </>
  );
}
