import { notInArray, or, isNull } from 'drizzle-orm';
import type { Decision, JobResult, Live, LiveRequest } from '../core/bench';
import { contentToWrite } from '../core/check';
import { compareImages, modelOfImage } from '../core/image';
import { modelById, type Model } from '../core/models';
import type { Plan, RadioId } from '../core/plan';
import { jobs, lives, openDatabase } from '../db';
import { getCopy, sealCopy } from './copies';
import { reading, writing } from './database';
import { eventStream } from './event-stream';
import { instanceId, living } from './instance';
import { LiveSession } from './live-session';
import { wantWritable } from './may-write';
import { planAt } from './plan-log';
import { getPlan } from './plans';
import { holdPort, portWith } from './ports';
import { notFound, Problem } from './problem';
import { calledOf, radioOf } from './radios';

/** Plans and radios that follow each other over a live link: begun by somebody who saw what it will change, ended by somebody. */

const shared = globalThis as {
  veridonLives?: Map<RadioId, LiveSession>;
  veridonLiveEars?: Set<(lives: Live[]) => void>;
  veridonLiveEnds?: Map<RadioId, string>;
};
const sessions = (shared.veridonLives ??= new Map<RadioId, LiveSession>());
const ears = (shared.veridonLiveEars ??= new Set<(lives: Live[]) => void>());

export const listLives = (): Live[] => [...sessions.values()].map(({ live }) => ({ ...live }));

const tellAll = () => {
  const now = listLives();
  for (const hear of ears) hear(now);
};

/** Most who look at once: each holds a connection. */
const MOST = 50;

/** The same each time that something of it changes. */
export function watchLives(gone: AbortSignal): AsyncIterable<string> {
  if (ears.size >= MOST)
    throw new Problem(
      429,
      'too-many',
      'Too many look on',
      `${MOST} pages look at the Bench already. Close some of them.`,
    );
  return eventStream(
    (hear) => {
      const ear = (now: Live[]) => hear({ lives: now });
      ears.add(ear);
      return () => void ears.delete(ear);
    },
    { lives: listLives() },
    gone,
  );
}

function sessionOf(radioId: RadioId): LiveSession {
  const session = sessions.get(radioId);
  if (!session) throw notFound('plan that this radio follows');
  return session;
}

/** Writes down in the log of transfers what a radio holds by a live link, and seals it. */
async function record(
  { live, image }: LiveSession,
  model: Model,
  plan: Plan,
  message: string,
  more: JobResult = {},
): Promise<void> {
  const { channels, heldBack } = contentToWrite(plan, modelOfImage(image, model, live.called));
  const writtenCopyId = await sealCopy(live.radioId, model, image, 'after write');
  const database = await writing();
  await database.insert(jobs).values({
    id: `jb_${Date.now().toString(36)}${Math.floor(Math.random() * 1e6).toString(36)}`,
    ...{ kind: 'write', state: 'done', radioId: live.radioId, modelId: model.id, planId: live.planId },
    ...{ planRevision: live.revision, instance: instanceId, message, endedAt: new Date() },
    result: { ...more, writtenCopyId, channels: channels.length, heldBack: heldBack.length },
  });
}

