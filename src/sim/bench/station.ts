import { mkdirSync } from 'node:fs';
import { createServer, type Server, type Socket } from 'node:net';
import { join } from 'node:path';
import type { z } from 'zod';
import { callShown, face, largeLineOf, sidesOf, type CallOnAir, type Face } from '../../core/models';
import { USUAL_REGION } from '../../core/radio';
import { keepFile } from '../keep';
import {
  contentOf,
  deviceOf,
  hear,
  hearNothing,
  keyed,
  letGo,
  powerUp,
  type Device,
  type Heard,
} from './device';
import { freshBlockSide } from './device-block';
import { nameInRadio, peopleHalf } from './device-people';
import { newsOf } from './device-live';
import { Line } from './line';
import { MemoryCard } from './memory-card';
import { PeopleFile } from './people-file';
import { readStation } from './station-file';
import type { Fault, handleSchema } from './handles';
import { newMemory, type UnitSpec } from './units';

/** Calls `then` after a silence of so many ms; gives what cancels that. */
export type Silence = (ms: number, then: () => void) => () => void;

/** A frame whose bytes stop coming for so long is given up, ms. */
const SILENCE_MS = 1000;
/** How long a radio is away when it goes to another module, ms; on a line that is faster than real less, as all else on it. */
const MOVING_MS = 600;

/** A radio on the bench: its inside, its knob and key, its cable, its memory on disk. */
export class Station {
  private device: Device;
  private plugged = false;
  private on = true;
  private cable = 0;
  private keyDown = false;
  /** Who keys up near it, and for whom. */
  private talk: CallOnAir | null = null;
  private fault: Fault = { kind: 'none' };
  private heardSinceFault = 0;
  private server: Server | undefined;
  private socket: Socket | undefined;
  private tcp: number | null = null;
  /** While it is away to another module. */
  private returning: NodeJS.Timeout | undefined;
  private endSilence = () => {};
  /** Its memory card, where it has one in place of a cable. */
  private readonly card: MemoryCard | null;
  private readonly people: PeopleFile;

  constructor(
    readonly spec: UnitSpec,
    private readonly folder: string,
    private readonly speed: number,
    /** Who is on the air on a frequency, Hz; null where nobody is. */
    private readonly hears: (hz: number) => string | null = () => null,
    /** True where its cable is in when its memory is made. */
    cableIn = false,
    /** Calls back after a silence of so many ms; gives what cancels it. */
    private readonly afterSilence: Silence = (ms, then) => {
      const timer = setTimeout(then, ms).unref();
      return () => clearTimeout(timer);
    },
  ) {
    mkdirSync(folder, { recursive: true });
    const { model } = spec;
    this.card = model.link?.kind === 'card' ? new MemoryCard(folder, spec.id) : null;
    const kept = readStation((kind) => this.file(kind));
    const memory = kept?.memory ?? newMemory(spec);
    this.people = new PeopleFile(this.file('people'));
    this.device = { ...deviceOf(spec, memory), people: this.people.read() };
    if (kept) {
      const { halfWritten, battery, writes } = kept;
      this.device = { ...this.device, halfWritten, battery, slot: kept.slot, block: freshBlockSide(writes) };
      this.on = kept.on;
      this.cable = kept.cable;
      if (kept.plugged) void this.plug();
    } else if (cableIn) void this.plug();
    this.keep();
  }

  private file(kind: 'radio' | 'people' | 'bin' | 'json'): string {
    return join(this.folder, `${this.spec.serial}.${kind}`);
  }

  /** Keeps memory and state together, whole or not at all. */
  private keep(): void {
    const { plugged, on, cable } = this;
    const { battery, halfWritten, block, slot } = this.device;
    const writes = block.writes.map(
      (write) => write && { ...write, received: Buffer.from(write.received).toString('base64') },
    );
    const memory = Buffer.from(this.device.memory).toString('base64');
    this.people.keep(this.device.people);
    keepFile(
      this.file('radio'),
      JSON.stringify({ plugged, on, slot, cable, battery, halfWritten, writes, memory }),
    );
  }

  /** True while bytes are on its line, or it is away to another module. */
  get busy(): boolean {
    return this.toRadio.backlog > 0 || this.toHost.backlog > 0 || this.returning !== undefined;
  }

  /** Looks at once whether its card is to be taken out. */
  lookAtCard(): void {
    this.card?.look();
  }

  /** The port that a plugged radio shows to the host, or null. */
  port(): { name: string; tcp: number } | { name: string; card: string } | null {
    if (this.card) return this.plugged ? { name: `reader/${this.spec.id}`, card: this.spec.id } : null;
    return this.tcp === null
      ? null
      : { name: `bench/${this.spec.id}${this.cable === 0 ? '' : `-${this.cable}`}`, tcp: this.tcp };
  }

