import { eq } from 'drizzle-orm';
import type { Live } from '../core/bench';
import { decodeImage, modelOfImage, ownFault, type UnitValues } from '../core/image';
import type { LiveEvent } from '../core/link';
import type { Model } from '../core/models';
import { agreedAfter, fromRadio, stillApart, toRadio, type Agreed, type ByHand } from '../core/organise';
import { makeId, type PlanId, type RadioId } from '../core/plan';
import { lives } from '../db';
import { problemOf, reading, writing } from './database';
import { instanceId } from './instance';
import { openLive, type LiveLine } from './live-line';
import { wantWritable } from './may-write';
import { getPlan } from './plans';
import { freePort, portOf, type Port } from './ports';
import { Problem } from './problem';
import { radioOf } from './radios';
import { editPlan } from './revisions';
import { onUnitValues, saveUnitValues } from './unit-values';
import { announceLive, onRevision } from './watch';

/** What is kept of what was said, newest first. */
const MOST_SAID = 20;
/** How long until a radio whose line is gone is looked for again, ms. */
const LOOK_MS = 250;
/** What both agreed on is written down when nothing new has come for so long, ms: a crash before finds it out again by comparing. */
const KEEP_MS = 250;

/** What sessions tell to whoever looks at the Bench. */
export type Tell = () => void;

/** Ends a session by itself, with the reason. */
class Ended extends Error {}

/** A radio and its plan that follow each other, over one line after the other. */
export class LiveSession {
  readonly live: Live;
  private line: LiveLine | null = null;
  private port: Port | null = null;
  private agreed: Agreed;
  private apart: ByHand[];
  /** The radio's image as far as it has been taken into account. */
  private seen: Uint8Array;
  /** What is on its way into the radio, and since when. */
  private sent: (Agreed & { revision: number; since: number }) | null = null;
  /** What was on its way when the line went. */
  private unsure: Agreed | null = null;
  private turns: Promise<unknown> = Promise.resolve();
  private over = false;
  private keeping: NodeJS.Timeout | undefined;
  private readonly leave: () => void;
  /** Hears of the first agreement, or why there is none. */
  private waiting: { done: () => void; failed: (error: unknown) => void } | null = null;

  constructor(
    { id: radioId, serial, called }: { id: RadioId; serial: string | null; called: string },
    private readonly base: Model,
    { plan, values = {}, revision, image, apart = [] }: Agreed & { revision: number; apart?: ByHand[] },
    private readonly tellAll: Tell,
  ) {
    this.serial = serial;
    this.agreed = { plan, values, image };
    this.apart = apart;
    this.seen = image;
    this.live = {
      ...{ radioId, called, modelId: base.id, planId: plan.id, planName: plan.name, revision },
      ...{
        state: 'beginning',
        reason: null,
        slot: null,
        channel: null,
        settings: {},
        tookMs: null,
        apart: [],
        said: [],
      },
    };
    const leavePlan = onRevision(plan.id, ({ revision: newest }) => {
      if (newest > this.live.revision) this.inTurn(() => this.push(performance.now()));
    });
    const leaveValues = onUnitValues(radioId, () => this.inTurn(() => this.push(performance.now())));
    this.leave = () => {
      leavePlan();
      leaveValues();
    };
  }
  private readonly serial: string | null;

  /** Its model, as the unit is: what it holds says so. */
  private get model(): Model {
    return modelOfImage(this.seen, this.base, this.live.called);
  }

  get planId(): PlanId {
    return this.live.planId;
  }
  /** What the radio holds, as far as it is known. */
  get image(): Uint8Array {
    return this.seen;
  }

  /** One step after the other; what goes wrong ends the session with its reason. */
  private inTurn(step: () => Promise<void>): void {
    this.turns = this.turns.then(async () => {
      if (this.over) return;
      try {
        await step();
      } catch (error) {
        // A database server that is away comes back; what was missed meanwhile is caught up with a line of its own.
        const problem = problemOf(error);
        if (problem?.status === 503 && !this.waiting) return this.away(problem.detail, false);
        const known = problem ? problem.detail : error instanceof Ended ? error.message : null;
        if (known === null) console.error(error);
        await this.end(known ?? 'Veridon made a mistake here.');
      }
    });
  }

  /** Takes the line of a port that is held; `begun` is what comes first: the radio as it was found. */
  connect(port: Port, begun: (image: Uint8Array) => Promise<void>): void {
    this.port = port;
    this.line = openLive(port.place as number, this.model, this.serial, (event) => this.hear(event, begun));
  }

