'use client';

import { Command } from 'cmdk';
import { useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import { Dialog } from '../parts/dialog';
import { PLACES } from './console-keys';
import { MORE_PLACES } from './more-places';

/** What can be found or done by its name. */
export interface CommandFacts {
  readonly sites: readonly { readonly id: string; readonly name: string }[];
  readonly devices: readonly { readonly id: string; readonly name: string }[];
  readonly chooseSite: (siteId: string) => Promise<void>;
}

/** What people call things that we call otherwise; grows with each place. */
const CALLED = {
  round: ['test', 'measure', 'speed', 'run', 'check'],
  join: ['add', 'connect', 'qr', 'phone', 'code', 'url', 'link'],
  hunt: ['problem', 'slow', 'issue', 'fault', 'trouble', 'diagnose', 'find', 'why', 'lag', 'bottleneck'],
  swap: ['change', 'replace', 'cable', 'before', 'after', 'compare', 'note'],
  labels: ['sticker', 'qr', 'print', 'complain', 'ticket'],
};
const CALLED_PLACES: Readonly<Record<string, string[]>> = {
  '/': ['home', 'overview', 'status', 'dashboard', 'problem'],
  '/hunt': ['problem', 'diagnose', 'fault'],
  '/ledger': ['history', 'results', 'list', 'log', 'export', 'report', 'record'],
  '/side': [
    'alternate',
    'turn about',
    'compare',
    'comparison',
    'difference',
    'versus',
    'before',
    'after',
    'better',
    'ab',
  ],
  '/time': [
    'time',
    'trend',
    'history',
    'evening',
    'week',
    'month',
    'slow',
    'graph',
    'chart',
    'curve',
    'since',
    'hours',
  ],
  '/case': ['proof', 'provider', 'contract', 'complaint', 'report', 'pdf', 'evidence', 'print', 'record'],
  '/agent': ['schedule', 'agent', 'unattended', 'cron', 'every', 'night', 'probe', 'box', 'budget', 'volume', 'data'],
  '/set-up': ['settings', 'options', 'contract', 'plan', 'provider', 'configure', 'backup', 'token'],
};

const ITEM =
  'flex min-h-9 cursor-pointer items-center gap-3 px-3 data-[selected=true]:bg-paper data-[selected=true]:shadow-[inset_3px_0_0_var(--ink)]';
const GROUP = 'py-1 [&_[cmdk-group-heading]]:px-3 [&_[cmdk-group-heading]]:text-xs [&_[cmdk-group-heading]]:text-quiet';

/** What is called so, or holds it: letters that are merely all there are none, or "boss" would find "somebody says". */
function rankOf(value: string, typed: string, keywords: string[] = []): number {
  const search = typed.trim().toLowerCase();
  if (keywords.some((word) => word.toLowerCase().startsWith(search))) return 1;
  return value.toLowerCase().includes(search) ? 0.9 : 0;
}

/** The command box: Ctrl K, then type. */
export function CommandBox({ sites, devices, chooseSite }: CommandFacts) {
  const [open, setOpen] = useState(false);
  const router = useRouter();
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.key.toLowerCase() !== 'k' || !(event.ctrlKey || event.metaKey)) return;
      event.preventDefault();
      setOpen((before) => !before);
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);
  const go = (href: string) => () => {
    setOpen(false);
    router.push(href);
  };
  return (
    <Dialog
      title="Find or do something"
      quietTitle
      open={open}
      onOpen={setOpen}
      className="w-[min(34rem,92vw)]"
      trigger={
        <button
          type="button"
          aria-keyshortcuts="Control+K"
          className="flex h-8 items-center gap-2 whitespace-nowrap border-b border-hairline px-1 text-sm text-quiet hover:border-ink hover:text-ink"
        >
          find or do <span className="figure text-[0.7rem] max-xl:hidden">Ctrl K</span>
        </button>
      }
    >
      <Command label="Find or do something" filter={rankOf}>
        <Command.Input
          placeholder="a place, an office, a device, something to do"
          className="w-full border-b border-hairline bg-transparent px-3 py-3 outline-none placeholder:text-quiet"
        />
        <Command.List className="max-h-[50vh] overflow-y-auto py-1">
          <Command.Empty className="px-3 py-3 text-quiet">Nothing is called that.</Command.Empty>
          <Command.Group heading="do" className={GROUP}>
            <Command.Item className={ITEM} keywords={CALLED.round} onSelect={go('/?do=round')}>
              Start a round
            </Command.Item>
            <Command.Item className={ITEM} keywords={CALLED.join} onSelect={go('/set-up')}>
              Join a device: show the address and the code
            </Command.Item>
            <Command.Item className={ITEM} keywords={CALLED.hunt} onSelect={go('/hunt')}>
              Hunt: somebody says that it is slow
            </Command.Item>
            <Command.Item className={ITEM} keywords={CALLED.swap} onSelect={go('/swaps')}>
              Write down a swap, and see what the others did
            </Command.Item>
            <Command.Item className={ITEM} keywords={CALLED.labels} onSelect={go('/labels')}>
              Labels to print, for whoever finds it slow
            </Command.Item>
          </Command.Group>
          <Command.Group heading="go to" className={GROUP}>
            {PLACES.map(({ name, href }) => (
              <Command.Item key={href} className={ITEM} keywords={CALLED_PLACES[href] ?? []} onSelect={go(href)}>
                {name}
              </Command.Item>
            ))}
            {MORE_PLACES.map(({ name, href, called }) => (
              <Command.Item key={href} className={ITEM} keywords={[...called]} onSelect={go(href)}>
                {name}
              </Command.Item>
            ))}
          </Command.Group>
          {sites.length > 1 && (
            <Command.Group heading="offices" className={GROUP}>
              {sites.map(({ id, name }) => (
                <Command.Item
                  key={id}
                  value={`office ${name} ${id}`}
                  className={ITEM}
                  onSelect={() => {
                    setOpen(false);
                    void chooseSite(id);
                  }}
                >
                  <span className="truncate">{name}</span>
                </Command.Item>
              ))}
            </Command.Group>
          )}
          <Command.Group heading="runs of a device" className={GROUP}>
            {devices.map(({ id, name }) => (
              <Command.Item
                key={id}
                value={`device ${name} ${id}`}
                className={ITEM}
                onSelect={go(`/ledger?device=${encodeURIComponent(id)}`)}
              >
                <span className="truncate">{name}</span>
              </Command.Item>
            ))}
          </Command.Group>
        </Command.List>
      </Command>
    </Dialog>
  );
}
