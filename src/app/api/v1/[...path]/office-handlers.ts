import {
  acceptPeerKey,
  boardOf,
  ledgerRunOf,
  mergeDevices,
  pinPeer,
  putBackOffice,
  putLineInUse,
  removeDevice,
  correctPlan,
  removeLine,
  removePlan,
  removeOffice,
  removePeer,
  renewJoinCode,
  saveDevice,
  saveLine,
  saveOffice,
  savePeer,
  saveRunNotes,
  runPageOf,
  setUpOf,
  shareRun,
  stopSharing,
  trayOf,
  undoRemoval,
  type Board,
  type ConsoleContext,
  type SetUp,
} from '@/services';
import {
  type ConsoleFaultCode,
  done,
  failed,
  type DeviceForm,
  type LineForm,
  type Outcome,
  type PeerForm,
  type PlanForm,
} from '@/wire';

/** A request whose body was checked by the schema of its operation. `ids`: the parameters of its path, in order. */
interface Call {
  readonly context: ConsoleContext;
  readonly ids: readonly string[];
  readonly body: unknown;
}
type Handler = (call: Call) => Promise<Outcome<unknown, ConsoleFaultCode>>;

const iso = (atMs: number) => new Date(atMs).toISOString();
const idOf = <Thing extends { readonly id: string }>(outcome: Outcome<Thing, ConsoleFaultCode>) =>
  outcome.ok ? done({ id: outcome.value.id }) : outcome;
const nothing = async (act: Promise<unknown>) => {
  await act;
  return done(null);
};

type Site = NonNullable<SetUp['site']>;
const siteDocument = ({ id, name, joinCode, joinCodeUntilMs, demo }: Pick<Site, 'id' | 'name' | 'demo'> & Site) => ({
  ...{ id, name, joinCode, joinCodeUntil: iso(joinCodeUntilMs), demo },
});

async function officeDocument({ context, ids: [siteId] }: Call) {
  const { site, lines, devices, peers } = await setUpOf(context, siteId);
  if (site === null || site.id !== siteId) return failed('site-missing');
  return done({
    site: siteDocument(site),
    lines: lines.map(({ id, name, provider, inUse, plan, plans, shown }) => ({
      ...{ id, name, provider, inUse, plan, plans, shown },
    })),
    devices: devices.map((device) => ({ ...device, standsBy: context.standing.isPresent(device.id) })),
    peers: peers.map(({ id, name, reach, address, pinned, publicKey, otherKey, farSiteId }) => ({
      ...{ id, name, reach, address, pinned, publicKey, keyChanged: otherKey !== null, farSiteId },
    })),
  });
}

function boardDocument({ columns, groups }: Board) {
  return groups.flatMap(({ spotName, rows }) =>
    rows.map((row) => ({
      ...{ deviceId: row.deviceId, device: row.deviceName, spot: spotName, standsBy: row.standsBy },
      cells: row.cells.flatMap(({ cell }, index) => {
        if (cell === null) return [];
        const { runId, count, startedAtMs, verdict, downBps, upBps, yardstickDownBps, yardstickUpBps, addedMs } = cell;
        return {
          ...columns[index]!,
          ...{ runId, runs: count, newestAt: iso(startedAtMs), verdict },
          ...{ downBps, upBps, yardstickDownBps, yardstickUpBps, addedMs },
        };
      }),
    })),
  );
}

async function queueDocument({ context, ids: [siteId] }: Call) {
  if ((await context.store.sites.byId(siteId!)) === null) return failed('site-missing');
  const tray = await trayOf(context, siteId!);
  return done(
    tray.map(({ turnId, deviceName, reach, profile, askedBy, together, state }) => ({
      ...{ turnId, device: deviceName, reach, profile, askedBy, together, status: state.status },
      why: state.status === 'waiting' ? state.why : null,
    })),
  );
}

async function runDocument({ context, ids: [runId] }: Call) {
  const found = await runPageOf(context, runId!);
  if (!found.ok) return found;
  const { run, result, unfinished, set, sharePath } = found.value;
  return done({
    ...ledgerRunOf(run),
    ...{ sentence: result?.sentence ?? null, report: result?.report ?? null, unfinished },
    set:
      set === null
        ? null
        : {
            ...{ runIds: set.runs.map(({ id }) => id), verdict: set.judgement.verdict },
            ...{ downBps: set.judgement.down?.median ?? null, upBps: set.judgement.up?.median ?? null },
          },
    ...{ notes: run.notes, sharePath },
  });
}