  private hear(event: LiveEvent, begun: (image: Uint8Array) => Promise<void>): void {
    if (this.over) return;
    switch (event.kind) {
      case 'live':
        this.turned(event.slot);
        this.wonder();
        return this.inTurn(async () => {
          const { called, radioId } = this.live;
          // It may have been given newer firmware while its line was gone.
          await wantWritable({ ident: event.ident, model: this.model, radioId, called, loaded: null });
          await begun(event.image);
        });
      case 'turned':
        this.turned(event.slot);
        return this.tell();
      case 'changed':
      case 'overtaken':
        return this.inTurn(() => this.take(event.image));
      case 'kept':
        return this.inTurn(() => this.kept(event.image));
      case 'failed':
        return this.inTurn(() => this.away(event.reason, event.refused ?? false));
    }
  }

  private turned(slot: number | null): void {
    this.live.slot = slot;
  }

  /** What the radio has where it stands. */
  private channelThere(): Live['channel'] {
    const { slot } = this.live;
    if (this.read.of !== this.seen) {
      const held = decodeImage(this.seen, this.model);
      this.read = held.ok
        ? { of: this.seen, channels: held.value.channels, settings: held.value.settings }
        : { of: this.seen, channels: [], settings: {} };
    }
    return this.read.channels.find((one) => one.list === 0 && one.slot === slot) ?? null;
  }
  private read: {
    of: Uint8Array | null;
    channels: NonNullable<Live['channel']>[];
    settings: Live['settings'];
  } = { of: null, channels: [], settings: {} };

  private say(text: string): void {
    this.live.said = [{ at: new Date().toISOString(), text }, ...this.live.said].slice(0, MOST_SAID);
  }

  private tell(): void {
    const { live, apart } = this;
    live.apart = apart.map(({ at, place, name, radio, plan }) => ({
      ...at,
      place,
      name,
      radio,
      plan: plan!,
    }));
    live.channel = this.channelThere();
    live.settings = this.read.settings;
    const { called, state, slot } = live;
    announceLive(live.planId, live.radioId, { called, state, slot, apart: apart.length });
    this.tellAll();
  }

  /** Begins with a radio that was found with `image`: what the person agreed to goes into it. */
  async beginWith(agreed: Agreed): Promise<void> {
    this.agreed = agreed;
    this.seen = agreed.image;
    await this.push(performance.now());
  }

  /** What the radio holds now is taken into the plan, as far as the plan has not gone another way; then it gets the rest. */
  async take(image: Uint8Array): Promise<void> {
    const { plan, revision } = await getPlan(this.planId);
    const { own } = await radioOf(this.live.radioId);
    if (this.unsure) this.agreed = agreedAfter(this.agreed, this.unsure, image, this.model);
    this.unsure = null;
    const newId = () => makeId('ch', crypto.getRandomValues(new Uint8Array(12)));
    const found = fromRadio(this.agreed, image, plan, this.model, this.live.called, newId, own);
    if (!found.ok) throw new Ended(`What ${this.live.called} holds cannot be read any more: ${found.reason}`);
    const { edit, values, said, free, apart, agreed } = found.value;
    const isNew = ({ at }: ByHand) =>
      !apart.some((other) => other.at.list === at.list && other.at.slot === at.slot);
    this.apart = [...this.apart.filter(isNew), ...apart];
    for (const { place, radio, plan: own } of apart)
      this.say(`${place}: the radio says ${radio}, the plan ${own}`);
    if (edit)
      try {
        await editPlan(this.planId, revision, edit);
        for (const text of said.slice(0, MOST_SAID)) this.say(text);
      } catch (error) {
        if (!(error instanceof Problem) || error.status >= 500 || error.status === 410) throw error;
        // The plan cannot have it: it is left to be decided, with the reason.
        this.apart = [...this.apart, ...free.map((one) => ({ ...one, plan: error.detail }))];
        this.say(error.detail);
      }
    else for (const text of said.slice(0, MOST_SAID)) this.say(text);
    if (values) await this.takeValues({ ...own, ...values });
    this.agreed = agreed;
    this.seen = image;
    this.live.state = 'live';
    this.live.reason = null;
    this.tell();
    await this.push(performance.now());
  }

  /** What was set on its keys and is its own becomes a value of this unit, unless no radio may have it. */
  private async takeValues(values: UnitValues): Promise<void> {
    const fault = ownFault(this.base, values);
    if (fault !== null) return this.say(fault);
    const database = await writing();
    await database.transaction((transaction) => saveUnitValues(transaction, this.live.radioId, values));
  }

  /** Gives the radio what the plan has, where nothing is on its way; what it says by itself is taken first. */
  async push(since: number): Promise<void> {
    const { plan, revision } = await getPlan(this.planId);
    const { own: values } = await radioOf(this.live.radioId);
    const image = this.line?.ready();
    // What was done on its keys meanwhile has its turn behind this one, and comes here again.
    if (!this.line || !image || image !== this.seen) return;
    this.apart = stillApart(this.apart, plan, image, this.model, values);
    const wanted = toRadio(plan, image, this.apart, this.model, values);
    if (!wanted.ok) throw new Ended(wanted.reason);
    const sent = { plan, values, revision, since, image: wanted.value };
    if (wanted.value.every((byte, at) => byte === image[at])) {
      // Nothing goes over the line: what came back of it could be taken for an answer to what is sent next.
      if (revision !== this.live.revision || this.waiting) this.together(sent, image);
      return;
    }
    this.sent = sent;
    this.line.want(wanted.value);
  }

