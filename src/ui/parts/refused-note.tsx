/** What stood in the way of what was just asked for. */
export function RefusedNote({ refused }: { readonly refused: string | null }) {
  return refused === null ? null : (
    <span role="alert" className="block text-sm font-medium text-starved">
      {refused}
    </span>
  );
}
