interface CodeFormProps {
  readonly title: string;
  readonly detail: string;
  readonly askCode: boolean;
}

/** For somebody at the door without a good code. Works without any script. */
export function CodeForm({ title, detail, askCode }: CodeFormProps) {
  return (
    <section>
      <h1 className="text-2xl font-semibold">{title}</h1>
      <p className="mt-2 text-quiet">{detail}</p>
      {askCode && (
        <form action="/j/go" className="mt-6 flex items-end gap-4">
          <label className="grow text-sm text-quiet">
            code from the board
            <input
              name="code"
              required
              maxLength={20}
              autoComplete="off"
              autoCapitalize="characters"
              spellCheck={false}
              className="field figure text-xl uppercase"
            />
          </label>
          <button type="submit" className="min-h-11 rounded-[3px] bg-ink px-6 text-paper">
            Open
          </button>
        </form>
      )}
    </section>
  );
}
