import { packed, unpacked } from './packed-members';

/** Something of a list; members with the same path share the very list on both sides. */
interface OnPath {
  readonly path?: readonly string[];
}

/** Some members of a list that the thread does not have yet, as a text, with the number that each is known by from now on. */
export interface Parcel {
  readonly office: string;
  readonly numbers: readonly number[];
  readonly members: string;
}

/** A list by the numbers of its members, in their order, once its parcels are there. */
export interface NumberedList {
  readonly office: string;
  readonly order: Uint32Array;
}

/** So many go at once: while the thread unpacks them, the next are packed. */
const PARCEL = 1000;

/** This side's knowledge of what the thread has: by office, the number of each member of the list that went there last. */
export class SentOccasions<Member extends OnPath> {
  #last = 0;
  readonly #offices = new Map<string, Map<Member, number>>();

  /** Sends what is missing there, and returns the list. */
  send(office: string, members: readonly Member[], post: (parcel: Parcel) => void): NumberedList {
    let known = this.#offices.get(office) ?? new Map<Member, number>();
    const order = new Uint32Array(members.length);
    let [fresh, numbers]: [Member[], number[]] = [[], []];
    const postFresh = () => {
      if (fresh.length > 0) post({ office, numbers, members: packed(fresh, 'path') });
      [fresh, numbers] = [[], []];
    };
    members.forEach((member, place) => {
      let number = known.get(member);
      if (number === undefined) {
        known.set(member, (number = this.#last += 1));
        fresh.push(member);
        numbers.push(number);
        if (fresh.length === PARCEL) postFresh();
      }
      order[place] = number;
    });
    postFresh();
    // What is not in it any more is forgotten on both sides.
    if (known.size > members.length) known = new Map(members.map((member) => [member, known.get(member)!]));
    this.#offices.set(office, known);
    return { office, order };
  }
}

/** The other side: makes the list whole again, and forgets what is not in it any more. */
export class KeptOccasions<Member extends OnPath> {
  readonly #offices = new Map<string, Map<number, Member>>();

  take({ office, numbers, members }: Parcel): void {
    const known = this.#offices.get(office) ?? new Map<number, Member>();
    unpacked<Member>(members).forEach((member, place) => known.set(numbers[place]!, member));
    this.#offices.set(office, known);
  }

  whole({ office, order }: NumberedList): Member[] {
    const known = this.#offices.get(office) ?? new Map<number, Member>();
    const members = Array.from(order, (number) => known.get(number)!);
    const isMore = known.size > members.length;
    this.#offices.set(office, isMore ? new Map(members.map((member, place) => [order[place]!, member])) : known);
    return members;
  }
}