  /** What one sees on the bench. */
  look() {
    const { spec, device, plugged, on, cable, keyDown, fault } = this;
    return {
      id: spec.id,
      label: spec.label,
      modelId: spec.model.id,
      model: `${spec.model.maker} ${spec.model.name}`,
      serial: spec.serial,
      firmware: spec.firmware,
      plugged,
      on,
      slot: device.slot,
      cable,
      keyDown,
      battery: device.battery,
      halfWritten: device.halfWritten,
      peopleHalf: peopleHalf(device.people),
      fault,
      port: this.port(),
      face: on ? this.face() : null,
      cabled: spec.model.link !== null,
      card: this.card && { in: plugged ? 'reader' : 'radio', says: this.card.says },
      ...this.shown(),
    };
  }

  /** What it stands at, side by side, and what is set on it; nothing where it can show nothing. */
  private shown() {
    const content = contentOf(this.device);
    const at = (list: number, slot?: number) =>
      content?.channels.find((held) => held.list === list && (slot === undefined || held.slot === slot)) ??
      null;
    const channel = at(0, this.device.slot);
    const number = channel?.digital?.talkgroup;
    const zone = content?.zones.find(({ knob }) => knob?.includes(this.device.slot));
    const ownId = content?.settings.radioId;
    const two = sidesOf(this.spec.model).length > 1;
    return {
      channel,
      other: two ? at(sidesOf(this.spec.model)[1]!) : null,
      settings: content?.settings ?? {},
      talkgroup: content?.talkgroups.find((one) => one.number === number)?.name ?? '',
      position: zone ? zone.knob!.indexOf(this.device.slot) + 1 : null,
      /** Who is heard calling, by name or ID; null where nobody is, or where its squelch stays shut. */
      caller:
        this.on && channel && content && this.talk
          ? callShown(channel, content, this.talk, typeof ownId === 'number' ? ownId : null, (id) =>
              nameInRadio(this.device, id),
            )
          : null,
      air: channel && this.hears(channel.rx),
    };
  }

  private face(): Face | { large: string } {
    const content = contentOf(this.device);
    if (!content) return { large: 'NO DATA' };
    const channel = content.channels.find((held) => held.slot === this.device.slot);
    if (!channel) return { large: 'EMPTY' };
    const { model } = this.spec;
    return face(
      channel,
      model,
      this.keyDown,
      USUAL_REGION,
      largeLineOf(model, channel.list, content.settings),
      '',
      content.talkgroups.find(({ number }) => number === channel.digital?.talkgroup)?.name,
    );
  }

  /** Does what the person does; the cable is last, so that the port appears when all else is as it should be. */
  async handle(change: z.infer<typeof handleSchema>): Promise<void> {
    const before = this.device;
    if (change.battery !== undefined) this.device = { ...this.device, battery: change.battery };
    if (change.on !== undefined && change.on !== this.on) {
      this.on = change.on;
      if (change.on) this.device = powerUp(this.device);
      else this.dropLine();
    }
    if (change.slot !== undefined) this.device = { ...this.device, slot: change.slot };
    if (change.key && this.on) this.device = keyed(this.device, change.key);
    if (change.card && this.on && this.card) this.device = this.card.chosen(change.card, this.device);
    if (change.turn !== undefined) this.turnKnob(change.turn);
    if (change.keyDown !== undefined) this.keyDown = change.keyDown;
    if (change.talk !== undefined) this.talk = change.talk;
    if (change.cable !== undefined && change.cable !== this.cable) {
      const was = this.plugged || this.returning !== undefined;
      this.pull();
      this.cable = change.cable;
      if (was) await this.plug();
    }
    if (change.plugged === true) await this.plug();
    if (change.plugged === false) this.pull();
    for (const frame of newsOf(before, this.device)) this.toHost.put(frame);
    this.keep();
  }

  order(fault: Fault): void {
    this.fault = fault;
    this.card?.leaveAlone();
    if (fault.kind === 'pull')
      this.card?.takenOutAt(fault.atByte, () => {
        this.fault = { kind: 'none' };
        this.pull();
        this.keep();
      });
    this.heardSinceFault = 0;
    this.device = {
      ...this.device,
      identAs: fault.kind === 'wrong model' ? fault.ident : (this.spec.model.link?.ident ?? ''),
      refusesWriting: fault.kind === 'refuse',
      firmware: fault.kind === 'newer firmware' ? fault.version : this.spec.firmware,
    };
  }

  private turnKnob(steps: number): void {
    const slots = contentOf(this.device)?.channels.map((channel) => channel.slot) ?? [];
    if (slots.length === 0) return;
    const at = slots.indexOf(this.device.slot);
    const next = (((at < 0 ? 0 : at) + steps) % slots.length) + slots.length;
    this.device = { ...this.device, slot: slots[next % slots.length]! };
  }

  private rate = () => {
    const slow = this.fault.kind === 'slow' ? this.fault.factor : 1;
    const { link } = this.spec.model;
    return ((link && link.kind !== 'card' ? link.lineRate : 9600) * this.speed) / slow;
  };

