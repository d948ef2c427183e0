const TYPES = { pdf: 'application/pdf', json: 'application/json' } as const;

/** A name that every file system takes. */
function nameOf(text: string, otherwise: string): string {
  const plain = text
    .normalize('NFKD')
    .replace(/[^\w]+/g, '-')
    .replace(/^-+|-+$/g, '')
    .toLowerCase()
    .slice(0, 80);
  return plain === '' ? otherwise : plain;
}

/** A file that is made for whoever asks, as long as he waits for it. */
export async function fileAnswer(
  { signal }: Request,
  { kind, title, otherwise }: { readonly kind: keyof typeof TYPES; readonly title: string; readonly otherwise: string },
  make: (signal: AbortSignal) => Promise<Buffer> | Buffer,
): Promise<Response> {
  try {
    return new Response(new Uint8Array(await make(signal)), {
      headers: {
        'Content-Type': TYPES[kind],
        'Content-Disposition': `attachment; filename="${nameOf(title, otherwise)}.${kind}"`,
      },
    });
  } catch (error) {
    // Nobody reads what a request gets that was given up.
    if (signal.aborted) return new Response(null, { status: 204 });
    throw error;
  }
}
