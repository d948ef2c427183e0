import type * as z from 'zod';
import { COMMANDS, perform } from '@/app/commands';
import {
  boardOf,
  broughtInDocument,
  broughtInOf,
  closeImport,
  lookAtImport,
  openImport,
  openImportsOf,
  timeSeriesOf,
  timeSubjectsOf,
  type ConsoleContext,
} from '@/services';
import type { OFFICE_OPERATIONS } from '@/wire';
import {
  type ConsoleFaultCode,
  done,
  failed,
  type OfficeOperationName,
  type Outcome,
  type PathParameters,
} from '@/wire';
import { findingsDocument, huntDocument } from './hunt-documents';
import { lookDocument, openImportDocument } from './import-documents';
import { agentsDocument, schedulesDocument } from './agent-documents';
import { lookDocumentOf, looksDocument } from './look-documents';
import { toldDocument } from './alarm-documents';
import { alternationDocument, sideDocument } from './side-documents';
import {
  boardDocument,
  codeDocument,
  officeDocument,
  queueDocument,
  runDocument,
  siteDocument,
} from './office-documents';

type Operations = typeof OFFICE_OPERATIONS;
type BodyOf<Operation> = Operation extends { readonly request: infer Schema extends z.ZodType }
  ? z.infer<Schema>
  : null;

/** A request whose role and body were checked. `ids`: the parameters of its path. */
interface Request<Name extends OfficeOperationName> {
  readonly context: ConsoleContext;
  readonly ids: PathParameters<Operations[Name]['path']>;
  readonly body: BodyOf<Operations[Name]>;
}
type Answer = Promise<Outcome<unknown, ConsoleFaultCode>>;
type Handlers = { readonly [Name in OfficeOperationName]: (request: Request<Name>) => Answer };

const idOf = (outcome: Outcome<{ readonly id: string }, ConsoleFaultCode>) =>
  outcome.ok ? done({ id: outcome.value.id }) : outcome;

