import { planThroughTunnel, type Plan, type Reach } from '@/core';
import type { Line, StoredPeer } from '@/store';
import type { ConsoleContext } from '../console/console-context';
import { planOfRow } from './plan-of-row';

/** What a run crosses, and what it is held against there. */
export interface Crossing {
  readonly line: Line | null;
  readonly plan: Plan | null;
  /** The line at the other end of a tunnel to another office of ours; null where there is none. */
  readonly farLine: Line | null;
}

async function inUse(
  context: ConsoleContext,
  siteId: string,
  atMs: number,
  lineId: string | null = null,
): Promise<Crossing> {
  const { sites } = context.store;
  const line = lineId === null ? await sites.lineInUse(siteId, atMs) : await sites.line(lineId);
  return { line, plan: line === null ? null : planOfRow(await sites.planAt(line.id, atMs)), farLine: null };
}

/**
 * The line of a site that a run of this reach crosses, and the plan in force at that time; through a tunnel, or between
 * machines, to another office the slower end of both. Inside the office neither.
 */
export async function crossingOf(
  context: ConsoleContext,
  siteId: string,
  { reach, farSiteId }: { readonly reach: Reach } & Partial<Pick<StoredPeer, 'farSiteId'>>,
  atMs: number,
  /** The line that a run is known to have crossed; null: the one in use at that time. */
  lineId: string | null = null,
): Promise<Crossing> {
  // Between two machines of one office no line is crossed.
  const isInside = reach === 'local' || (reach === 'between' && (farSiteId ?? null) === null);
  if (isInside) return { line: null, plan: null, farLine: null };
  const own = await inUse(context, siteId, atMs, lineId);
  if (reach === 'internet' || farSiteId === null || farSiteId === undefined) return own;
  const far = await inUse(context, farSiteId, atMs);
  const plan = own.plan === null || far.plan === null ? own.plan : planThroughTunnel(own.plan, far.plan);
  return { line: own.line, plan, farLine: far.line };
}
