import { findPlaces, searchRegister } from '../directories';
import { dropOwn, keepOwn, listOwn } from '../own-directories';
import { SOURCES } from '../sources';
import { listDirectories, searchStations, setAccount } from '../stations';
import { settingsOfModel } from '../../core/image';
import { modelById } from '../../core/models';
import { NEW_OWNER } from '../../core/plan';
import { parseRoute } from '../../core/radio';
import { notFound } from '../problem';
import { ownOrigin, paperPdf } from '../paper';
import { dropSet, keepSet, listSets } from '../starter-sets';
import { leaveNews, newsOfPlan } from '../news';
import { exportPlan, exportStations, planJsonSchema } from '../export';
import { readOnlyBecause } from '../database';
import { databaseKind } from '../health';
import { cardZip, openCard } from '../card-zip';
import { chooseModel } from '../ports';
import { boardNow, rankPeople, startBoard, stopBoard } from '../heard-board';
import { listPeople, markedPeople, markPerson, rollNow, searchPeople } from '../people';
import { lastLoad, packedFile, startLoad, stopLoad } from '../people-load';
import { imageBytes, imageFile, imageFiles, openImage } from '../images';
import { importFile } from '../import';
import { lookAtKeeping, readBackup } from '../keeping';
import { getSeveral, startSeveral } from '../several';
import { getJob, listJobs, startJob, stopJob } from '../jobs';
import { decideLive, endLive, listLives, startLive, watchLives } from '../live';
import { findModels } from '../models';
import { areaOf, neighboursOf } from '../neighbours';
import { hear, heardOf } from '../heard';
import { pageOfPlans, plansByName } from '../plan-list';
import { rawDocument } from '../plan-rows';
import { checkPlan, createPlan, duplicatePlan, fitPlan, getPlan, setRemoved } from '../plans';
import { familyOf, movePlan, offersFrom } from '../family';
import { makeBackup } from '../backup';
import { doneByHand } from '../by-hand';
import { getCopy, listCopies, noteCopy, planFromCopy } from '../copies';
import { lookAtBench, previewWrite } from '../bench';
import { compareCopy } from '../compare-copies';
import { marksOf, planThen, setMark } from '../marks';
import { planLog } from '../plan-log';
import { editPlan, goBack, stepBack } from '../revisions';
import { setUnitValues, unitValuesOf } from '../unit-values';
import { watchPlan } from '../watch';
import type { api, Operation } from '../../api';
import { openApiDocument } from './openapi';
import type { Handler } from './route';

type HandlerOf<O> = O extends Operation<infer P, infer Q, infer B, infer R> ? Handler<P, Q, B, R> : never;

/**
 * The changes that keep their own receipt, with what they did, in one transaction: a kill in between does not have them done twice. The others keep
 * their answer (api/dispatch.ts).
 */
export const KEEP_RECEIPTS: ReadonlySet<keyof typeof api> = new Set([
  ...([
    'createPlan',
    'removePlan',
    'recoverPlan',
    'duplicatePlan',
    'movePlan',
    'openImage',
    'copyPlan',
  ] as const),
  ...([
    'edit',
    'undo',
    'redo',
    'goBack',
    'importFile',
    'keepOwn',
    'dropOwn',
    'keepSet',
    'dropSet',
    'hear',
    'startJob',
    'startSeveral',
  ] as const),
]);