/** What carries each operation out: what only reads asks a view, all else is a command. */
export const OFFICE_HANDLERS: Handlers = {
  listOffices: async ({ context }) => done((await context.store.sites.all()).map(siteDocument)),
  readOffice: ({ context, ids }) => officeDocument(context, ids.id),
  readBoard: async ({ context, ids }) => {
    if ((await context.store.sites.byId(ids.id)) === null) return failed('site-missing');
    const board = await boardOf(context, ids.id);
    return board.ok ? done(boardDocument(board.value)) : board;
  },
  readQueue: ({ context, ids }) => queueDocument(context, ids.id),
  readRun: ({ context, ids }) => runDocument(context, ids.id),
  readFindings: ({ context, ids }) => findingsDocument(context, ids.id),
  readHunt: ({ context, ids }) => huntDocument(context, ids.id),
  listOverTime: async ({ context, ids }) =>
    (await context.store.sites.byId(ids.id)) === null
      ? failed('site-missing')
      : done(await timeSubjectsOf(context, ids.id)),
  // Blanks part what it is made of: they come escaped.
  readOverTime: ({ context, ids }) => timeSeriesOf(context, ids.id, decodeURIComponent(ids.subject)),

  listImports: async ({ context, ids }) =>
    (await context.store.sites.byId(ids.id)) === null
      ? failed('site-missing')
      : done(await broughtInOf(context, ids.id)),
  openImport: async ({ context, ids, body }) => idOf(await openImport(context, { ...body, siteId: ids.id })),
  readImport: ({ context, ids }) => Promise.resolve(openImportDocument(context, ids.id)),
  lookAtImport: async ({ context, ids, body }) => {
    const headings = openImportsOf(context).get(ids.id)?.whole?.shape.headings ?? [];
    const looked = await lookAtImport(context, ids.id, body.reading);
    const fields = body.reading.columns.map((column) => column?.field ?? null);
    return looked.ok ? done(lookDocument(looked.value, headings, fields)) : looked;
  },
  takeIn: async ({ ids, body }) => {
    const taken = await perform(COMMANDS.takeIn, { ...body, importId: ids.id });
    return taken.ok ? done(broughtInDocument(taken.value)) : taken;
  },
  closeImport: async ({ context, ids }) => done(await closeImport(context, ids.id)),
  undoImport: async ({ ids }) => {
    const undone = await perform(COMMANDS.undoImport, { importId: ids.id });
    return undone.ok ? done(broughtInDocument(undone.value)) : undone;
  },

  makeComparison: async ({ ids, body }) => idOf(await perform(COMMANDS.makeComparison, { ...body, siteId: ids.id })),
  readComparison: ({ context, ids }) => sideDocument(context, ids.id),
  startAlternation: async ({ ids, body }) =>
    idOf(await perform(COMMANDS.startAlternation, { siteId: ids.id, form: body })),
  readAlternation: ({ context, ids }) => alternationDocument(context, ids.id),
  sideIsReady: ({ ids }) => perform(COMMANDS.sideIsReady, { id: ids.id }),
  goOnWithAlternation: ({ ids }) => perform(COMMANDS.goOnWithAlternation, { id: ids.id }),
  stopAlternation: ({ ids }) => perform(COMMANDS.stopAlternation, { id: ids.id }),

  listAgents: ({ context, ids }) => agentsDocument(context, ids.id),
  retireAgent: ({ ids }) => perform(COMMANDS.retireAgent, { deviceId: ids.id }),
  noteLinkChange: ({ ids }) => perform(COMMANDS.noteLinkChange, { changeId: ids.id }),
  noteNeighboursKnown: ({ ids }) => perform(COMMANDS.noteNeighboursKnown, { siteId: ids.id }),
  listSchedules: ({ context, ids }) => schedulesDocument(context, ids.id),
  makeSchedule: async ({ ids, body }) => idOf(await perform(COMMANDS.makeSchedule, { ...body, siteId: ids.id })),
  pauseSchedule: ({ ids, body }) => perform(COMMANDS.pauseSchedule, { id: ids.id, paused: body.paused }),
  removeSchedule: ({ ids }) => perform(COMMANDS.removeSchedule, { id: ids.id }),
  setBudget: ({ ids, body }) => perform(COMMANDS.setBudget, { lineId: ids.id, gigabytes: body.gigabytes }),

  listLooks: ({ context, ids }) => looksDocument(context, ids.id),
  readLook: ({ context, ids }) => lookDocumentOf(context, ids.id),
  askLook: async ({ ids, body }) => idOf(await perform(COMMANDS.askLook, { deviceId: ids.id, ...body })),
  stopLook: ({ ids }) => perform(COMMANDS.stopLook, { lookId: ids.id }),

  addLane: async ({ body }) => idOf(await perform(COMMANDS.addLane, body)),
  endLane: ({ ids }) => perform(COMMANDS.endLane, { id: ids.id }),
  beginMark: async ({ ids, body }) => idOf(await perform(COMMANDS.beginMark, { ...body, siteId: ids.id })),
  endMark: ({ ids }) => perform(COMMANDS.endMark, { id: ids.id }),
  removeMark: ({ ids }) => perform(COMMANDS.removeMark, { id: ids.id }),

  readTold: ({ context, ids }) => toldDocument(context, ids.id),
  saveAlarmRules: ({ ids, body }) => perform(COMMANDS.saveAlarmRules, { siteId: ids.id, rules: body }),
  addRecipient: ({ ids, body }) => perform(COMMANDS.addRecipient, { ...body, siteId: ids.id }),
  pauseRecipient: ({ ids, body }) => perform(COMMANDS.pauseRecipient, { id: ids.id, paused: body.paused }),
  tryRecipient: ({ ids }) => perform(COMMANDS.tryRecipient, { id: ids.id }),
  removeRecipient: ({ ids }) => perform(COMMANDS.removeRecipient, { id: ids.id }),

  letFindingBe: ({ ids, body }) => perform(COMMANDS.letFindingBe, { ...body, findingId: ids.id }),
  openFindingAgain: ({ ids }) => perform(COMMANDS.openFindingAgain, { findingId: ids.id }),
  openHunt: async ({ body }) => idOf(await perform(COMMANDS.openHunt, body)),
  noteInHunt: ({ ids, body }) => perform(COMMANDS.noteInHunt, { ...body, huntId: ids.id }),
  ruleOut: ({ ids, body }) => perform(COMMANDS.ruleOut, { ...body, huntId: ids.id }),
  endHunt: ({ ids, body }) => perform(COMMANDS.endHunt, { ...body, huntId: ids.id }),
  noteSwap: async ({ ids, body }) => idOf(await perform(COMMANDS.noteSwap, { ...body, siteId: ids.id })),
  undoSwap: ({ ids }) => perform(COMMANDS.undoSwap, { swapId: ids.id }),

  addOffice: async ({ body }) => idOf(await perform(COMMANDS.saveOffice, { ...body, siteId: null })),
  renameOffice: async ({ ids, body }) => idOf(await perform(COMMANDS.saveOffice, { ...body, siteId: ids.id })),
  removeOffice: ({ ids }) => perform(COMMANDS.removeOffice, { siteId: ids.id }),
  putBackOffice: async ({ ids }) => idOf(await perform(COMMANDS.putBackOffice, { siteId: ids.id })),
  renewJoinCode: async ({ ids }) => {
    const renewed = await perform(COMMANDS.renewJoinCode, { siteId: ids.id });
    return renewed.ok ? done(codeDocument(renewed.value)) : renewed;
  },
  addLine: async ({ ids, body }) =>
    idOf(await perform(COMMANDS.saveLine, { siteId: ids.id, lineId: null, form: body })),
  changeLine: async ({ ids, body }) =>
    idOf(await perform(COMMANDS.saveLine, { siteId: ids.id, lineId: ids.line, form: body })),
  useLine: ({ ids }) => perform(COMMANDS.putLineInUse, { siteId: ids.id, lineId: ids.line }),
  removeLine: ({ ids }) => perform(COMMANDS.removeLine, { siteId: ids.id, lineId: ids.line }),
  correctPlan: async ({ ids, body }) =>
    idOf(await perform(COMMANDS.correctPlan, { siteId: ids.id, lineId: ids.line, planId: ids.plan, form: body })),
  removePlan: ({ ids }) => perform(COMMANDS.removePlan, { siteId: ids.id, lineId: ids.line, planId: ids.plan }),
  addDevice: async ({ ids, body }) =>
    idOf(await perform(COMMANDS.saveDevice, { siteId: ids.id, deviceId: null, form: body })),
  changeDevice: async ({ ids, body }) =>
    idOf(await perform(COMMANDS.saveDevice, { siteId: ids.id, deviceId: ids.device, form: body })),
  removeDevice: ({ ids }) => perform(COMMANDS.removeDevice, { deviceId: ids.device }),
  mergeDevice: async ({ ids, body }) =>
    idOf(await perform(COMMANDS.mergeDevices, { fromId: ids.device, intoId: body.intoId })),
  addPeer: async ({ ids, body }) =>
    idOf(await perform(COMMANDS.savePeer, { siteId: ids.id, peerId: null, form: body })),
  changePeer: async ({ ids, body }) =>
    idOf(await perform(COMMANDS.savePeer, { siteId: ids.id, peerId: ids.peer, form: body })),
  addWebFarEnd: async ({ ids, body }) =>
    idOf(await perform(COMMANDS.saveWebFarEnd, { siteId: ids.id, peerId: null, form: body })),
  changeWebFarEnd: async ({ ids, body }) =>
    idOf(await perform(COMMANDS.saveWebFarEnd, { siteId: ids.id, peerId: ids.peer, form: body })),
  removePeer: ({ ids }) => perform(COMMANDS.removePeer, { peerId: ids.peer }),
  pinPeer: ({ ids }) => perform(COMMANDS.pinPeer, { peerId: ids.peer }),
  acceptPeerKey: ({ ids }) => perform(COMMANDS.acceptPeerKey, { peerId: ids.peer }),
  undoRemoval: ({ ids }) => perform(COMMANDS.undoRemoval, { removalId: ids.id }),
  saveRunNotes: ({ ids, body }) => perform(COMMANDS.saveRunNotes, { runId: ids.id, notes: body.notes }),
  tagRuns: ({ ids, body }) => perform(COMMANDS.tagRuns, { ...body, siteId: ids.id }),
  noteRuns: ({ ids, body }) => perform(COMMANDS.noteRuns, { ...body, siteId: ids.id }),
  leaveOutRuns: async ({ ids, body }) => {
    const changed = await perform(COMMANDS.leaveOutRuns, { ...body, siteId: ids.id });
    return changed.ok ? done({ count: changed.value }) : changed;
  },
  removeRuns: ({ ids, body }) => perform(COMMANDS.removeRuns, { ...body, siteId: ids.id }),
  shareRun: async ({ ids }) => {
    const shared = await perform(COMMANDS.shareRun, { runId: ids.id });
    return shared.ok ? done({ path: shared.value }) : shared;
  },
  stopSharing: ({ ids }) => perform(COMMANDS.stopSharing, { runId: ids.id }),
};
