import type { Content } from '../models';

/** How things of a kind are told of. */
export interface Kind<T> {
  of: (content: Partial<Content>) => readonly T[];
  title: (one: T) => string;
  /** What it is, where it is new or goes. */
  whole: (one: T) => string;
  /** In what it differs from what it was; empty where it does not. */
  differing: (was: T, is: T) => string[];
}

export const renamed = (was: { name: string }, is: { name: string }) =>
  was.name === is.name ? [] : [`named ${is.name || 'nothing'}, was ${was.name || 'nothing'}`];

/** What comes to a set and goes from it, `side` before it where there are several. */
export function inAndOut(was: readonly number[], is: readonly number[], side = ''): string[] {
  const [before, after] = [new Set(was), new Set(is)];
  const come = is.filter((one) => !before.has(one)).length;
  const go = was.filter((one) => !after.has(one)).length;
  if (come + go === 0) return [];
  const words = [...(come > 0 ? [`${come} in`] : []), ...(go > 0 ? [`${go} out`] : [])].join(', ');
  return [side ? `${side}: ${words}` : words];
}

export const named = (name: string, rest: string) => (name ? `${name}, ${rest}` : rest);
