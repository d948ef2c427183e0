import {
  linkKindWords,
  nominalRateFigure,
  rateWords,
  type LineUse,
  type Link,
  type LinkKind,
  type ToldCondition,
} from '@/core';
import type { RunPage } from '@/services';
import { RIDES_WORDS, TUNNEL_WORDS } from '../device/link-details';
import { wallTimeWords } from '../parts/wall-time';

const othersWords = ({ downBps, upBps, fromMs, untilMs }: LineUse) =>
  `${rateWords(downBps)} down, ${rateWords(upBps)} up, as its router counted over ${Math.round((untilMs - fromMs) / 1000)} s`;

function linkWords(link: Link): string {
  switch (link.medium) {
    case 'wired': {
      const rate =
        link.negotiatedBps === null ? 'rate not known' : `came up at ${nominalRateFigure(link.negotiatedBps)} Mb/s`;
      const more = [link.vlan ? ', VLAN tag' : '', link.pppoe ? ', PPPoE' : ''].join('');
      return `cable, ${rate}, MTU ${link.mtuBytes}${more}`;
    }
    case 'wifi': {
      const { band, accessPoint, channel, widthMHz, linkRateBps, signalDbm, sharedAir } = link;
      return [
        band === null ? 'Wi-Fi, band not known' : `Wi-Fi, ${band} GHz`,
        ...(accessPoint === undefined ? [] : [`access point ${accessPoint}`]),
        ...(channel === undefined ? [] : [`channel ${channel}`]),
        ...(widthMHz === undefined ? [] : [`${widthMHz} MHz wide`]),
        ...(linkRateBps === null ? [] : [`link rate ${nominalRateFigure(linkRateBps)} Mb/s`]),
        ...(signalDbm === undefined ? [] : [`signal ${signalDbm} dBm`]),
        ...(sharedAir ? ['the peer on the same access point'] : []),
      ].join(', ');
    }
    case 'tunnel':
      return [
        link.kind === undefined ? 'VPN' : TUNNEL_WORDS[link.kind],
        ...(link.rides === undefined ? [] : [`over ${RIDES_WORDS[link.rides]}`]),
        ...(link.carrierBps === undefined ? [] : [`at ${nominalRateFigure(link.carrierBps)} Mb/s`]),
      ].join(' ');
    case 'unknown':
      return 'not known';
  }
}

const TOLD_WORDS: Record<ToldCondition, string> = {
  backup: 'a backup or a sync was running',
  update: 'an update was being fetched',
  others: 'others were using the line',
};

interface RunConditionsListProps {
  readonly run: RunPage['run'];
  readonly hasSamples: boolean;
  /** Whether whoever reads this may have the samples too. */
  readonly offersSamples: boolean;
}

function noSamplesWords({ importId, thinnedAtMs }: RunPage['run']): string {
  if (importId !== null) return 'No raw samples: it was not measured here.';
  return thinnedAtMs === null
    ? 'No raw samples: it ended before anything was kept.'
    : 'No raw samples any more: they were older than they are kept. The figures stay.';
}

/** What stood at the other end. */
function farEndRows({ farEnd, farLink, peerName }: RunPage['run']): [string, string][] {
  switch (farEnd) {
    case 'peer':
      return [['peer', peerName || 'not given']];
    case 'web':
      return [['web server', `${peerName}: downloads alone, delay by TCP handshakes`]];
    case 'agent':
      return [
        ['other end', `${peerName}, an agent`],
        ['its link', farLink === null ? 'not known' : linkWords(farLink)],
      ];
  }
}

/** The conditions of the run, and its raw samples. */
export function RunConditionsList({ run, hasSamples, offersSamples }: RunConditionsListProps) {
  const corrected =
    run.planCorrectedAtMs === null
      ? ''
      : ` (corrected ${wallTimeWords(run.planCorrectedAtMs)}, after the run; it was judged anew)`;
  const known: [string, string][] = [
    ['link', linkWords(run.link)],
    ['spot', run.spotName ?? 'not given'],
    ...farEndRows(run),
  ];
  const ofFile: [string, string][] = [
    // What a link of that kind usually is stands beside it in the record, and is no fact of this run.
    ['link', linkKindWords(run.linkKind as LinkKind)],
    ...known.slice(1),
    ['line', run.lineName ?? 'not given'],
    ['profile', run.profile === 'unknown' ? 'not given' : run.profile],
  ];
  const measured: [string, string][] = [
    ...known,
    ['line', run.lineName ?? 'not crossed'],
    [
      run.plan?.slowerEnd === undefined ? 'plan of that day' : 'slower end of the tunnel',
      run.plan === null
        ? 'none'
        : `${nominalRateFigure(run.plan.downBps)} down, ${nominalRateFigure(run.plan.upBps)} up${corrected}`,
    ],
    ['profile', run.profile],
    ['asked by', run.askedBy ?? 'nobody: it began on the device'],
    [
      'said before',
      run.told.length === 0 ? 'nothing else going on' : run.told.map((each) => TOLD_WORDS[each]).join(', '),
    ],
    ...(run.lineUse === null ? [] : [['others on the line', othersWords(run.lineUse)] as [string, string]]),
    ...(run.noticed.length === 0 ? [] : [['noticed', run.noticed.join(' ')] as [string, string]]),
    ['IP version', run.ipVersion === null ? 'not known' : String(run.ipVersion)],
    ['method', run.methodVersion === null ? 'none' : `version ${run.methodVersion}`],
  ];
  const rows = run.importId === null ? measured : ofFile;
  return (
    <section aria-label="Conditions">
      <h2 className="mb-2 font-semibold">Conditions</h2>
      <dl className="grid grid-cols-[max-content_1fr] gap-x-5 gap-y-1 text-[0.9rem]">
        {rows.map(([term, value]) => (
          <div key={term} className="contents">
            <dt className="text-quiet">{term}</dt>
            <dd className="break-words">{value}</dd>
          </div>
        ))}
      </dl>
      <p className="mt-3 text-[0.9rem] print:hidden">
        {hasSamples && !offersSamples ? null : hasSamples ? (
          <a
            href={`/api/v1/runs/${run.id}/samples`}
            download={`run-${run.id}.json`}
            className="underline underline-offset-4"
          >
            Raw samples as JSON
          </a>
        ) : (
          <span className="text-quiet">{noSamplesWords(run)}</span>
        )}
      </p>
    </section>
  );
}
