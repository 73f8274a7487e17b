import type { NewChannel } from '../plan';
import type { Entry } from './entry';

/** The station that a channel of a file is about; null where the file does not say where it is. `ref` tells it apart within its file. */
export function entryOf(channel: NewChannel, ref: string, updated: string): Entry | null {
  const { source, rx, tx, access, mode, name, alwaysOn } = channel;
  if (source?.lat === undefined || source.lon === undefined) return null;
  return {
    ref,
    call: source.call ?? '',
    site: source.place || name || source.call || ref,
    island: '',
    service: source.service,
    output: rx,
    input: tx,
    access,
    mode,
    lat: source.lat,
    lon: source.lon,
    // A file says nothing of it.
    height: 0,
    onAir: true,
    constant: alwaysOn,
    encrypted: false,
    updated,
  };
}
