import { z } from 'zod';
import { bytesOf } from '../core/image';
import type { Ident } from '../core/link';
import { modelsByIdent, type Model } from '../core/models';
import type { RadioId } from '../core/plan';
import { text } from '../core/text.schema';
import { CARD_NAME, isLoaded, stampOf } from './card-reader';
import { benchHeaders, benchUrl } from './bench-address';
import { fetchJson, giveUpAfter } from './fetch-json';
import { Problem } from './problem';
import { calledOf, modelsWithSerial, radioOf, seeRadio } from './radios';
import { runLink, type Place } from './transport';

const portsSchema = z.object({
  ports: z
    .array(
      z.union([
        z.object({ name: text(60), tcp: z.int().min(1).max(65535) }),
        // The name of a folder in the reader, and no way to anywhere else.
        z.object({ name: text(60), card: z.string().regex(CARD_NAME) }),
      ]),
    )
    .max(64),
});

/** A port as the host sees it. */
export interface Port {
  name: string;
  place: Place;
  /** Is another one when something else may be there than before, of a card that is put in again; a line's number does that. */
  stamp: string;
}

/** A radio that answered on a port, by our id of it. */
export interface Present {
  radioId: RadioId;
  ident: Ident;
  model: Model;
  /** Whether the radio has loaded the card that Veridon wrote; null where it is no such card. */
  loaded: boolean | null;
}

/** Who is on a port, or why nobody is known to be. */
type Answer = Present | { reason: string; choices?: Model[] };

/** The ports that there are now. A bench that does not answer has none; `reachable` says so. */
export async function listPorts(): Promise<{ ports: Port[]; reachable: boolean }> {
  try {
    const answer = await fetchJson(new URL('/bench/ports', benchUrl()), {
      most: 100_000,
      signal: giveUpAfter(3000),
      headers: benchHeaders(),
    });
    const ports = await Promise.all(
      portsSchema
        .parse(answer)
        .ports.map(async ({ name, ...at }): Promise<Port> =>
          'tcp' in at ? { name, place: at.tcp, stamp: '' } : { name, place: at, stamp: await stampOf(at) },
        ),
    );
    return { ports, reachable: true };
  } catch {
    return { ports: [], reachable: false };
  }
}

const lyingSchema = z.object({
  radios: z
    .array(
      z.object({
        label: text(80),
        serial: text(16),
        model: text(60),
        plugged: z.boolean(),
        cabled: z.boolean(),
      }),
    )
    .max(200),
});

/** What lies on the simulated bench with its cable out; nothing where it does not say. */
export async function lyingUnplugged() {
  try {
    const answer = await fetchJson(new URL('/bench/radios', benchUrl()), {
      most: 1_000_000,
      signal: giveUpAfter(3000),
      headers: benchHeaders(),
    });
    return lyingSchema.parse(answer).radios.flatMap(({ plugged, ...radio }) => (plugged ? [] : [radio]));
  } catch {
    return [];
  }
}

interface Ports {
  answers: Map<string, { answer: Answer; stamp: string }>;
  busy: Set<string>;
  /** Ports that are being asked just now: whoever else wants to know waits for the same answer. */
  asking: Map<string, Promise<Answer>>;
  /** What a person said is on a port where several models answer alike, until that is gone. */
  chosen: Map<string, string>;
}
const held = globalThis as { veridonPorts?: Ports };
const state = (held.veridonPorts ??= {
  answers: new Map(),
  busy: new Set(),
  asking: new Map(),
  chosen: new Map(),
});
const keyOf = ({ name, place }: Port) => `${name} ${typeof place === 'number' ? place : place.card}`;

/** Keeps a port to one job; false where it is taken. */
function takePort(port: Port): boolean {
  if (state.busy.has(keyOf(port))) return false;
  state.busy.add(keyOf(port));
  return true;
}

/** Gives a port back; who is on it is asked anew. */
export function freePort(port: Port): void {
  state.busy.delete(keyOf(port));
  state.answers.delete(keyOf(port));
}

/** Of models that answer alike the one that it is: the only one, the one that a person said, or the one by which its serial is known. */
async function oneOf(alike: readonly Model[], port: Port, { serial }: Ident): Promise<Model | undefined> {
  if (alike.length < 2) return alike[0];
  const said = alike.find(({ id }) => id === state.chosen.get(keyOf(port)));
  if (said || serial === null) return said;
  const known = await modelsWithSerial(serial);
  const before = alike.filter(({ id }) => known.includes(id));
  return before.length === 1 ? before[0] : undefined;
}

/** Says which of the models that answer alike is on a port. */
export async function chooseModel(name: string, modelId: string): Promise<void> {
  const port = (await livePorts()).find((one) => one.name === name);
  const answer = port && (await answerOf(port));
  const choices = answer && 'choices' in answer ? (answer.choices ?? []) : [];
  if (!port || !choices.some(({ id }) => id === modelId))
    throw new Problem(
      409,
      'radio-away',
      'It is not there to be chosen',
      `On ${name} nothing waits to be told from others, or it is none of these. Look at the ports again.`,
    );
  state.chosen.set(keyOf(port), modelId);
  state.answers.delete(keyOf(port));
  await answerOf(port);
}

