/** A list as it goes to a thread that has most of its members already. */
export interface Errand<Member> {
  readonly office: string;
  /** Numbers of all members, in their order. */
  readonly order: Uint32Array;
  /** Those that the thread does not have yet, by number. */
  readonly fresh: readonly (readonly [number, Member])[];
}

/** This side's knowledge of what the thread has: by office, the number of each member of the list that went there last. */
export class SentOccasions<Member extends object> {
  #last = 0;
  readonly #offices = new Map<string, ReadonlyMap<Member, number>>();

  errand(office: string, members: readonly Member[]): Errand<Member> {
    const before = this.#offices.get(office);
    const now = new Map<Member, number>();
    const fresh: [number, Member][] = [];
    for (const member of members) {
      let number = before?.get(member);
      if (number === undefined) fresh.push([(number = this.#last += 1), member]);
      now.set(member, number);
    }
    this.#offices.set(office, now);
    return { office, order: Uint32Array.from(now.values()), fresh };
  }
}

/** The other side: makes the list whole again, and forgets what is not in it any more. */
export class KeptOccasions<Member extends object> {
  readonly #offices = new Map<string, ReadonlyMap<number, Member>>();

  whole({ office, order, fresh }: Errand<Member>): Member[] {
    const known = new Map([...(this.#offices.get(office) ?? []), ...fresh]);
    const now = new Map([...order].map((number) => [number, known.get(number)!]));
    this.#offices.set(office, now);
    return [...now.values()];
  }
}
