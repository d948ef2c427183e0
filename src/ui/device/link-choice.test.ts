import type { Link } from '@/core';
import { answersOfLink, linkOfAnswers } from './link-choice';

const WIFI: Link = {
  ...{ medium: 'wifi', band: '5', linkRateBps: 866e6, accessPoint: 'office ceiling', channel: 44, widthMHz: 80 },
};

describe('the answers about a link', () => {
  it('say what is known, and give the same link back: nothing is asked twice, nothing is lost', () => {
    const links: Link[] = [
      WIFI,
      { medium: 'wired', negotiatedBps: 1e9, mtuBytes: 9000, vlan: true },
      { medium: 'tunnel', kind: 'openvpn', carrierBps: 100e6, rides: 'wifi' },
      { medium: 'unknown' },
    ];
    for (const link of links) expect(linkOfAnswers(answersOfLink(link), link)).toEqual(link);
  });

  it('of another kind forget what belonged to the link before', () => {
    const cable = { ...answersOfLink(WIFI), link: 'wired', rateMbps: '100' } as const;
    expect(linkOfAnswers(cable, WIFI)).toEqual({ medium: 'wired', negotiatedBps: 100e6, mtuBytes: 1500 });
    expect(linkOfAnswers({ ...answersOfLink(WIFI), link: 'wifi-2.4' }, WIFI)).toEqual({
      ...{ medium: 'wifi', band: '2.4', linkRateBps: 866e6, accessPoint: 'office ceiling' },
    });
  });

  it('leave a rate unknown that is none', () => {
    for (const rateMbps of ['', 'fast', '-5', '1e9'])
      expect(linkOfAnswers({ ...answersOfLink(WIFI), rateMbps }, WIFI)).toMatchObject({ linkRateBps: null });
    expect(linkOfAnswers({ ...answersOfLink(WIFI), rateMbps: '433,3' }, WIFI)).toMatchObject({ linkRateBps: 433.3e6 });
  });
});
