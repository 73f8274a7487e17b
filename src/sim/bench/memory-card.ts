import {
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  renameSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { join } from 'node:path';
import { decodeImage } from '../../core/image';
import { cardFiles, LOADED, loadedMark, MANIFEST, readCard } from '../../core/link';
import { keptOwn, LOW_BATTERY, type Device } from './device';

/** A memory card and the radio's half of the work with it: a folder that is in the reader of the computer or in the radio. */
export class MemoryCard {
  /** What the radio's display said of it last. */
  says = '';
  private watch: NodeJS.Timeout | undefined;
  /** Looks at once whether it is time to be taken out. */
  look: () => void = () => {};

  constructor(
    private readonly folder: string,
    private readonly id: string,
  ) {
    for (const place of ['slot', 'reader'] as const) mkdirSync(join(folder, place), { recursive: true });
    if (!existsSync(this.at('slot')) && !existsSync(this.at('reader'))) mkdirSync(this.at('slot'));
  }

  private at(place: 'slot' | 'reader'): string {
    return join(this.folder, place, this.id);
  }

  /** Takes it out of the radio and puts it into the computer. */
  toReader(): void {
    if (existsSync(this.at('slot'))) renameSync(this.at('slot'), this.at('reader'));
  }

  toRadio(): void {
    if (existsSync(this.at('reader'))) renameSync(this.at('reader'), this.at('slot'));
  }

  /** Waits until so many bytes were written on it in the reader, and then is taken out in the middle of it. */
  takenOutAt(bytes: number, taken: () => void): void {
    const before = this.written();
    clearInterval(this.watch);
    this.look = () => {
      let fresh = 0;
      for (const [file, size] of this.written()) if (!before.has(file)) fresh += size;
      if (fresh < bytes) return;
      this.leaveAlone();
      taken();
    };
    this.watch = setInterval(() => this.look(), 1);
    this.watch.unref();
  }

  /** Nobody takes it out any more. */
  leaveAlone(): void {
    clearInterval(this.watch);
    this.look = () => {};
  }

  /** What lies on it in the reader: each file as it was written, with its size. */
  private written(): Map<string, number> {
    if (!existsSync(this.at('reader'))) return new Map();
    return new Map(
      readdirSync(this.at('reader')).flatMap((name) => {
        // It may have been given its name, or taken away, since it was listed.
        const file = statSync(join(this.at('reader'), name), { throwIfNoEntry: false });
        return file ? [[`${name} ${file.mtimeMs}`, file.size] as const] : [];
      }),
    );
  }

  /** Does what is chosen in the radio's menu; the radio as it is then. */
  chosen(what: 'save' | 'load', device: Device): Device {
    if (!existsSync(this.at('slot'))) {
      this.says = 'NO CARD';
      return device;
    }
    return what === 'save' ? this.save(device) : this.load(device);
  }

  private save(device: Device): Device {
    const { model, serial, firmware, region, memory, identAs } = device;
    const ident = {
      ...{ model: identAs, serial, firmware, region, imageBytes: memory.length },
      ...{ halfWritten: false, battery: null, module: 0 },
    };
    for (const { name, bytes } of cardFiles(memory, ident, model, 'RADIO'))
      writeFileSync(join(this.at('slot'), name), bytes);
    this.says = 'SAVED';
    return device;
  }

  /** Takes all of it or nothing. */
  private load(device: Device): Device {
    const refuse = (says: string) => {
      this.says = says;
      return device;
    };
    if (device.battery < LOW_BATTERY) return refuse('BATTERY LOW');
    if (device.refusesWriting) return refuse('LOCKED');
    const own = (name: string) => join(this.at('slot'), name);
    const files = new Map(
      readdirSync(this.at('slot'))
        .filter((name) => statSync(own(name)).isFile())
        .map((name) => [name, new Uint8Array(readFileSync(own(name)))]),
    );
    const read = readCard(files);
    if (read.kind === 'none') return refuse('NO DATA');
    if (read.kind === 'half') return refuse('CARD ERROR');
    if (read.ident.model !== device.identAs || read.ident.serial !== device.serial)
      return refuse('OTHER UNIT');
    if (!decodeImage(read.image, device.model).ok) return refuse('CARD ERROR');
    writeFileSync(join(this.at('slot'), LOADED), loadedMark(files.get(MANIFEST)!));
    this.says = 'LOADED';
    return { ...device, memory: keptOwn(device, read.image.slice()), halfWritten: false };
  }
}
