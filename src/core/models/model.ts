import type { Model, ModelBand } from './model.schema';

/** The ranges that a model receives, Hz: what frequency entry is read against. */
export function receiveRanges(model: Model) {
  return model.bands.map((band) => band.receive);
}

/** The band in which a model receives `hz`, or undefined. */
export function receiveBand(model: Model, hz: number): ModelBand | undefined {
  return model.bands.find((band) => hz >= band.receive.from && hz <= band.receive.to);
}

/** The band in which a model transmits on `hz`, or undefined. */
export function transmitBand(model: Model, hz: number): ModelBand | undefined {
  return model.bands.find((band) => band.transmit && hz >= band.transmit.from && hz <= band.transmit.to);
}
