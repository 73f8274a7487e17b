import { createHash } from 'node:crypto';
import { and, desc, eq, sql } from 'drizzle-orm';
import { z } from 'zod';
import type { Bench, Copy, CopyReason, RadioCondition, WritePreview } from '../core/bench';
import { compareContents } from '../core/compare';
import { contentToWrite } from '../core/check';
import { bytesOf, decodeImage } from '../core/image';
import type { Ident } from '../core/link';
import { modelByIdent, modelById, type Model } from '../core/models';
import { channelDefaults, makeId, NAME_LIMIT, type Channel } from '../core/plan';
import { USUAL_REGION } from '../core/radio';
import { cutText, text } from '../core/text';
import { copies, radios } from '../db';
import { reading, writing } from './database';
import { benchHeaders, benchUrl } from './bench';
import { fetchJson, giveUpAfter } from './fetch-json';
import { NOBODY } from './once';
import { createPlan, getPlan, type KeptPlan } from './plans';
import { notFound, Problem } from './problem';
import { runLink } from './transport';

const portsSchema = z.object({
  ports: z.array(z.object({ name: text(60), tcp: z.int().min(1).max(65535) })).max(64),
});

/** A port as the host sees it. */
export interface Port {
  name: string;
  tcp: number;
}

/** The ports that there are now. A bench that does not answer has none; `reachable` says so. */
export async function listPorts(): Promise<{ ports: Port[]; reachable: boolean }> {
  try {
    const answer = await fetchJson(new URL('/bench/ports', benchUrl()), {
      most: 100_000,
      signal: giveUpAfter(3000),
      headers: benchHeaders(),
    });
    return { ports: portsSchema.parse(answer).ports, reachable: true };
  } catch {
    return { ports: [], reachable: false };
  }
}

/** A radio that answered on a port, or why none did. */
type Answer = { ident: Ident; model: Model } | { reason: string };

interface Ports {
  answers: Map<string, Answer>;
  busy: Set<string>;
  /** Ports that are being asked just now: whoever else wants to know waits for the same answer. */
  asking: Map<string, Promise<Answer>>;
}
const kept = globalThis as { veridonPorts?: Ports };
const state = (kept.veridonPorts ??= { answers: new Map(), busy: new Set(), asking: new Map() });
const keyOf = (port: Port) => `${port.name} ${port.tcp}`;

/** Keeps a port to one job; false where it is taken. */
export function takePort(port: Port): boolean {
  if (state.busy.has(keyOf(port))) return false;
  state.busy.add(keyOf(port));
  return true;
}

/** Gives a port back; who is on it is asked anew. */
export function freePort(port: Port): void {
  state.busy.delete(keyOf(port));
  state.answers.delete(keyOf(port));
}

/** Asks who is on a port, once: whoever answers says its model. */
async function identify(port: Port): Promise<Answer> {
  const outcome = await runLink(port.tcp, null, { kind: 'identify' });
  if (outcome.kind === 'failed') return { reason: outcome.reason };
  const { ident } = outcome;
  const model = modelByIdent(ident.model);
  // One that calls itself as a model does, and holds another length, is none that Veridon may write.
  if (!model || bytesOf(model) !== ident.imageBytes)
    return { reason: `It calls itself ${ident.model.trim()}; Veridon knows no such radio.` };
  return { ident, model };
}

async function answerOf(port: Port): Promise<Answer | undefined> {
  const key = keyOf(port);
  const known = state.answers.get(key);
  if (known && 'ident' in known) return known;
  const asked = state.asking.get(key);
  if (asked) return asked;
  if (!takePort(port)) return known;
  const asking = identify(port).finally(() => {
    freePort(port);
    state.asking.delete(key);
  });
  state.asking.set(key, asking);
  const answer = await asking;
  state.answers.set(key, answer);
  if ('ident' in answer) await seeRadio(answer.ident, answer.model);
  return answer;
}

/** Notes that a radio was on the bench, and in which state it is. */
export async function seeRadio(ident: Ident, model: Model): Promise<void> {
  const database = await writing();
  const seen = {
    firmware: ident.firmware,
    state: ident.halfWritten ? ('half written' as const) : ('whole' as const),
    lastSeen: new Date(),
  };
  await database
    .insert(radios)
    .values({ serial: ident.serial, modelId: model.id, region: ident.region, ...seen })
    .onConflictDoUpdate({ target: radios.serial, set: seen });
}

export async function setRadioState(serial: string, condition: RadioCondition): Promise<void> {
  const database = await writing();
  await database.update(radios).set({ state: condition }).where(eq(radios.serial, serial));
}

/** The bench: ports with who is on them, and every radio that has been here. */
export async function lookAtBench(): Promise<Bench> {
  const { ports, reachable } = await listPorts();
  const live = new Set(ports.map(keyOf));
  for (const key of state.answers.keys()) if (!live.has(key)) state.answers.delete(key);
  const answered = await Promise.all(ports.map(async (port) => ({ port, answer: await answerOf(port) })));
  const database = await reading();
  const rows = await database.select().from(radios).orderBy(desc(radios.lastSeen));
  const sealed = await listCopies();
  const portOf = (serial: string) =>
    answered.find(({ answer }) => answer && 'ident' in answer && answer.ident.serial === serial)?.port.name ??
    null;
  return {
    reachable,
    ports: answered.map(({ port, answer }) => ({
      name: port.name,
      busy: state.busy.has(keyOf(port)),
      serial: answer && 'ident' in answer ? answer.ident.serial : null,
      reason: answer && 'reason' in answer ? answer.reason : null,
    })),
    radios: rows.map((row) => {
      const model = modelById(row.modelId);
      return {
        serial: row.serial,
        modelId: row.modelId,
        model: model ? `${model.maker} ${model.name}` : row.modelId,
        firmware: row.firmware,
        state: row.state,
        lastSeen: row.lastSeen.toISOString(),
        port: portOf(row.serial),
        copies: sealed.filter((copy) => copy.serial === row.serial),
      };
    }),
  };
}

