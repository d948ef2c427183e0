'use server';

import { act, COMMANDS } from '@/app/commands';
import { issueWords } from '@/app/form-action';
import type { LookKind } from '@/core';
import type { TypedLook } from '@/ui/look/look-fields';
import type { LoadToKeep } from '@/ui/look/keep-load';
import { lookRequestSchema, newLaneSchema } from '@/wire';

const HERE = '/look';
const MOST_NAME = 70;

const listOf = (text: string) =>
  text
    .split(/[,;\s]+/)
    .map((each) => each.trim())
    .filter((each) => each !== '');

/** What was typed, in the shape of the kind of look. */
function askedOf(what: LookKind, typed: TypedLook): unknown {
  const { folder, megabytes, streams, target, resolvers, names } = typed;
  switch (what) {
    case 'share':
      return { what, folder, megabytes: Number(megabytes), streams: Number(streams) };
    case 'path':
      return { what, target, ...(typed.loaded ? { loaded: true } : {}) };
    case 'echo':
    case 'ports':
      return { what, target };
    case 'names':
      return { what, resolvers: listOf(resolvers), names: listOf(names) };
    case 'outside':
      return { what, ports: listOf(typed.ports).map(Number) };
    case 'programs':
    case 'line':
    case 'air':
      return { what };
  }
}

const keyOf = (text: string) => (text === '' ? null : text);

/** How the device lets itself be asked; undefined: as it was last. */
function loginOf({ community, user, authKey, privKey }: TypedLook): unknown {
  if (user !== '') return { user: { name: user, authKey: keyOf(authKey), privKey: keyOf(privKey) } };
  return community === '' ? undefined : { community };
}

export async function askLookAction(deviceId: string, what: LookKind, typed: TypedLook): Promise<string | null> {
  const login = what === 'ports' ? loginOf(typed) : undefined;
  const request = lookRequestSchema.safeParse({
    asked: askedOf(what, typed),
    ...(login === undefined ? {} : { login }),
  });
  if (!request.success) return issueWords(request.error);
  return act(COMMANDS.askLook, { deviceId, ...request.data }, HERE);
}

const LOAD_EVERY_SECONDS = 15;

/** Both ways of a port as lanes from now on. */
export async function keepLoadAction({ deviceId, target, name, role }: LoadToKeep): Promise<string | null> {
  const ways = role === 'line' ? (['down', 'up'] as const) : (['in', 'out'] as const);
  for (const [place, kind] of (['load-in', 'load-out'] as const).entries()) {
    const lane = newLaneSchema.safeParse({
      ...{ deviceId, target, role, kind, everySeconds: LOAD_EVERY_SECONDS },
      name: `${name.slice(0, MOST_NAME)}, ${ways[place]}`,
    });
    const refused = lane.success ? await act(COMMANDS.addLane, lane.data, HERE) : issueWords(lane.error);
    if (refused !== null) return refused;
  }
  return null;
}

export async function stopLookAction(lookId: string): Promise<string | null> {
  return act(COMMANDS.stopLook, { lookId }, HERE);
}
