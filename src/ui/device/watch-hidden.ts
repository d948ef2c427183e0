/** Counts how long the page is out of sight from now on; what is returned ends that and gives the time, ms. */
export function watchHidden(): () => number {
  let hiddenMs = 0;
  let since = document.hidden ? performance.now() : null;
  const change = () => {
    if (document.hidden) since ??= performance.now();
    else if (since !== null) {
      hiddenMs += performance.now() - since;
      since = null;
    }
  };
  document.addEventListener('visibilitychange', change);
  return () => {
    document.removeEventListener('visibilitychange', change);
    return hiddenMs + (since === null ? 0 : performance.now() - since);
  };
}
