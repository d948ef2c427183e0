import type { KeyObject } from 'node:crypto';
import type { Diagnosis, DiagnosisInput, SideBySide, Tray } from '@/core';
import type { Store } from '@/store';
import { EndedSignIns } from './ended-sign-ins';
import { TryLimit } from './try-limit';
import { openUseLimits, type UseLimits } from './use-limit';
import type { Log } from './log';
import type { Senders } from './senders';
import { ReachedFrom } from './reached-from';
import { Changes } from './changes';
import { FarEnds } from './far-ends';
import { LaneBeats } from './lane-beats';
import { LiveRuns } from './live-runs';
import { OneAtATime } from './one-at-a-time';
import { StandingDevices } from './standing-devices';
import { WaitingDevices } from './waiting-devices';
import { BackupState, type Backups } from './backups';

/** In the demo: carries out what a person would do with his hands. */
export interface PracticeHands {
  readonly swapped: (swap: { readonly what: string; readonly deviceId: string | null }) => Promise<void>;
  /** The queue before a line's upload is set to a rate, bits per second. */
  readonly queueSet: (lineName: string, bps: number) => Promise<void>;
}

/** What the use cases work with. Clock, ids and keys are passed in, so that tests decide them. */
export interface ConsoleContext {
  readonly store: Store;
  readonly log: Log;
  readonly wallMs: () => number;
  readonly newId: () => string;
  /** Signs tickets; peers hold only the public half. */
  readonly signingKey: KeyObject;
  /** The public half as text, as it is pasted into a peer's --trust. */
  readonly publicKey: string;
  /** The port of the front door, for addresses to read out. */
  readonly port: number;
  /** SHA-256 of the certificate for HTTPS, as browsers show it. */
  readonly certificateFingerprint: string;
  /** Folder of the fonts that printed records are set in. */
  readonly printFonts: string;
  /** Who made what network interface, by the first 24 bits of its address. */
  readonly makersFile: string;
  /** The agent as one file, for machines that have only Node. */
  readonly agentFile: string;
  /** This console's version. */
  readonly version: string;
  /** Folder for files that are about to be brought in; made when it is needed. */
  readonly uploads: string;
  /** Works out what stands out, beside this thread; absent: in it. */
  readonly think?: ((siteId: string, input: DiagnosisInput) => Promise<Diagnosis>) | undefined;
  /** Holds runs side by side, beside this thread; absent: in it. */
  readonly compare?: ((trays: readonly Tray[]) => Promise<SideBySide>) | undefined;
  /** How messages leave the console; absent: they do not. */
  readonly senders?: Senders | undefined;
  /** Absent where real people have real hands. */
  readonly practiceHands?: PracticeHands | undefined;
  /** Copies of the data folder. */
  readonly backups: Backups;
  /** Wrong codes and passphrases, by address. */
  readonly tries: TryLimit;
  /** Devices that wait for the console's orders. */
  readonly standing: StandingDevices;
  /** Agents that serve as the far end of a run. */
  readonly farEnds: FarEnds;
  /** Whoever looks at the console hears from it when to look again. */
  readonly changes: Changes;
  /** Other machines that have opened this console. */
  readonly reached: ReachedFrom;
  /** What whoever holds a code has done lately. */
  readonly uses: UseLimits;
  /** Links of this machine that have been opened. */
  readonly hereLinks: Set<string>;
  /** Devices that wait for their turn. */
  readonly waiting: WaitingDevices;
  /** What lanes say just now. */
  readonly beats: LaneBeats;
  /** Runs that go on, as far as they were heard of. */
  readonly live: LiveRuns;
  /** What became of the last copy. */
  readonly backupState: BackupState;
  /** Decisions about turns are made one at a time. */
  readonly turnDesk: OneAtATime;
  /** So are those about who may sign in. */
  readonly peopleDesk: OneAtATime;
  /** What is to be told is seen by one at a time: nobody is told twice. */
  readonly alarmDesk: OneAtATime;
  /** Whoever hears from the console by a sign-in hears from here that it has ended. */
  readonly endedSignIns: EndedSignIns;
}

/** What a console holds only while it is open. `sinceMs`: when it was opened. */
export function openPresence(
  sinceMs?: number,
): Pick<
  ConsoleContext,
  | (
      | 'tries'
      | 'standing'
      | 'farEnds'
      | 'changes'
      | 'reached'
      | 'turnDesk'
      | 'waiting'
      | 'live'
      | 'beats'
      | 'backupState'
      | 'hereLinks'
      | 'uses'
    )
  | ('peopleDesk' | 'alarmDesk' | 'endedSignIns')
> {
  const standing = new StandingDevices();
  return {
    tries: new TryLimit(),
    standing,
    farEnds: new FarEnds(standing),
    changes: new Changes(),
    reached: new ReachedFrom(),
    turnDesk: new OneAtATime(),
    peopleDesk: new OneAtATime(),
    alarmDesk: new OneAtATime(),
    endedSignIns: new EndedSignIns(),
    waiting: new WaitingDevices(),
    live: new LiveRuns(sinceMs),
    beats: new LaneBeats(),
    backupState: new BackupState(),
    hereLinks: new Set(),
    uses: openUseLimits(),
  };
}

const SLOT = Symbol.for('bent-straw.console');
type Holder = { [SLOT]?: ConsoleContext };

/** The process that opened the console puts it here; the pages, bundled apart, find it. */
export function setConsole(context: ConsoleContext): void {
  (globalThis as Holder)[SLOT] = context;
}

export function theConsole(): ConsoleContext {
  const context = (globalThis as Holder)[SLOT];
  if (context === undefined) throw new Error('the console is not open: start the program with npm start');
  return context;
}
