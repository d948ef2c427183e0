'use client';

import { useEffect, useRef, useState } from 'react';
import type { ImportReading } from '@/core';
import type { BroughtIn, ImportFile, ImportLook } from '@/wire';
import { closeImport, lookAtImport, readImport, Refused, sendFile, takeIn } from './import-calls';

/** How far something is that takes a while. `whole`: bytes. */
export interface Going {
  readonly what: 'sending' | 'looking' | 'taking-in';
  readonly bytes: number;
  readonly whole: number;
}

/** What is known of a file once all of it is there. */
export type WholeFile = ImportFile & { readonly whole: NonNullable<ImportFile['whole']> };

const ASK_EVERY_MS = 300;
const isWhole = (file: ImportFile): file is WholeFile => file.whole !== null;

/** One file on its way into the record: sent, looked at in the way that it is read, taken in. */
export function useImport(siteId: string, onTaken: () => void) {
  const [file, setFile] = useState<WholeFile | null>(null);
  const [reading, setReading] = useState<ImportReading | null>(null);
  const [look, setLook] = useState<ImportLook | null>(null);
  const [going, setGoing] = useState<Going | null>(null);
  const [refused, setRefused] = useState<string | null>(null);
  const [taken, setTaken] = useState<BroughtIn | null>(null);
  const sending = useRef<AbortController | null>(null);

  const refuse = (error: unknown) =>
    setRefused(
      error instanceof Refused ? error.message : 'That did not work. Load the page again and do it once more.',
    );

  // Each way of reading is looked at; one that has given way to another is not waited for.
  useEffect(() => {
    if (file === null || reading === null) return;
    const abort = new AbortController();
    // oxlint-disable-next-line react/set-state-in-effect -- a look that begins is shown from its first moment
    setGoing({ what: 'looking', bytes: 0, whole: file.bytes });
    lookAtImport(file.id, reading, abort.signal)
      .then((found) => {
        setLook(found);
        setRefused(null);
        setGoing(null);
      })
      .catch((error: unknown) => {
        if (abort.signal.aborted) return;
        setGoing(null);
        refuse(error);
      });
    return () => abort.abort();
  }, [file, reading]);

  const working = going?.what === 'looking' || going?.what === 'taking-in';
  useEffect(() => {
    if (!working || file === null) return;
    const timer = setInterval(() => {
      void readImport(file.id)
        .then(({ job }) => setGoing((now) => (now === null || job === null ? now : { ...now, bytes: job.readBytes })))
        .catch(() => undefined);
    }, ASK_EVERY_MS);
    return () => clearInterval(timer);
  }, [working, file]);

  const forget = () => {
    setFile(null);
    setReading(null);
    setLook(null);
    setGoing(null);
  };
  return {
    ...{ file, reading, look, going, refused, taken, read: setReading },
    send: async (chosen: File) => {
      forget();
      setTaken(null);
      setRefused(null);
      const abort = new AbortController();
      sending.current = abort;
      setGoing({ what: 'sending', bytes: 0, whole: chosen.size });
      try {
        const onBytes = (bytes: number) => setGoing({ what: 'sending', bytes, whole: chosen.size });
        const arrived = await sendFile(siteId, chosen, onBytes, abort.signal);
        if (!isWhole(arrived)) throw new Refused('The file did not arrive whole. Choose it once more.');
        setFile(arrived);
        setReading(arrived.whole.guess);
      } catch (error) {
        setGoing(null);
        if (!abort.signal.aborted) refuse(error);
      }
    },
    /** Stops whatever is being done; nothing of the file stays. */
    stop: async () => {
      sending.current?.abort();
      if (file !== null) await closeImport(file.id).catch(() => undefined);
      forget();
    },
    take: async (tag: string, without: boolean) => {
      if (file === null || reading === null) return;
      setRefused(null);
      setGoing({ what: 'taking-in', bytes: 0, whole: file.bytes });
      try {
        const made = await takeIn(file.id, { reading, tag, without });
        forget();
        setTaken(made);
        onTaken();
      } catch (error) {
        setGoing(null);
        refuse(error);
      }
    },
  };
}
export type ImportOnItsWay = ReturnType<typeof useImport>;
