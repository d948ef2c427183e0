import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { connection } from 'next/server';
import { technicianOrSignIn } from '@/app/role';
import { nextStep } from '@/core';
import { theConsole } from '@/services';
import { AlternationView } from '@/ui/side/alternation-view';
import { goOnAction, sideIsReadyAction, stopAlternationAction } from '../../actions';

export const metadata: Metadata = { title: 'Turn and turn about' };

/** Two things that are measured turn and turn about. */
export default async function AlternationPlace({ params }: { readonly params: Promise<{ id: string }> }) {
  await connection();
  const { id } = await params;
  await technicianOrSignIn(`/side/turns/${encodeURIComponent(id)}`);
  const context = theConsole();
  const of = await context.store.alternations.byId(id);
  if (of === null) notFound();
  const step = nextStep(of);
  const { deviceId } = of.sides[step.kind === 'done' ? 0 : step.side];
  const device = await context.store.sites.device(deviceId);
  return (
    <AlternationView
      of={of}
      present={context.standing.isPresent(deviceId)}
      deviceName={device?.name ?? 'a device that was removed'}
      ready={sideIsReadyAction.bind(null, id)}
      goOn={goOnAction.bind(null, id)}
      stop={stopAlternationAction.bind(null, id)}
    />
  );
}
