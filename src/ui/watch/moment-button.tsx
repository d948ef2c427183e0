interface MomentButtonProps {
  readonly children: string;
  readonly onClick: () => void;
}

/** A moment in a list, which shows the time around it. */
export function MomentButton({ children, onClick }: MomentButtonProps) {
  return (
    <button
      type="button"
      onClick={onClick}
      className="figure whitespace-nowrap text-left text-[0.85rem] underline decoration-hairline underline-offset-4 hover:decoration-ink"
    >
      {children}
    </button>
  );
}
