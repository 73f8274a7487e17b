import { linkOf } from '../models/model';
import type { Model } from '../models';
import { BLOCK_OVERHEAD } from './block-frame';

/** Bits on the line for a byte. */
const LINE_BITS = 10;

/** How long so many bytes take over the block link of a model, seconds, at the rate of its line: a frame a block, one after the other. */
export function secondsOnLine(bytes: number, model: Pick<Model, 'name' | 'link'>): number {
  const link = linkOf(model);
  if (link.kind !== 'block' && link.kind !== 'live') throw new Error(`A ${model.name} has no block link`);
  return ((bytes + Math.ceil(bytes / link.blockBytes) * BLOCK_OVERHEAD) * LINE_BITS) / link.lineRate;
}
