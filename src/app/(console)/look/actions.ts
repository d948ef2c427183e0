'use server';

import { act, COMMANDS } from '@/app/commands';
import { issueWords } from '@/app/form-action';
import type { LookKind } from '@/core';
import type { TypedLook } from '@/ui/look/look-fields';
import { lookAskedSchema } from '@/wire';

const HERE = '/look';

const listOf = (text: string) =>
  text
    .split(/[,;\s]+/)
    .map((each) => each.trim())
    .filter((each) => each !== '');

/** What was typed, in the shape of the kind of look. */
function askedOf(what: LookKind, { folder, megabytes, streams, target, resolvers, names }: TypedLook): unknown {
  switch (what) {
    case 'share':
      return { what, folder, megabytes: Number(megabytes), streams: Number(streams) };
    case 'echo':
    case 'path':
      return { what, target };
    case 'names':
      return { what, resolvers: listOf(resolvers), names: listOf(names) };
    case 'programs':
    case 'air':
      return { what };
  }
}

export async function askLookAction(deviceId: string, what: LookKind, typed: TypedLook): Promise<string | null> {
  const asked = lookAskedSchema.safeParse(askedOf(what, typed));
  if (!asked.success) return issueWords(asked.error);
  return act(COMMANDS.askLook, { deviceId, asked: asked.data }, HERE);
}

export async function stopLookAction(lookId: string): Promise<string | null> {
  return act(COMMANDS.stopLook, { lookId }, HERE);
}