  private async kept(image: Uint8Array): Promise<void> {
    const { sent } = this;
    // In its turn: what was heard before it, and waits to be taken, is of an image before this one.
    this.seen = image;
    this.sent = null;
    if (sent) this.together(sent, image);
    // What was typed, or decided, while this was on its way.
    await this.push(performance.now());
  }

  /** Radio and plan hold the same from now on. */
  private together(sent: NonNullable<LiveSession['sent']>, image: Uint8Array): void {
    const { live } = this;
    this.agreed = { plan: sent.plan, ...(sent.values && { values: sent.values }), image };
    if (sent.revision !== live.revision) live.tookMs = Math.round(performance.now() - sent.since);
    live.revision = sent.revision;
    live.planName = sent.plan.name;
    live.state = 'live';
    this.keepSoon();
    this.waiting?.done();
    this.waiting = null;
    this.tell();
  }

  /** The line is gone: the radio is waited for, on whichever port it comes back. */
  private async away(reason: string, refused: boolean): Promise<void> {
    this.letGoOfLine();
    // A cable never ends it; a radio that will not does.
    if (this.waiting || refused) throw new Ended(reason);
    this.live.state = 'away';
    this.live.reason = reason;
    this.say(reason);
    // Where it cannot be written down the row before leads together as well.
    await this.keep().catch(() => {});
    this.tell();
    void this.lookFor();
  }

  /** Waits until the radio is on a port that can be had, and follows it there. */
  async lookFor(): Promise<void> {
    this.live.state = 'away';
    while (!this.over) {
      await new Promise((done) => setTimeout(done, LOOK_MS).unref());
      const port = await portOf(this.live.radioId).catch(() => null);
      if (this.over) {
        if (port) freePort(port);
        return;
      }
      if (port) return this.connect(port, (image) => this.take(image));
    }
  }

  /** Whose way is taken where both went their own. */
  async decide(at: { list: number; slot: number }, take: 'radio' | 'plan'): Promise<boolean> {
    const one = this.apart.find((other) => other.at.list === at.list && other.at.slot === at.slot);
    if (!one) return false;
    if (take === 'radio') {
      const { revision } = await getPlan(this.planId);
      await editPlan(this.planId, revision, one.edit);
    }
    this.apart = this.apart.filter((other) => other !== one);
    this.say(`${one.place}: ${take === 'radio' ? `the radio’s, ${one.radio}` : `the plan’s, ${one.plan}`}`);
    this.keepSoon();
    this.tell();
    this.inTurn(() => this.push(performance.now()));
    return true;
  }

  /** Resolves once both have agreed; fails with the reason where they do not. */
  agreement(): Promise<void> {
    return new Promise((done, failed) => {
      this.waiting = { done, failed };
    });
  }

  private keepSoon(): void {
    clearTimeout(this.keeping);
    this.keeping = setTimeout(() => void this.keep().catch(() => {}), KEEP_MS).unref();
  }

  /** Writes down what both agreed on last. */
  async keep(): Promise<void> {
    clearTimeout(this.keeping);
    if (this.over || this.waiting) return;
    const { radioId, planId, revision } = this.live;
    const set = {
      ...{ planId, planRevision: revision, image: this.agreed.image, apart: this.apart },
      ...{ instance: instanceId, at: new Date() },
    };
    const database = await writing();
    await database
      .insert(lives)
      .values({ radioId, ...set })
      .onConflictDoUpdate({ target: lives.radioId, set });
  }

  /** What was on its way may be in the radio or not. */
  private wonder(): void {
    if (this.sent) this.unsure = this.sent;
    this.sent = null;
  }

  private letGoOfLine(): void {
    const { line, port } = this;
    this.wonder();
    [this.line, this.port] = [null, null];
    void line?.end().then(() => port && freePort(port));
  }

  /** Ends it; `reason` where nobody asked for it. */
  async end(reason: string | null = null): Promise<void> {
    if (this.over) return;
    this.over = true;
    clearTimeout(this.keeping);
    this.leave();
    const { line, port, waiting } = this;
    await line?.end();
    if (port) freePort(port);
    announceLive(this.planId, this.live.radioId, null);
    if (reason !== null) {
      // It stays to be seen, with the reason, until somebody takes note of it.
      this.live.state = 'ended';
      this.live.reason = reason;
      waiting?.failed(new Error(reason));
    }
    this.tellAll();
    // Where the disk is full too. What begins again has a row of its own by then; the one of a session that was never agreed is none.
    // Where it cannot go, the next start looks for the radio, and nothing worse.
    await reading()
      .then((database) => database.delete(lives).where(eq(lives.radioId, this.live.radioId)))
      .catch(() => {});
  }
}
