import QRCode from 'qrcode';
import { joinAddresses, type Board } from '@/services';
import type { JoinFacts } from '@/ui/board/join-slip';

/** Pictures to scan that were drawn before, by address: a code lives for a day, and every look at the board shows it. */
const drawn = new Map<string, string>();
const MOST_DRAWN = 32;

async function qrOf(address: string): Promise<string> {
  const known = drawn.get(address);
  if (known !== undefined) return known;
  const qrSvg = await QRCode.toString(address, {
    type: 'svg',
    margin: 1,
    color: { dark: '#1b2733', light: '#fffdf8' },
  });
  if (drawn.size >= MOST_DRAWN) drawn.clear();
  drawn.set(address, qrSvg);
  return qrSvg;
}

/** How another device gets to an office, with the picture to scan. */
export async function joinFactsOf(
  port: number,
  { joinCode: code, joinCodeUntilMs: untilMs }: Pick<Board['site'], 'joinCode' | 'joinCodeUntilMs'>,
): Promise<JoinFacts> {
  const addresses = joinAddresses(port, code);
  return { addresses, code, untilMs, qrSvg: await qrOf(addresses[0]!) };
}