/** The port on which a serial answers now, or the problem that says it is not there. */
export async function portWith(serial: string): Promise<{ port: Port; model: Model; ident: Ident }> {
  const { ports } = await listPorts();
  for (const port of ports) {
    const answer = await answerOf(port);
    if (answer && 'ident' in answer && answer.ident.serial === serial) return { port, ...answer };
  }
  throw new Problem(
    409,
    'radio-away',
    'The radio is not there',
    `No port has ${serial} on it. Plug it in and switch it on.`,
  );
}

const copyFields = {
  id: copies.id,
  serial: copies.serial,
  modelId: copies.modelId,
  reason: copies.reason,
  sha256: copies.sha256,
  takenAt: copies.takenAt,
  bytes: sql<number>`length(${copies.image})`,
};

export async function listCopies(serial?: string): Promise<Copy[]> {
  const database = await reading();
  const rows = await database
    .select(copyFields)
    .from(copies)
    .where(serial === undefined ? undefined : eq(copies.serial, serial))
    .orderBy(desc(copies.takenAt));
  return rows.map((row) => ({ ...row, takenAt: row.takenAt.toISOString() }));
}

/** Seals a read-out. One that is the same, byte for byte, as the newest copy of that radio is not kept twice. */
export async function sealCopy(
  serial: string,
  model: Model,
  image: Uint8Array,
  reason: Exclude<CopyReason, 'first read'>,
): Promise<string> {
  const database = await writing();
  const sha256 = createHash('sha256').update(image).digest('hex');
  const [newest] = await database
    .select(copyFields)
    .from(copies)
    .where(eq(copies.serial, serial))
    .orderBy(desc(copies.takenAt))
    .limit(1);
  if (newest?.sha256 === sha256) return newest.id;
  const id = `cp_${sha256.slice(0, 8)}${Date.now().toString(36)}`;
  await database
    .insert(copies)
    .values({ id, serial, modelId: model.id, reason: newest ? reason : 'first read', sha256, image });
  return id;
}

/** A sealed copy with its bytes; its digest is held against them. */
export async function getCopy(id: string) {
  const database = await reading();
  const [row] = await database.select().from(copies).where(eq(copies.id, id));
  if (!row) throw notFound(`sealed copy ${id}`);
  const image = new Uint8Array(row.image);
  if (createHash('sha256').update(image).digest('hex') !== row.sha256)
    throw new Error(`The sealed copy ${id} does not agree with its digest`);
  return { ...row, image };
}

/** The newest sealed copy of a radio that is whole, or undefined. */
export async function newestCopy(serial: string) {
  const database = await reading();
  const [row] = await database
    .select({ id: copies.id })
    .from(copies)
    .where(and(eq(copies.serial, serial)))
    .orderBy(desc(copies.takenAt))
    .limit(1);
  return row && getCopy(row.id);
}

/** The newest sealed copy of a radio that can be read as its content: what it is rebuilt from after a write that broke off. */
export async function newestSound(serial: string, model: Model) {
  for (const { id } of await listCopies(serial)) {
    const copy = await getCopy(id);
    if (decodeImage(copy.image, model).ok) return copy;
  }
  return undefined;
}

/** What a write of a plan would change in a radio, as far as its newest copy tells. */
export async function previewWrite(serial: string, planId: string): Promise<WritePreview> {
  const database = await reading();
  const [radio] = await database.select().from(radios).where(eq(radios.serial, serial));
  if (!radio) throw notFound(`radio ${serial}`);
  const model = modelById(radio.modelId)!;
  const { plan, revision } = await getPlan(planId);
  const { channels, heldBack } = contentToWrite(plan, model);
  const copy = await newestCopy(serial);
  const held = copy && decodeImage(copy.image, model);
  const byId = new Map(plan.channels.map((channel) => [channel.id, channel]));
  return {
    serial,
    planName: plan.name,
    planRevision: revision,
    change: held?.ok ? compareContents(held.value.channels, channels) : null,
    channels: channels.length,
    heldBack: heldBack.map(({ id, reasons }) => ({
      id,
      reasons,
      name: byId.get(id)!.name,
      slot: byId.get(id)!.slot,
    })),
  };
}

/** A new plan with the channels of a sealed copy. */
export async function planFromCopy(id: string, asker = NOBODY): Promise<KeptPlan> {
  const copy = await getCopy(id);
  const model = modelById(copy.modelId)!;
  const decoded = decodeImage(copy.image, model);
  if (!decoded.ok)
    throw new Problem(422, 'copy-unreadable', 'This copy cannot be read as a plan', decoded.reason);
  const channels = decoded.value.channels.map((held): Channel => ({
    ...channelDefaults(held.rx),
    id: makeId('ch', crypto.getRandomValues(new Uint8Array(12))),
    list: 0,
    slot: held.slot,
    name: cutText(held.name, NAME_LIMIT),
    tx: held.tx,
    access: { kind: 'analogue', send: held.send, expect: held.expect },
    mode: held.mode,
    power: held.power,
    scan: held.scan,
  }));
  const owner = { callSign: '', region: USUAL_REGION, grade: 'full' as const, strict: false };
  return createPlan({ name: `From ${copy.serial}`, modelId: model.id, owner }, { channels }, asker, {
    copy: id,
  });
}
