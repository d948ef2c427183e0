import { packed, unpacked } from './packed-members';

/** Something of a list; members with the same path share the very list on both sides. */
interface OnPath {
  readonly path?: readonly string[];
}

/** A list as it goes to a thread that has most of its members already. */
export interface Errand {
  readonly office: string;
  /** Numbers of all members, in their order. */
  readonly order: Uint32Array;
  /** Numbers of those that the thread does not have yet, and they themselves as a text. */
  readonly freshNumbers: readonly number[];
  readonly fresh: string;
}

/** This side's knowledge of what the thread has: by office, the number of each member of the list that went there last. */
export class SentOccasions<Member extends OnPath> {
  #last = 0;
  readonly #offices = new Map<string, Map<Member, number>>();

  errand(office: string, members: readonly Member[]): Errand {
    let known = this.#offices.get(office) ?? new Map<Member, number>();
    const order = new Uint32Array(members.length);
    const [fresh, freshNumbers]: [Member[], number[]] = [[], []];
    members.forEach((member, place) => {
      let number = known.get(member);
      if (number === undefined) {
        known.set(member, (number = this.#last += 1));
        fresh.push(member);
        freshNumbers.push(number);
      }
      order[place] = number;
    });
    // What is not in it any more is forgotten on both sides.
    if (known.size > members.length) known = new Map(members.map((member) => [member, known.get(member)!]));
    this.#offices.set(office, known);
    return { office, order, freshNumbers, fresh: packed(fresh, 'path') };
  }
}

/** The other side: makes the list whole again, and forgets what is not in it any more. */
export class KeptOccasions<Member extends OnPath> {
  readonly #offices = new Map<string, Map<number, Member>>();

  whole({ office, order, freshNumbers, fresh }: Errand): Member[] {
    const known = this.#offices.get(office) ?? new Map<number, Member>();
    unpacked<Member>(fresh).forEach((member, place) => known.set(freshNumbers[place]!, member));
    const members = Array.from(order, (number) => known.get(number)!);
    const isMore = known.size > members.length;
    this.#offices.set(office, isMore ? new Map(members.map((member, place) => [order[place]!, member])) : known);
    return members;
  }
}
