import { done, failed, LARGEST_LOGO, type Outcome } from '@/wire';
import type { ConsoleContext } from '../console/console-context';

/** Who makes the reports of this console. `logo`: a data URL of a PNG or JPEG. */
interface StoredLetterhead {
  readonly name: string;
  readonly lines: readonly string[];
  readonly logo: string | null;
}

const SETTING = 'letterhead';
const NONE: StoredLetterhead = { name: '', lines: [], logo: null };
const KINDS: readonly (readonly [mark: string, type: string])[] = [
  ['89504e470d0a1a0a', 'image/png'],
  ['ffd8ff', 'image/jpeg'],
];

export async function letterheadOf({ store }: Pick<ConsoleContext, 'store'>): Promise<StoredLetterhead> {
  return ((await store.keeping.setting(SETTING)) as StoredLetterhead | undefined) ?? NONE;
}

/** What a picture is, by its first bytes; null: neither PNG nor JPEG. */
function logoType(bytes: Buffer): string | null {
  const head = bytes.subarray(0, 8).toString('hex');
  return KINDS.find(([mark]) => head.startsWith(mark))?.[1] ?? null;
}

/** What stands at the head of each report. `logo`: bytes of a picture; `keep`: as it is; null: none. */
export async function saveLetterhead(
  context: ConsoleContext,
  {
    name,
    address,
    logo,
  }: { readonly name: string; readonly address: string; readonly logo: Uint8Array | 'keep' | null },
): Promise<Outcome<null, 'logo-unreadable'>> {
  const before = await letterheadOf(context);
  const bytes = logo === 'keep' || logo === null ? null : Buffer.from(logo);
  const type = bytes === null ? null : logoType(bytes);
  if (bytes !== null && (type === null || bytes.length > LARGEST_LOGO))
    return failed('logo-unreadable', { most: LARGEST_LOGO / 1000 });
  const lines = address
    .split('\n')
    .map((line) => line.trim())
    .filter((line) => line !== '');
  const kept =
    logo === 'keep' ? before.logo : bytes === null ? null : `data:${type};base64,${bytes.toString('base64')}`;
  await context.store.keeping.setSetting(SETTING, { name, lines, logo: kept });
  return done(null);
}