/** `method path` of an operation → what carries it out. */
export const OFFICE_HANDLERS: Readonly<Record<string, Handler>> = {
  'get /api/v1/sites': async ({ context }) => done((await context.store.sites.all()).map(siteDocument)),
  'post /api/v1/sites': async ({ context, body }) =>
    idOf(await saveOffice(context, null, (body as { name: string }).name)),
  'get /api/v1/sites/{id}': officeDocument,
  'put /api/v1/sites/{id}': async ({ context, ids, body }) =>
    idOf(await saveOffice(context, ids[0]!, (body as { name: string }).name)),
  'delete /api/v1/sites/{id}': ({ context, ids }) => nothing(removeOffice(context, ids[0]!)),
  'post /api/v1/sites/{id}/put-back': async ({ context, ids }) => idOf(await putBackOffice(context, ids[0]!)),
  'post /api/v1/sites/{id}/code': async ({ context, ids }) => {
    const renewed = await renewJoinCode(context, ids[0]!);
    if (!renewed.ok) return renewed;
    const { joinCode, joinCodeUntilMs } = renewed.value;
    return done({ joinCode, joinCodeUntil: iso(joinCodeUntilMs) });
  },
  'get /api/v1/sites/{id}/board': async ({ context, ids }) => {
    if ((await context.store.sites.byId(ids[0]!)) === null) return failed('site-missing');
    const board = await boardOf(context, ids[0]);
    return board.ok ? done(boardDocument(board.value)) : board;
  },
  'get /api/v1/sites/{id}/queue': queueDocument,
  'post /api/v1/sites/{id}/lines': async ({ context, ids, body }) =>
    idOf(await saveLine(context, ids[0]!, null, body as LineForm)),
  'put /api/v1/sites/{id}/lines/{line}': async ({ context, ids, body }) =>
    idOf(await saveLine(context, ids[0]!, ids[1]!, body as LineForm)),
  'post /api/v1/sites/{id}/lines/{line}/use': ({ context, ids }) => putLineInUse(context, ids[0]!, ids[1]!),
  'delete /api/v1/sites/{id}/lines/{line}': ({ context, ids }) => removeLine(context, ids[0]!, ids[1]!),
  'put /api/v1/sites/{id}/lines/{line}/plans/{plan}': async ({ context, ids, body }) =>
    idOf(await correctPlan(context, ids[0]!, ids[1]!, ids[2]!, body as PlanForm)),
  'delete /api/v1/sites/{id}/lines/{line}/plans/{plan}': ({ context, ids }) =>
    removePlan(context, ids[0]!, ids[1]!, ids[2]!),
  'post /api/v1/sites/{id}/devices': async ({ context, ids, body }) =>
    idOf(await saveDevice(context, ids[0]!, null, body as DeviceForm)),
  'put /api/v1/sites/{id}/devices/{device}': async ({ context, ids, body }) =>
    idOf(await saveDevice(context, ids[0]!, ids[1]!, body as DeviceForm)),
  'delete /api/v1/sites/{id}/devices/{device}': ({ context, ids }) => nothing(removeDevice(context, ids[1]!)),
  'post /api/v1/sites/{id}/devices/{device}/merge': async ({ context, ids, body }) =>
    idOf(await mergeDevices(context, ids[1]!, (body as { intoId: string }).intoId)),
  'post /api/v1/sites/{id}/peers': async ({ context, ids, body }) =>
    idOf(await savePeer(context, ids[0]!, null, body as PeerForm)),
  'put /api/v1/sites/{id}/peers/{peer}': async ({ context, ids, body }) =>
    idOf(await savePeer(context, ids[0]!, ids[1]!, body as PeerForm)),
  'delete /api/v1/sites/{id}/peers/{peer}': ({ context, ids }) => nothing(removePeer(context, ids[1]!)),
  'post /api/v1/sites/{id}/peers/{peer}/pin': ({ context, ids }) => nothing(pinPeer(context, ids[1]!)),
  'post /api/v1/sites/{id}/peers/{peer}/accept-key': ({ context, ids }) => nothing(acceptPeerKey(context, ids[1]!)),
  'post /api/v1/removals/{id}/undo': ({ context, ids }) => undoRemoval(context, ids[0]!),
  'get /api/v1/runs/{id}': runDocument,
  'put /api/v1/runs/{id}/notes': ({ context, ids, body }) =>
    saveRunNotes(context, ids[0]!, (body as { notes: string }).notes),
  'post /api/v1/runs/{id}/share': async ({ context, ids }) => {
    const shared = await shareRun(context, ids[0]!);
    return shared.ok ? done({ path: shared.value }) : shared;
  },
  'delete /api/v1/runs/{id}/share': ({ context, ids }) => stopSharing(context, ids[0]!),
};
