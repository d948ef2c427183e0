import type { LinkCeiling } from '../ceiling/link-ceiling-type';
import type { TunnelKind } from '../domain/link';
import { planPayloadBps } from '../domain/plan';
import type { Yardstick, YardstickGround } from '../judge/yardstick';
import { nominalRateFigure, rateFigure, rateWords } from './quantity-words';

export const TUNNEL_WORDS: Readonly<Record<TunnelKind, string>> = {
  wireguard: 'WireGuard',
  openvpn: 'OpenVPN',
  ipsec: 'IPsec',
  'ipsec-nat': 'IPsec behind NAT',
};

/** What a link can carry, as arithmetic: "1000 Mb/s Ethernet × 1448/1538 = 941 Mb/s". */
export function ceilingWords({ ground, lineRateBps, payloadBps, rangeBps }: LinkCeiling): string {
  const named = `${nominalRateFigure(lineRateBps)} Mb/s`;
  switch (ground.kind) {
    case 'ethernet': {
      const extras = `${ground.vlan ? ' with VLAN' : ''}${ground.pppoe ? ' with PPPoE' : ''}`;
      return `${named} Ethernet${extras} × ${ground.payloadBytes}/${ground.wireBytes} = ${rateWords(payloadBps)}`;
    }
    case 'tunnel':
      return `${TUNNEL_WORDS[ground.tunnel]} over ${named} Ethernet × ${ground.payloadBytes}/${ground.wireBytes} = ${rateWords(payloadBps)}`;
    case 'wifi': {
      const half = ground.sharedAir ? ', halved because both ends share the air' : '';
      const { low, high } = rangeBps ?? { low: payloadBps, high: payloadBps };
      return `${named} Wi-Fi × 0.5 to 0.7${half} = ${rateFigure(low)} to ${rateFigure(high)} Mb/s`;
    }
  }
}

function planWords({ plan, direction }: YardstickGround): string | null {
  if (plan === null) return null;
  const nominal = nominalRateFigure(direction === 'down' ? plan.downBps : plan.upBps);
  if (plan.slowerEnd !== undefined)
    return `between ${plan.slowerEnd} the slower end gives ${nominal} Mb/s ${direction}`;
  if (plan.basis === 'payload') return `the plan says ${nominal} Mb/s`;
  const payload = rateFigure(planPayloadBps(plan, direction));
  return `the plan says ${nominal} Mb/s on the line × 1448/1518 = ${payload} Mb/s of payload`;
}

function conclusionWords(yardstick: Yardstick, { reach, ceiling, plan }: YardstickGround): string {
  if (yardstick.status === 'known' && plan !== null) {
    if (ceiling === null) return `so the plan's ${rateWords(yardstick.rateBps)} is the yardstick`;
    const tunnel = yardstick.source === 'plan' && plan.slowerEnd !== undefined;
    const named = tunnel ? `slower end of ${reach === 'between' ? 'both lines' : 'the tunnel'}` : yardstick.source;
    return `${rateWords(yardstick.rateBps)} is the lower, so the ${named} is the yardstick`;
  }
  // Between machines of one office no line is crossed; between offices a plan is known, or there is nothing to hold it against.
  if (reach === 'between')
    return ceiling === null
      ? 'the links of both ends would have to be known'
      : 'the lower of both ends is the yardstick';
  return reach === 'local' ? 'inside the office the plan does not matter' : 'no plan is known for this line';
}

/** The arithmetic of a yardstick, step by step. A record of before keeps the words that it was given. */
export function yardstickWords(yardstick: Yardstick): readonly string[] {
  const { ground } = yardstick;
  if ('written' in ground) return ground.written;
  const link = ground.ceiling === null ? null : ceilingWords(ground.ceiling);
  const plan = planWords(ground);
  return [
    link ?? 'what the link can carry is not known',
    ...(plan === null ? [] : [plan]),
    conclusionWords(yardstick, ground),
  ];
}