/** Asks who is on a port, once: whoever answers says its model. */
async function identify(port: Port): Promise<Answer> {
  const outcome = await runLink(port.place, null, { kind: 'identify' });
  if (outcome.kind === 'failed') return { reason: outcome.reason };
  const { ident } = outcome;
  // One that calls itself as a model does, and holds another length, is none that Veridon may write.
  const alike = modelsByIdent(ident.model).filter((model) => bytesOf(model) === ident.imageBytes);
  const model = await oneOf(alike, port, ident);
  if (!model)
    return alike.length === 0
      ? { reason: `It calls itself ${ident.model.trim()}; Veridon knows no such radio.` }
      : { reason: `${alike.length} models answer as it does, and their memories differ.`, choices: alike };
  const loaded = typeof port.place === 'object' ? await isLoaded(port.place) : null;
  return { radioId: await seeRadio(ident, model), ident, model, loaded };
}

/** Keeps a port to one job as `takePort` does; who is just being asked there has answered first. */
export async function holdPort(port: Port): Promise<boolean> {
  await state.asking.get(keyOf(port));
  return takePort(port);
}

async function answerOf(port: Port): Promise<Answer | undefined> {
  const key = keyOf(port);
  const before = state.answers.get(key);
  const known = before?.stamp === port.stamp ? before.answer : undefined;
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
  state.answers.set(key, { answer, stamp: port.stamp });
  return answer;
}

/** How long a radio may take to come back after it has dropped its line by itself, ms. */
const RETURN_MS = 10_000;
const LOOK_AGAIN_MS = 100;

/** Waits until a radio that dropped its line is back, on whichever port, and keeps that one to the job instead; where it leads, or null where it does not come. */
export async function followPort(port: Port, radioId: RadioId): Promise<Place | null> {
  const until = Date.now() + RETURN_MS;
  while (Date.now() < until) {
    for (const found of await livePorts()) {
      const same = keyOf(found) === keyOf(port);
      // Another's port is asked as everybody asks it, and only where nobody is known there: its own job must not find it taken.
      const answer = same ? await identify(found) : await answerOf(found);
      if (!answer || !('ident' in answer) || answer.radioId !== radioId) continue;
      if (same) return port.place;
      if (!(await holdPort(found))) continue;
      freePort(port);
      Object.assign(port, found);
      return port.place;
    }
    await new Promise((done) => setTimeout(done, LOOK_AGAIN_MS));
  }
  return null;
}

/** The port on which a radio answers now, held for whoever asks; null where it is away, or somebody else has it. */
export async function portOf(radioId: RadioId): Promise<Port | null> {
  for (const port of await livePorts()) {
    const answer = await answerOf(port);
    if (answer && 'ident' in answer && answer.radioId === radioId)
      return (await holdPort(port)) ? port : null;
  }
  return null;
}

/** The ports that there are; of those that are gone nobody is known any more. */
async function livePorts(): Promise<Port[]> {
  const { ports } = await listPorts();
  forgetAllBut(ports);
  return ports;
}

function forgetAllBut(ports: readonly Port[]): void {
  const live = new Set(ports.map(keyOf));
  for (const map of [state.answers, state.chosen])
    for (const key of map.keys()) if (!live.has(key)) map.delete(key);
}

/** Every port with who is on it, and whether a job has it. */
export async function lookAtPorts() {
  const { ports, reachable } = await listPorts();
  forgetAllBut(ports);
  const answers = await Promise.all(ports.map((port) => answerOf(port)));
  return {
    reachable,
    ports: ports.map((port, at) => {
      const answer = answers[at];
      return {
        name: port.name,
        busy: state.busy.has(keyOf(port)),
        radioId: answer && 'ident' in answer ? answer.radioId : null,
        reason: answer && 'reason' in answer ? answer.reason : null,
        choices:
          answer && 'reason' in answer
            ? (answer.choices ?? []).map(({ id, maker, name }) => ({ id, name: `${maker} ${name}` }))
            : [],
        loaded: answer && 'ident' in answer ? answer.loaded : null,
      };
    }),
  };
}

/** The port on which a radio answers now, or the problem that says it is not there. */
export async function portWith(radioId: RadioId): Promise<Present & { port: Port; called: string }> {
  const { ports } = await listPorts();
  const others: string[] = [];
  for (const port of ports) {
    const answer = await answerOf(port);
    if (answer && 'reason' in answer) others.push(` On ${port.name}: ${answer.reason}`);
    if (answer && 'ident' in answer && answer.radioId === radioId)
      return { port, ...answer, called: calledOf({ serial: answer.ident.serial, modelId: answer.model.id }) };
  }
  const called = calledOf(await radioOf(radioId));
  throw new Problem(
    409,
    'radio-away',
    'The radio is not there',
    `No port has ${called} on it. Plug it in and switch it on.${others.slice(0, 3).join('')}`,
  );
}
