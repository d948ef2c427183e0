/** While a place is being drawn: an empty straw. */
export function Loading() {
  return (
    <div role="status" className="pt-10 text-quiet">
      <svg viewBox="0 0 600 40" className="w-full max-w-[38rem]" aria-hidden="true">
        <rect x="2" y="8" width="590" height="24" rx="3" fill="var(--sheet)" stroke="var(--hairline)" strokeWidth="2" />
      </svg>
      <p className="mt-3">Fetching from the console …</p>
    </div>
  );
}
