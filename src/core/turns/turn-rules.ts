/**
 * Something that only one run may use at a time: a provider's line, a local peer's interface, an access point, a web server that is not ours,
 * a machine that is the other end.
 * `kind:id`, such as "line:7f3a".
 */
export type TurnNeed = `${'line' | 'peer' | 'air' | 'web' | 'box'}:${string}`;

/** Somebody who has, or waits for, a turn. `together`: those with the same id run at once on purpose. */
export interface TurnClaim {
  readonly id: string;
  readonly deviceId: string;
  readonly deviceName: string;
  readonly needs: readonly TurnNeed[];
  readonly together: string | null;
}

/** Why a turn waits. `by`: the device that has, or is to have, what this one needs. */
export type TurnHold =
  | { readonly kind: 'line' | 'peer' | 'air' | 'web' | 'box'; readonly by: string }
  | { readonly kind: 'device-busy' }
  | { readonly kind: 'device-away' }
  | { readonly kind: 'others-away'; readonly missing: readonly string[] };

export interface TurnState {
  readonly running: readonly TurnClaim[];
  /** In the order in which they were asked for. */
  readonly waiting: readonly TurnClaim[];
  readonly isPresent: (deviceId: string) => boolean;
}

const sameGroup = (one: TurnClaim, other: TurnClaim) => one.together !== null && one.together === other.together;

function clash(turn: TurnClaim, other: TurnClaim): TurnHold | null {
  if (sameGroup(turn, other)) return null;
  if (turn.deviceId === other.deviceId) return { kind: 'device-busy' };
  // A machine that serves as the other end does not measure by itself meanwhile, and the other way round.
  if (turn.needs.includes(`box:${other.deviceId}`) || other.needs.includes(`box:${turn.deviceId}`))
    return { kind: 'box', by: other.deviceName };
  const shared = turn.needs.find((need) => other.needs.includes(need));
  return shared === undefined
    ? null
    : { kind: shared.split(':')[0] as 'line' | 'peer' | 'air' | 'web' | 'box', by: other.deviceName };
}

/** Whether a turn could be taken up at all: its device, and all that run together with it, are there. */
function absence(turn: TurnClaim, { waiting, running, isPresent }: TurnState): TurnHold | null {
  if (!isPresent(turn.deviceId)) return { kind: 'device-away' };
  const box = turn.needs.find((need) => need.startsWith('box:'));
  if (box !== undefined && !isPresent(box.slice('box:'.length)))
    return { kind: 'others-away', missing: ['the machine at the other end'] };
  if (turn.together === null) return null;
  const missing = [...waiting, ...running].filter((other) => sameGroup(turn, other) && !isPresent(other.deviceId));
  return missing.length === 0 ? null : { kind: 'others-away', missing: missing.map(({ deviceName }) => deviceName) };
}

/**
 * Why a waiting turn cannot start now; null when it can. Runs that are under way come first, then whoever asked earlier:
 * a later turn goes ahead only where it takes nothing from an earlier one. Turns whose device is away hold nobody up.
 */
export function holdOf(turn: TurnClaim, state: TurnState): TurnHold | null {
  const away = absence(turn, state);
  if (away !== null) return away;
  const group = state.waiting.filter((other) => other.id === turn.id || sameGroup(turn, other));
  for (const member of group)
    for (const other of state.running) {
      const hold = clash(member, other);
      if (hold !== null) return hold;
    }
  const place = Math.min(...group.map((member) => state.waiting.indexOf(member)));
  const earlier = state.waiting.slice(0, place).filter((other) => absence(other, state) === null);
  for (const member of group)
    for (const other of earlier) {
      const hold = clash(member, other);
      if (hold !== null) return hold;
    }
  return null;
}

/** In words, as the tray and the waiting device show it. */
export function holdWords(hold: TurnHold): string {
  switch (hold.kind) {
    case 'line':
      return `${hold.by} is measuring over the same line`;
    case 'peer':
      return `${hold.by} is measuring against the same peer`;
    case 'air':
      return `${hold.by} is measuring on the same access point`;
    case 'web':
      return `${hold.by} is loading from the same web server`;
    case 'box':
      return `${hold.by} is measuring, and one of the two is the other end`;
    case 'device-busy':
      return 'this device has another run before it';
    case 'device-away':
      return 'the device is not standing by';
    case 'others-away':
      return `${hold.missing.join(', ')} ${hold.missing.length === 1 ? 'is' : 'are'} not standing by`;
  }
}

/** All that a waiting turn has to let go first: what runs and clashes with it, and those that asked earlier and do. */
export function aheadOf(turn: TurnClaim, state: TurnState): TurnClaim[] {
  const place = state.waiting.findIndex(({ id }) => id === turn.id);
  const earlier = state.waiting.slice(0, Math.max(0, place)).filter((other) => absence(other, state) === null);
  return [...state.running, ...earlier].filter((other) => clash(turn, other) !== null);
}
