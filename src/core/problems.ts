import type { ProblemDocument } from './problems.schema';

/**
 * The kinds of problems that the HTTP API answers: a closed set, which programs may rely on and both sides share. Each ends the
 * `type` of its problem document (RFC 9457), `urn:veridon:problem:stale-edit`.
 */
export const PROBLEM_KINDS = [
  // what was asked
  'bad-address',
  'address-too-long',
  'invalid-input',
  'invalid-json',
  'no-such-method',
  'not-found',
  'refused',
  'key-wanted',
  'key-used',
  'length-wanted',
  'too-large',
  'too-many',
  'too-slow',
  'unreadable',
  // plans
  'edit-refused',
  'stale-edit',
  'unknown-revision',
  'unknown-channel',
  'not-yet',
  'unknown-model',
  'unknown-side',
  'not-related',
  'nothing-to-undo',
  'nothing-to-redo',
  'no-plan',
  'no-model',
  'no-printer',
  'plan-busy',
  'plan-changed',
  'plan-removed',
  'plan-too-large',
  'plan-unreadable',
  // radios
  'battery-low',
  'copy-unreadable',
  'firmware-newer',
  'image-damaged',
  'image-unknown',
  'never-read',
  'no-card',
  'half-card',
  'no-copy',
  'no-live-link',
  'no-people-memory',
  'not-alike',
  'not-live',
  'not-running',
  'nothing-to-resume',
  'nothing-to-write',
  'other-unit',
  'own-id-twice',
  'port-busy',
  'radio-away',
  'radio-changed',
  'unit-values',
  // directories
  'account-refused',
  'account-wanted',
  'directory-away',
  'directory-cut-off',
  'directory-refused',
  'directory-rubbish',
  'directory-slow',
  'people-busy',
  'name-template',
  'nobody-chosen',
  // Veridon itself
  'data-directory',
  'database-away',
  'mistake',
] as const;

export type ProblemKind = (typeof PROBLEM_KINDS)[number];

/** What the type of every problem document begins with. */
export const URN = 'urn:veridon:problem:';

/** The type of a problem document, from its kind; and back. */
export const typeOf = (kind: ProblemKind) => `${URN}${kind}` as const;

export const kindOf = (type: ProblemDocument['type']) => type.slice(URN.length) as ProblemKind;
