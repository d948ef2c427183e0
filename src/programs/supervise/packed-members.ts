/** Something that goes to a thread as text; members with the same path share the very list there. */
export interface PackedMember {
  readonly path?: readonly string[];
}

/**
 * Members as one text: reading it is twice as fast as copying thousands of small objects from thread to thread. Of the
 * few paths that there are each is written once.
 */
export function packed(members: readonly PackedMember[]): string {
  const places = new Map<readonly string[], number>();
  const paths: (readonly string[])[] = [];
  const placeOf = (path: readonly string[]) => {
    let place = places.get(path);
    if (place === undefined) {
      places.set(path, (place = paths.length));
      paths.push(path);
    }
    return place;
  };
  const written = members.map((member) =>
    member.path === undefined ? member : { ...member, path: placeOf(member.path) },
  );
  return JSON.stringify({ paths, members: written });
}

export function unpacked<Member extends PackedMember>(text: string): Member[] {
  const { paths, members } = JSON.parse(text) as {
    readonly paths: readonly (readonly string[])[];
    readonly members: { path?: number | readonly string[] }[];
  };
  for (const member of members) if (typeof member.path === 'number') member.path = paths[member.path]!;
  return members as Member[];
}