  private toRadio = new Line(this.rate, (bytes) => this.arrive(bytes));
  private toHost = new Line(this.rate, (bytes) => this.depart(bytes));

  private plug(): Promise<void> {
    // What has no link here lies on the bench all the same; its memory is a file.
    if (this.server || !this.spec.model.link) return Promise.resolve();
    this.plugged = true;
    if (this.card) {
      this.card.toReader();
      return Promise.resolve();
    }
    this.returning = undefined;
    this.server = createServer((socket) => {
      // The end of the line before may be told of after this one: both are there, and come in any order.
      if (this.socket) return void setImmediate(() => setImmediate(() => accept(socket)));
      accept(socket);
    });
    const accept = (socket: Socket) => {
      if (this.socket || socket.destroyed) return void socket.destroy();
      this.socket = socket;
      socket.setNoDelay(true);
      socket.on('data', (bytes) => this.toRadio.put(bytes));
      socket.on('error', () => socket.destroy());
      const letGo = () => {
        if (this.socket === socket) this.dropLine();
      };
      socket.on('end', letGo);
      socket.on('close', letGo);
    };
    return new Promise((resolve) =>
      this.server!.listen(0, '127.0.0.1', () => {
        const address = this.server?.address();
        this.tcp = typeof address === 'object' && address ? address.port : null;
        resolve();
      }),
    );
  }

  /** The line is gone: what was on it is lost, and the radio forgets what its link was at. */
  private dropLine(): void {
    const { socket } = this;
    this.socket = undefined;
    this.endSilence();
    this.toRadio.clear();
    this.toHost.clear();
    this.device = { ...this.device, ...letGo(this.device) };
    this.people.keep(this.device.people);
    socket?.destroy();
  }

  private pull(): void {
    clearTimeout(this.returning);
    this.returning = undefined;
    this.plugged = false;
    this.card?.toRadio();
    this.dropLine();
    this.server?.close();
    this.server = undefined;
    this.tcp = null;
  }

  private arrive(bytes: Uint8Array): void {
    if (!this.on) return;
    let heard = bytes;
    if (this.fault.kind === 'silent') {
      const before = (this.fault.atByte ?? 1) - 1 - this.heardSinceFault;
      this.heardSinceFault += bytes.length;
      if (before <= 0) return;
      heard = bytes.subarray(0, before);
    }
    if ((this.fault.kind === 'pull' || this.fault.kind === 'flip') && this.fault.towards === 'radio') {
      const offset = this.fault.atByte - this.heardSinceFault - 1;
      this.heardSinceFault += bytes.length;
      if (offset >= 0 && offset < bytes.length) {
        if (this.fault.kind === 'pull') {
          this.device = hear(this.device, bytes.subarray(0, offset + 1)).device;
          this.fault = { kind: 'none' };
          this.pull();
          return this.keep();
        }
        heard = Uint8Array.from(bytes);
        heard[offset] = heard[offset]! ^ 0x10;
        this.fault = { kind: 'none' };
      }
    }
    this.take(hear(this.device, heard));
    this.endSilence();
    this.endSilence = this.afterSilence(SILENCE_MS, () => this.take(hearNothing(this.device)));
  }

  /** What the radio says, on its way to the host. */
  private depart(bytes: Uint8Array): void {
    const { fault } = this;
    let sent = bytes;
    if (fault.kind === 'rubbish') sent = bytes.map((byte, at) => (byte * 167 + at * 59 + 91) & 0xff);
    else if ((fault.kind === 'pull' || fault.kind === 'flip') && fault.towards === 'host') {
      const offset = fault.atByte - this.heardSinceFault - 1;
      this.heardSinceFault += bytes.length;
      if (offset >= 0 && offset < bytes.length) {
        this.fault = { kind: 'none' };
        if (fault.kind === 'pull') {
          this.socket?.write(bytes.subarray(0, offset));
          this.pull();
          return this.keep();
        }
        sent = Uint8Array.from(bytes);
        sent[offset] = sent[offset]! ^ 0x10;
      }
    }
    this.socket?.write(sent);
  }

  private take({ device, send, moves }: Heard): void {
    const before = this.device;
    this.device = device;
    for (const frame of send) this.toHost.put(frame);
    if (device.memory !== before.memory || device.halfWritten !== before.halfWritten) this.keep();
    else this.people.keep(device.people);
    if (moves) this.move();
  }

  /** Goes to another module: once the last word is out the line drops, and comes back on a port of its own. */
  private move(): void {
    if (this.toHost.backlog > 0) return void setTimeout(() => this.move(), 5);
    this.pull();
    this.returning = setTimeout(() => void this.plug(), Math.max(20, MOVING_MS / this.speed)).unref();
  }

  close(): void {
    this.keep();
    this.card?.leaveAlone();
    this.dropLine();
    this.server?.close();
  }
}
