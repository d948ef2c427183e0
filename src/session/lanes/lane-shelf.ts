import type { Lane, LaneMinute } from '@/core';
import type { LaneMinuteSent } from '@/wire';

/** A part of what is kept: its minutes, and what it is called. */
export interface ShelfPart {
  readonly name: string;
  readonly minutes: readonly LaneMinuteSent[];
}

/** Where minutes of lanes lie until the console has them. One that is handed in twice is one for the console. */
export interface LaneShelf {
  put(minutes: readonly LaneMinute[]): Promise<void>;
  /** The lanes as the console wanted them last, for a start while it is away. */
  lanes(): Promise<readonly Lane[]>;
  keepLanes(lanes: readonly Lane[]): Promise<void>;
  /** The oldest part, put aside: nothing is added to it any more. Null: there is none. */
  oldest(): Promise<ShelfPart | null>;
  remove(part: ShelfPart): Promise<void>;
  /** Parts that went because there was no room for them, since this was asked last. */
  takeDropped(): number;
}
