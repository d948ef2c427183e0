'use client';

import { useState } from 'react';
import { linkKindOf, nominalRateFigure, WIFI_WIDTHS_MHZ, type Link } from '@/core';
import { LINK_CHOICE_WORDS } from '../device/link-choice';
import { RIDES_WORDS, TUNNEL_WORDS } from '../device/link-details';
import { ChoiceField, TextField, TickField } from '../form/action-form';

const mbpsOf = (rateBps: number | null | undefined) =>
  rateBps === null || rateBps === undefined ? '' : nominalRateFigure(rateBps);
const textOf = (value: number | string | undefined) => (value === undefined ? '' : String(value));

function CableFields({ link }: { readonly link: Link }) {
  const known = link.medium === 'wired' ? link : null;
  return (
    <>
      <TextField name="negotiatedMbps" label="came up at, if known" unit="Mb/s" value={mbpsOf(known?.negotiatedBps)} />
      <TextField name="mtuBytes" label="MTU" unit="bytes" value={textOf(known?.mtuBytes ?? 1500)} />
      <div className="flex gap-6">
        <TickField name="vlan" label="VLAN tag" value={known?.vlan ?? false} />
        <TickField name="pppoe" label="PPPoE" value={known?.pppoe ?? false} />
      </div>
    </>
  );
}

function WifiFields({ link }: { readonly link: Link }) {
  const known = link.medium === 'wifi' ? link : null;
  return (
    <>
      <TextField
        name="accessPoint"
        label="access point"
        value={known?.accessPoint ?? ''}
        hint="runs on one access point take turns"
      />
      <TextField name="linkRateMbps" label="link rate" unit="Mb/s" value={mbpsOf(known?.linkRateBps)} />
      <TextField name="channel" label="channel" value={textOf(known?.channel)} />
      <ChoiceField
        name="widthMHz"
        label="channel width"
        value={textOf(known?.widthMHz)}
        options={[['', 'not known'], ...WIFI_WIDTHS_MHZ.map((width) => [String(width), `${width} MHz`] as const)]}
      />
      <TextField name="signalDbm" label="signal" unit="dBm" value={textOf(known?.signalDbm)} />
      <TickField
        name="sharedAir"
        label="the local peer is on the same access point"
        value={known?.sharedAir ?? false}
      />
    </>
  );
}

function TunnelFields({ link }: { readonly link: Link }) {
  const known = link.medium === 'tunnel' ? link : null;
  return (
    <>
      <ChoiceField
        name="tunnelKind"
        label="kind of tunnel"
        value={known?.kind ?? ''}
        options={[['', 'not known'], ...Object.entries(TUNNEL_WORDS)]}
      />
      <ChoiceField
        name="rides"
        label="which rides on"
        value={known?.rides ?? ''}
        options={[['', 'not known'], ...Object.entries(RIDES_WORDS)]}
      />
      <TextField name="carrierMbps" label="what carries it runs at" unit="Mb/s" value={mbpsOf(known?.carrierBps)} />
    </>
  );
}

/** How a device is connected: the kind, and what is known of a link of that kind. */
export function LinkFields({ link }: { readonly link: Link }) {
  const [kind, setKind] = useState<string>(linkKindOf(link));
  return (
    <>
      <ChoiceField
        name="linkChoice"
        label="connected"
        value={linkKindOf(link)}
        options={Object.entries(LINK_CHOICE_WORDS)}
        onChoose={setKind}
      />
      {kind === 'wired' ? <CableFields link={link} /> : <input type="hidden" name="negotiatedMbps" value="" />}
      {kind.startsWith('wifi') && <WifiFields link={link} />}
      {kind === 'tunnel' && <TunnelFields link={link} />}
    </>
  );
}
