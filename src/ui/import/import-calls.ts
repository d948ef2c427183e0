import type { ImportReading } from '@/core';
import type { BroughtIn, ImportFile, ImportLook } from '@/wire';

/** A call that was refused, in words that say the next step. */
export class Refused extends Error {}

const PART_BYTES = 2 * 1024 * 1024;

async function call<Answer>(path: string, init: RequestInit): Promise<Answer> {
  let response: Response;
  try {
    response = await fetch(path, init);
  } catch (error) {
    if (init.signal?.aborted) throw error;
    throw new Refused('The console cannot be reached. See that it runs, then do it again.');
  }
  if (response.status === 204) return undefined as Answer;
  const body = (await response.json().catch(() => null)) as (Answer & { readonly detail?: string }) | null;
  if (response.ok && body !== null) return body;
  throw new Refused(
    body?.detail ?? `The console answered ${response.status}. Load the page again and do it once more.`,
  );
}

const sent = (method: string, body: object, signal?: AbortSignal): RequestInit => ({
  ...{ method, headers: { 'Content-Type': 'application/json' }, body: JSON.stringify(body) },
  ...(signal !== undefined && { signal }),
});

export const readImport = (id: string) => call<ImportFile>(`/api/v1/imports/${id}`, {});

/** Sends a file a part at a time; `onBytes` hears how much of it is there. */
export async function sendFile(
  siteId: string,
  file: File,
  onBytes: (bytes: number) => void,
  signal: AbortSignal,
): Promise<ImportFile> {
  const about = { fileName: file.name, bytes: file.size };
  const { id } = await call<{ id: string }>(`/api/v1/sites/${siteId}/imports`, sent('POST', about, signal));
  try {
    for (let from = 0; from < file.size; from += PART_BYTES) {
      const body = file.slice(from, from + PART_BYTES);
      await call(`/api/v1/imports/${id}/part?from=${from}`, { method: 'POST', body, signal });
      onBytes(Math.min(file.size, from + PART_BYTES));
    }
    return await readImport(id);
  } catch (error) {
    if (signal.aborted) await closeImport(id).catch(() => undefined);
    throw error;
  }
}

export const lookAtImport = (id: string, reading: ImportReading, signal: AbortSignal) =>
  call<ImportLook>(`/api/v1/imports/${id}/look`, sent('POST', { reading }, signal));

export const takeIn = (id: string, order: { reading: ImportReading; tag: string; without: boolean }) =>
  call<BroughtIn>(`/api/v1/imports/${id}/take-in`, sent('POST', order));

export const closeImport = (id: string) => call<undefined>(`/api/v1/imports/${id}`, { method: 'DELETE' });
