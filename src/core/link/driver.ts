import type { Model } from '../models';
import {
  isOpen,
  startLink,
  stepLink,
  type LinkInput,
  type LinkModel,
  type LinkState,
  type LinkStep,
  type LinkTask,
} from './host';

/**
 * The host's side of a link, pure: what has come in goes in, bytes to send and events come out. Carriers bring it bytes; a
 * driver knows no socket, no file and no clock.
 */
export interface Driver {
  start(model: LinkModel | null, task: LinkTask): LinkStep;
  step(state: LinkState, input: LinkInput): LinkStep;
  isOpen(state: LinkState): boolean;
}

/** The drivers, by the kind of link that a model declares. */
export const DRIVERS: Readonly<Record<NonNullable<Model['link']>['kind'], Driver>> = {
  stream: { start: startLink, step: stepLink, isOpen },
};
