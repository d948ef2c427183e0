'use client';

import { useState } from 'react';
import { REACH_PHRASES, type Link, type ProfileName, type Reach, type ToldCondition } from '@/core';
import type { JoinPage } from '@/services';
import type { StartRun } from '@/wire';
import { noticedNow } from './before-run';
import {
  answersOfLink,
  LINK_CHOICE_WORDS,
  linkOfAnswers,
  RATE_CHOICES_MBPS,
  type DeviceLinkChoice,
  type LinkAnswers,
} from './link-choice';
import { useReady } from './use-ready';
import { LinkMore } from './link-more';

const NEW_DEVICE = '';

/** A browser cannot hold a pace of UDP: that profile is the agent's. */
const PROFILE_WORDS: Record<Exclude<ProfileName, 'paced'>, string> = {
  quick: 'quick, 8 seconds',
  standard: 'standard, 12 to 22 seconds',
  thorough: 'thorough, up to 70 seconds, and both ways at once',
  soak: 'soak, four minutes',
  delay: 'only the delay, 15 seconds',
  single: 'one connection, as a copy has it, 12 to 22 seconds',
};

export function profileWords(profile: ProfileName): string {
  return profile === 'paced' ? 'UDP at a chosen rate' : PROFILE_WORDS[profile];
}

/** The answers on the device page, as they stand. */
export interface DeviceAnswers extends LinkAnswers {
  readonly deviceId: string;
  readonly newName: string;
  readonly spotName: string;
  readonly reach: Reach;
  readonly profile: ProfileName;
  readonly told: readonly ToldCondition[];
}

const UNKNOWN: Link = { medium: 'unknown' };
const deviceOf = (join: JoinPage, deviceId: string) => join.devices.find(({ id }) => id === deviceId);

function answersFor(join: JoinPage, deviceId: string, before?: DeviceAnswers): DeviceAnswers {
  const device = deviceOf(join, deviceId);
  return {
    ...answersOfLink(device?.link ?? UNKNOWN),
    deviceId,
    newName: before?.newName ?? join.proposed.name,
    spotName: device?.spotName ?? before?.spotName ?? '',
    reach: before?.reach ?? join.reaches[0]?.reach ?? 'local',
    profile: before?.profile ?? 'standard',
    told: before?.told ?? [],
  };
}

export function firstAnswers(join: JoinPage, profile: ProfileName): DeviceAnswers {
  const labelled = join.devices.find(({ id }) => id === join.label?.deviceId)?.id;
  const first = { ...answersFor(join, join.knownDeviceId ?? labelled ?? NEW_DEVICE), profile };
  return join.label === null || join.label.spotName === '' ? first : { ...first, spotName: join.label.spotName };
}

export function orderOf(join: JoinPage, answers: DeviceAnswers, turnId: string | null = null): StartRun {
  return {
    code: join.code,
    deviceId: answers.deviceId === NEW_DEVICE ? null : answers.deviceId,
    deviceName: answers.deviceId === NEW_DEVICE ? answers.newName.trim() : null,
    spotName: answers.spotName,
    deviceKind: answers.deviceId === NEW_DEVICE ? join.proposed.kind : null,
    link: linkOfAnswers(answers, deviceOf(join, answers.deviceId)?.link ?? UNKNOWN),
    reach: answers.reach,
    profile: answers.profile,
    told: [...answers.told],
    noticed: noticedNow(),
    turnId,
    pacedMbps: null,
    loadsWeb: false,
    holdMs: 0,
  };
}

interface DeviceFormProps {
  readonly join: JoinPage;
  readonly answers: DeviceAnswers;
  readonly onAnswers: (answers: DeviceAnswers) => void;
  readonly onRun: () => void;
  readonly busy: boolean;
}

interface LineProps {
  readonly question: string;
  readonly children: React.ReactNode;
}

function Line({ question, children }: LineProps) {
  return (
    <label className="block">
      <span className="text-sm text-quiet">{question}</span>
      {children}
    </label>
  );
}

