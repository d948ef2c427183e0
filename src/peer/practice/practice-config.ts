import * as z from 'zod';

const port = z.number().int().min(1).max(65_535);
const direction = z.strictObject({
  /** What the line carries, Mb/s of TCP payload. */
  rateMbps: z.number().positive().max(20_000),
  /** How long the queue in front of it is when full, ms. */
  queueMs: z.number().positive().max(10_000),
});

/** One line of practice: a rate and a finite queue in each direction, and the round trip of the empty line. */
export const practiceLineSchema = z.strictObject({
  name: z.string().min(1).max(80),
  listenPort: port,
  to: z.strictObject({ host: z.string().min(1), port }),
  roundTripMs: z.number().min(0).max(2000),
  down: direction,
  up: direction,
});
export type PracticeLineConfig = z.infer<typeof practiceLineSchema>;

export const practiceDocumentSchema = z.strictObject({ lines: z.array(practiceLineSchema).min(1).max(50) });
export type PracticeDocument = z.infer<typeof practiceDocumentSchema>;

export type PracticeConfigResult =
  | { readonly ok: true; readonly document: PracticeDocument }
  | { readonly ok: false; readonly complaints: readonly string[] };

/** Reads the JSON document of practice lines. Each complaint names the place in it: "lines[0].up.rateMbps: …". */
export function readPracticeDocument(text: string): PracticeConfigResult {
  let json: unknown;
  try {
    json = JSON.parse(text);
  } catch (error) {
    return { ok: false, complaints: [`not JSON: ${(error as Error).message}`] };
  }
  const parsed = practiceDocumentSchema.safeParse(json);
  if (!parsed.success) {
    const complaints = parsed.error.issues.map(({ path, message }) => {
      const place = path.map((part) => (typeof part === 'number' ? `[${part}]` : `.${String(part)}`)).join('');
      return `${place.replace(/^\./, '') || 'document'}: ${message}`;
    });
    return { ok: false, complaints };
  }
  const ports = parsed.data.lines.map((line) => line.listenPort);
  const twice = ports.find((value, index) => ports.indexOf(value) !== index);
  if (twice !== undefined) return { ok: false, complaints: [`lines: port ${twice} is used by two lines`] };
  return { ok: true, document: parsed.data };
}
