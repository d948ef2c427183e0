/** The product's mark: a straw with its bend. */
export function Mark({ className = 'size-6' }: { readonly className?: string }) {
  return (
    <svg viewBox="0 0 24 24" className={className} aria-hidden="true" fill="none">
      <path d="M9 22V10.5L16.5 3" stroke="var(--ink)" strokeWidth="5.4" strokeLinejoin="bevel" />
      <path d="M9 22V10.5L16.5 3" stroke="var(--sheet)" strokeWidth="2.6" strokeLinejoin="bevel" />
      <path d="M7.6 19.5l2.8-2M7.6 15.5l2.8-2M12 9.4l.6-3.2M14.6 6.8l.6-3.2" stroke="var(--down)" strokeWidth="1.5" />
    </svg>
  );
}
