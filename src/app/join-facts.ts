import QRCode from 'qrcode';
import { joinAddresses, type Board } from '@/services';
import type { JoinFacts } from '@/ui/board/join-slip';

/** How another device gets to an office, with the picture to scan. */
export async function joinFactsOf(
  port: number,
  { joinCode: code, joinCodeUntilMs: untilMs }: Pick<Board['site'], 'joinCode' | 'joinCodeUntilMs'>,
): Promise<JoinFacts> {
  const addresses = joinAddresses(port, code);
  const qrSvg = await QRCode.toString(addresses[0]!, {
    type: 'svg',
    margin: 1,
    color: { dark: '#1b2733', light: '#fffdf8' },
  });
  return { addresses, code, untilMs, qrSvg };
}