/** Puts a plan into a radio, over its live link, and lets them follow each other from then on. */
export async function startLive(request: LiveRequest): Promise<Live> {
  const { radioId, planId, planRevision } = request;
  await writing();
  if ((sessions.get(radioId)?.live.state ?? 'ended') !== 'ended')
    throw new Problem(
      409,
      'port-busy',
      'The radio is busy',
      'This radio follows a plan already. End that first.',
    );
  const found = await portWith(radioId);
  const { model, called, ident } = found;
  if (model.link?.kind !== 'live')
    throw new Problem(
      422,
      'no-live-link',
      'It has no live link',
      `A ${model.name} is written and read as a whole; it cannot follow a plan. Write the plan to it.`,
    );
  const { plan, revision } = await getPlan(planId);
  if (revision !== planRevision)
    throw new Problem(
      409,
      'plan-changed',
      'The plan has changed',
      `You agreed to revision ${planRevision}; the plan is at ${revision}. Look at what will change and begin again.`,
    );
  await wantWritable(found);
  if (!(await holdPort(found.port)))
    throw new Problem(409, 'port-busy', 'The radio is busy', `A job is already under way with ${called}.`);
  const session = new LiveSession(
    { id: radioId, serial: ident.serial, called },
    model,
    { plan, revision, image: new Uint8Array() },
    tellAll,
  );
  sessions.set(radioId, session);
  const agreement = session.agreement();
  let copyId: string | undefined;
  let refused: Problem | null = null;
  session.connect(found.port, async (image) => {
    copyId = await sealCopy(radioId, model, image, 'before write');
    refused =
      request.seenCopyId === undefined ? null : await changedSince(request.seenCopyId, image, model, called);
    if (refused) throw refused;
    await session.beginWith({ plan, image });
  });
  try {
    await agreement;
  } catch (error) {
    sessions.delete(radioId);
    tellAll();
    throw (
      refused ??
      new Problem(
        409,
        'radio-away',
        'It did not begin',
        `${(error as Error).message} Nothing follows anything.`,
      )
    );
  }
  try {
    // Before it is answered: from then on a kill loses nothing of it.
    await session.keep();
  } catch (error) {
    sessions.delete(radioId);
    await session.end();
    throw error;
  }
  await record(session, model, plan, `${called} follows “${plan.name}” from now on.`, {
    ...(copyId !== undefined && { copyId }),
  });
  return { ...session.live };
}

/** Why a radio that holds `image` is not begun with, where that is not what the person looked at. */
async function changedSince(
  seen: string,
  image: Uint8Array,
  model: Model,
  called: string,
): Promise<Problem | null> {
  const { different } = compareImages((await getCopy(seen)).image, image, model);
  if (different.length === 0) return null;
  return new Problem(
    409,
    'radio-changed',
    'The radio has changed',
    `${called} holds something else than you looked at: ${different.length} bytes of it are other now. It is sealed as it is. Look at what was changed on its keys, and begin again. Nothing was written.`,
  );
}

/** Ends that a radio and its plan follow each other; both keep what they have. */
export async function endLive(radioId: RadioId): Promise<Live> {
  const session = sessionOf(radioId);
  sessions.delete(radioId);
  if (session.live.state === 'ended') {
    tellAll();
    return { ...session.live };
  }
  await session.end();
  const model = modelById(session.live.modelId)!;
  const database = await reading();
  const plan = await planAt(database, session.planId, session.live.revision);
  await record(session, model, plan, `${session.live.called} does not follow “${plan.name}” any more.`);
  return { ...session.live };
}

/** Takes the radio's way or the plan's at a place where each went its own. */
export async function decideLive(radioId: RadioId, { take, ...at }: Decision): Promise<Live> {
  const session = sessionOf(radioId);
  if (!(await session.decide(at, take)))
    throw new Problem(409, 'not-live', 'There is nothing to decide', 'Radio and plan agree on this place.');
  return { ...session.live };
}

/** Goes on with what was followed when Veridon was stopped: each radio is waited for, and finds together with its plan by what both had. */
export async function resumeLives(): Promise<void> {
  const database = await reading();
  const alive = (await openDatabase()).kind === 'pglite' ? [instanceId] : await living(database);
  const rows = await database
    .select()
    .from(lives)
    .where(or(isNull(lives.instance), notInArray(lives.instance, alive)));
  for (const row of rows) {
    if (sessions.has(row.radioId)) continue;
    const radio = await radioOf(row.radioId);
    const model = modelById(radio.modelId);
    if (!model) continue;
    const plan = await planAt(database, row.planId, row.planRevision);
    const session = new LiveSession(
      { id: row.radioId, serial: radio.serial, called: calledOf(radio) },
      model,
      {
        ...{ plan, values: radio.own, revision: row.planRevision },
        ...{ image: new Uint8Array(row.image), apart: row.apart },
      },
      tellAll,
    );
    sessions.set(row.radioId, session);
    void session.lookFor();
  }
}
