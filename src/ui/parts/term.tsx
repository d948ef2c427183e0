'use client';

import type { ReactNode } from 'react';
import { GLOSSARY, type GlossaryWord } from '@/core';
import { Popover } from './popover';

interface TermProps {
  readonly word: GlossaryWord;
  /** What stands there, where that is not the word itself. */
  readonly children?: ReactNode;
}

/** One of our words, which explains itself where it stands: pressed, or by touch. */
export function Term({ word, children }: TermProps) {
  return (
    <Popover
      label={word}
      trigger={
        <button type="button" className="underline decoration-dotted decoration-quiet underline-offset-[3px]">
          {children ?? word}
        </button>
      }
    >
      <p className="pr-6 font-semibold">{word}</p>
      <p className="mt-1 text-[0.9375rem]">{GLOSSARY[word]}</p>
    </Popover>
  );
}