/** What answers each operation of the contract; a line each, since the contract parses and the use cases do the work. */
export const handlers: { [name in keyof typeof api]: HandlerOf<(typeof api)[name]> } = {
  openapi: () => openApiDocument(),
  health: async () => ({ status: 'ok', database: await databaseKind(), readOnly: readOnlyBecause() }),
  models: ({ query }) => ({ models: findModels(query.q) }),
  modelSettings: ({ params }) => {
    const model = modelById(params.id);
    if (!model) throw notFound(`model ${params.id}`);
    return { settings: settingsOfModel(model) };
  },
  plans: ({ query }) => pageOfPlans(query),
  planNames: async () => ({ plans: await plansByName() }),
  createPlan: ({ body, asker }) =>
    createPlan(
      {
        ...body,
        owner: { ...NEW_OWNER, ...body.owner },
      },
      {},
      asker,
    ),
  plan: ({ params }) => getPlan(params.id),
  removePlan: ({ params, asker }) => setRemoved(params.id, true, asker),
  recoverPlan: ({ params, asker }) => setRemoved(params.id, false, asker),
  duplicatePlan: ({ params, query, asker }) => duplicatePlan(params.id, query.revision, asker),
  movePlan: ({ params, body, asker }) => movePlan(params.id, body, asker),
  openImage: ({ body, asker, gone }) => openImage(body, asker, gone),
  importFile: ({ body, asker, gone }) => importFile(body, asker, gone),
  imageFiles: ({ params }) => imageFiles(params.id),
  image: ({ params, query }) => imageFile(params.id, query.part),
  imageBytes: ({ params, query }) => imageBytes(params.id, query.from),
  offers: ({ params }) => familyOf(params.id),
  offersFrom: ({ params }) => offersFrom(params.id, params.from),
  document: async ({ params }) => ({
    file: await rawDocument(params.id),
    type: 'application/json',
    name: `${params.id}-document.json`,
  }),
  then: ({ params, query }) => planThen(params.id, query.revision),
  events: async ({ params, gone }) => ({ stream: await watchPlan(params.id, gone) }),
  marks: async ({ params }) => ({ marks: await marksOf(params.id) }),
  mark: async ({ params, body }) => ({ marks: await setMark(params.id, body.revision, body.name) }),
  news: ({ params, query, gone }) => newsOfPlan(params.id, query.ask, gone),
  leaveNews: ({ params, body }) => leaveNews(params.id, body.leave, body.again),
  heard: async ({ params, query }) => ({ heard: await heardOf(params.id, query.weeks) }),
  hear: ({ params, body, asker }) => hear(params.id, body, asker),
  edits: ({ params, query }) => planLog(params.id, query.before, query.limit, query),
  edit: ({ params, body, asker }) => editPlan(params.id, body.base, body.edit, asker),
  undo: ({ params, query, asker }) => stepBack(params.id, 'undo', asker, query.base),
  redo: ({ params, query, asker }) => stepBack(params.id, 'redo', asker, query.base),
  goBack: ({ params, body, asker }) => goBack(params.id, body.base, body.revision, asker),
  fit: ({ params, query }) => fitPlan(params.id, query.model),
  check: async ({ params, query }) => {
    const { plan } = await getPlan(params.id);
    return checkPlan(params.id, query.model, await neighboursOf(areaOf(plan)), query);
  },
  neighbours: async ({ params }) => {
    const { plan } = await getPlan(params.id);
    return { neighbours: [...(await neighboursOf(areaOf(plan)))] };
  },
  export: ({ params, query }) => exportPlan(params.id, query.as),
  exportSome: ({ params, body }) => exportPlan(params.id, body.as, body.ids),
  paper: ({ params, query }) => paperPdf(params.id, query.as, ownOrigin()),
  planFormat: () => planJsonSchema(),
  directories: async () => ({ directories: await listDirectories() }),
  keepOwn: ({ body, asker, gone }) => keepOwn(body, asker, gone),
  dropOwn: ({ params, asker }) => dropOwn(params.id, asker),
  setAccount: async ({ params, body: { name, password }, gone }) => {
    await setAccount(params.id, name === null || password === null ? null : { name, password }, gone);
    return { directories: await listDirectories() };
  },
  stations: async ({ query: { lat, lon, radius, route, sources, ask, most, plan, model }, gone }) =>
    searchStations(
      {
        where: route
          ? { kind: 'along', places: parseRoute(route)!, km: radius }
          : { kind: 'around', point: { lat: lat!, lon: lon! }, km: radius },
        sources:
          sources === undefined
            ? [...SOURCES, ...(await listOwn())].map(({ id }) => id)
            : sources.split(',').filter(Boolean),
        ...{ ask, most, planId: plan, modelId: model },
      },
      gone,
    ),
  sets: async ({ query }) => ({
    sets: (await listSets(query.region)).map((set) => ({ ...set, channels: [...set.channels] })),
  }),
  keepSet: ({ body, asker }) => keepSet(body.name, body.channels, asker),
  dropSet: ({ params, asker }) => dropSet(params.id, asker),
  exportStations: ({ body }) => exportStations(body.stations, body.as, body.name),
  places: ({ query, gone }) => findPlaces(query.q, gone),
  entries: ({ query: { radius, plan, model, ...at }, gone }) =>
    searchRegister({ ...at, radiusKm: radius, planId: plan, modelId: model }, gone),
  radios: () => lookAtBench(),
  choosePort: async ({ body }) => {
    await chooseModel(body.port, body.modelId);
    return {};
  },
  openCard: ({ body, asker, gone }) => openCard(body.base64, asker, gone),
  card: ({ params, query }) => cardZip(params.id, query.plan),
  copies: async ({ params }) => ({ copies: await listCopies(params.id) }),
  writePreview: ({ params, query }) => previewWrite(params.id, query.plan),
  byHand: ({ params, query }) => doneByHand(params.id, query.plan),
  copyImage: async ({ params }) => {
    const copy = await getCopy(params.id);
    return { file: copy.image, type: 'application/octet-stream', name: `${copy.called}-${copy.id}.bin` };
  },
  unitValues: ({ params }) => unitValuesOf(params.id),
  setUnitValues: ({ params, body }) => setUnitValues(params.id, body.own),
  copyNote: ({ params, body }) => noteCopy(params.id, body.note.trim()),
  copyCompare: ({ params, query }) => compareCopy(params.id, query),
  copyPlan: ({ params, asker }) => planFromCopy(params.id, asker),
  roll: async () => ({ roll: await rollNow(), load: lastLoad() }),
  loadRoll: () => startLoad(),
  loadFile: async ({ body }) => startLoad(await packedFile(body.name, body.gzip)),
  stopRoll: async () => ({ load: await stopLoad() }),
  people: ({ query }) => listPeople(query.from, query.count),
  findPeople: ({ query }) => searchPeople(query.q, query.most),
  board: () => boardNow(),
  loadBoard: () => startBoard(),
  stopBoard: async () => ({ load: await stopBoard() }),
  rankedPeople: ({ query }) =>
    rankPeople({ ...query, groups: query.groups === '' ? [] : query.groups.split(',').map(Number) }),
  markedPeople: async () => ({ people: await markedPeople() }),
  markPerson: ({ params, body }) => markPerson(params.id, { ...body, note: body.note.trim() }),
  keeping: () => lookAtKeeping(),
  makeBackup: ({ body: { passphrase, encrypt }, asker }) =>
    makeBackup('request', passphrase === undefined ? undefined : { passphrase, encrypt }, asker),
  backup: async ({ params: { name } }) => ({
    file: await readBackup(name),
    type: 'application/octet-stream',
    name,
  }),
  jobs: async () => ({ jobs: await listJobs() }),
  startJob: ({ body, asker }) => startJob(body, asker),
  lives: () => ({ lives: listLives() }),
  liveEvents: ({ gone }) => ({ stream: watchLives(gone) }),
  startLive: ({ body }) => startLive(body),
  endLive: ({ params }) => endLive(params.id),
  decideLive: ({ params, body }) => decideLive(params.id, body),
  startSeveral: ({ body, asker }) => startSeveral(body, asker),
  several: ({ params }) => getSeveral(params.id),
  job: ({ params }) => getJob(params.id),
  stopJob: ({ params }) => stopJob(params.id),
};