/** Three lines to answer, most of them filled in, and how far to measure. */
export function DeviceForm({ join, answers, onAnswers, onRun, busy }: DeviceFormProps) {
  const [touched, setTouched] = useState(false);
  // On a slow path the page is seen well before it can do anything: what was typed or pressed by then would be lost.
  const ready = useReady();
  const isNew = answers.deviceId === NEW_DEVICE;
  const nameless = isNew && answers.newName.trim() === '';
  const change = (part: Partial<DeviceAnswers>) => onAnswers({ ...answers, ...part });
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        setTouched(true);
        if (!nameless) onRun();
      }}
    >
      <fieldset disabled={!ready} className="space-y-4">
        {join.devices.length > 0 && (
          <Line question="What is this device?">
            <select
              className="field"
              value={answers.deviceId}
              onChange={(event) => onAnswers(answersFor(join, event.target.value, answers))}
            >
              <option value={NEW_DEVICE}>a new one …</option>
              {join.devices.map(({ id, name }) => (
                <option key={id} value={id}>
                  {name}
                </option>
              ))}
            </select>
          </Line>
        )}
        {isNew && (
          <Line question={join.devices.length > 0 ? 'Its name' : 'What is this device called?'}>
            <input
              className="field"
              value={answers.newName}
              maxLength={80}
              placeholder="for example: Reading room laptop"
              aria-invalid={touched && nameless}
              onChange={(event) => change({ newName: event.target.value })}
            />
            {touched && nameless && (
              <span role="alert" className="text-sm font-medium text-starved">
                Give it a name, so that its runs can be found again.
              </span>
            )}
          </Line>
        )}
        <Line question="Where is it?">
          <input
            className="field"
            list="spots"
            value={answers.spotName}
            maxLength={80}
            placeholder="a spot, if you like"
            onChange={(event) => change({ spotName: event.target.value })}
          />
          <datalist id="spots">
            {join.spots.map((spot) => (
              <option key={spot} value={spot} />
            ))}
          </datalist>
        </Line>
        <div className="grid grid-cols-[1.3fr_1fr] items-end gap-4">
          <Line question="How is it connected?">
            <select
              className="field"
              value={answers.link}
              onChange={(event) => change({ link: event.target.value as DeviceLinkChoice, rateMbps: '' })}
            >
              {Object.entries(LINK_CHOICE_WORDS).map(([key, words]) => (
                <option key={key} value={key}>
                  {words}
                </option>
              ))}
            </select>
          </Line>
          {answers.link === 'wired' && (
            <Line question="which came up at">
              <select
                className="field"
                value={answers.rateMbps}
                onChange={(event) => change({ rateMbps: event.target.value })}
              >
                <option value="">not known</option>
                {RATE_CHOICES_MBPS.map((mbps) => (
                  <option key={mbps} value={mbps}>
                    {mbps} Mb/s
                  </option>
                ))}
              </select>
            </Line>
          )}
        </div>
        <LinkMore answers={answers} onAnswers={change} />
        <Line question="How thoroughly?">
          <select
            className="field"
            value={answers.profile}
            onChange={(event) => change({ profile: event.target.value as ProfileName })}
          >
            {Object.entries(PROFILE_WORDS).map(([name, words]) => (
              <option key={name} value={name}>
                {words}
              </option>
            ))}
          </select>
        </Line>
        {join.reaches.length > 1 && (
          <fieldset>
            <legend className="text-sm text-quiet">How far?</legend>
            <div className="flex flex-wrap gap-x-6">
              {join.reaches.map(({ reach }) => (
                <label key={reach} className="flex min-h-11 items-center gap-2">
                  <input
                    type="radio"
                    name="reach"
                    className="size-5 accent-[var(--ink)]"
                    checked={answers.reach === reach}
                    onChange={() => change({ reach })}
                  />
                  {REACH_PHRASES[reach]}
                </label>
              ))}
            </div>
          </fieldset>
        )}
      </fieldset>
      <button
        type="submit"
        disabled={!ready || busy || join.reaches.length === 0}
        className="mt-6 min-h-14 w-full rounded-[3px] bg-ink text-lg font-semibold text-paper hover:bg-down disabled:bg-quiet"
      >
        {busy ? 'Asking the console …' : ready ? 'Measure' : 'One moment …'}
      </button>
      <p className="mt-2 text-center text-sm text-quiet">
        {answers.profile === 'delay' ? 'moves hardly any data' : 'moves as much data as the line carries in that time'}
      </p>
    </form>
  );
}
