import type { DiagnosedKind, DiagnosedSegment } from './segment';

/** Somebody said that it is slow, on a way through the office, at an hour. */
export interface Complaint {
  readonly deviceId: string;
  /** Ids of the segments, from the device outwards. */
  readonly path: readonly string[];
  readonly atMs: number;
  /** Hour of the day at the office, 0 to 23. */
  readonly hour: number;
  /** Whether what was measured in that minute explains it without any segment that holds back: a deep queue, say. */
  readonly explained: boolean;
}

/** Of those whose way holds back so many say so, and of those whose way is sound so many do all the same. */
const SAID_WHEN = { heldBack: 0.5, sound: 0.15 } as const;
/** Logarithm of how much likelier a complaint is when something on its way holds back. */
export const COMPLAINT_SAYS = Math.log(SAID_WHEN.heldBack / SAID_WHEN.sound);

/** One witness a person: who presses three times is the same one. */
export function witnessesOf(complaints: readonly Complaint[]): Complaint[] {
  const newest = new Map<string, Complaint>();
  for (const complaint of [...complaints].sort((a, b) => a.atMs - b.atMs))
    if (!complaint.explained) newest.set(complaint.deviceId, complaint);
  return [...newest.values()];
}

/**
 * What a person can rule out in a minute before anything is measured, which part it would have held back, and in what
 * share of the cases in which that part holds back it is the reason. From the trade's experience; see docs/diagnosis.md.
 */
export const CHECKS = {
  backup: { kinds: ['device'], share: 0.15 },
  update: { kinds: ['device'], share: 0.15 },
  'photo-upload': { kinds: ['device'], share: 0.1 },
  'own-tunnel': { kinds: ['vpn'], share: 0.9 },
  'others-idle': { kinds: ['line', 'line-in-hours'], share: 0.3 },
} as const satisfies Record<string, { readonly kinds: readonly DiagnosedKind[]; readonly share: number }>;

export type CheckCode = keyof typeof CHECKS;
export const CHECK_CODES = Object.keys(CHECKS) as [CheckCode, ...CheckCode[]];

/** One thing that a person has ruled out; `deviceId`: of whose way, null where no device was named. */
export interface RuledOut {
  readonly check: CheckCode;
  readonly deviceId: string | null;
}

/** Whether a check is of one device, and so needs one that is named. */
export const isOfDevice = (check: CheckCode): boolean => CHECKS[check].kinds[0] !== 'line';

/** Logarithm of how much likelier it is, after what was ruled out, that a segment holds back: below zero. */
export function ruledOutSigns(
  { kind, deviceId }: Pick<DiagnosedSegment, 'kind' | 'deviceId'>,
  ruledOut: readonly RuledOut[],
): number {
  const checks = new Set(
    ruledOut
      .filter(({ check, deviceId: of }) => {
        const kinds: readonly DiagnosedKind[] = CHECKS[check].kinds;
        return kinds.includes(kind) && (deviceId === null || deviceId === of);
      })
      .map(({ check }) => check),
  );
  // What is left of the reasons: they exclude each other.
  const left = [...checks].reduce((sum, check) => sum - CHECKS[check].share, 1);
  return Math.log(left);
}

/** What people say of an office: evidence beside the runs. */
export interface Said {
  readonly complaints: readonly Complaint[];
  readonly ruledOut: readonly RuledOut[];
}
export const NOTHING_SAID: Said = { complaints: [], ruledOut: [] };
