/**
 * Members as one text: reading it is twice as fast as copying thousands of small objects from thread to thread. `by`: under
 * which many members have the very same object, each of which is written once, and shared on the other side as it is here.
 */
export function packed<By extends string>(members: readonly { readonly [Name in By]?: object }[], by: By): string {
  const places = new Map<object, number>();
  const shared: object[] = [];
  const placeOf = (of: object) => {
    let place = places.get(of);
    if (place === undefined) {
      places.set(of, (place = shared.length));
      shared.push(of);
    }
    return place;
  };
  const written = members.map((member) => {
    const of = member[by];
    return of === undefined ? member : { ...member, [by]: placeOf(of) };
  });
  return JSON.stringify({ by, shared, members: written });
}

export function unpacked<Member>(text: string): Member[] {
  const { by, shared, members } = JSON.parse(text) as {
    readonly by: string;
    readonly shared: readonly object[];
    readonly members: Record<string, unknown>[];
  };
  for (const member of members) {
    const place = member[by];
    if (typeof place === 'number') member[by] = shared[place];
  }
  return members as Member[];
}
