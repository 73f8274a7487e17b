import { z } from 'zod';
import { ANSWERS } from '../plan/scan-list';
import { POLITENESS } from '../plan/channel';
import { CALLS } from '../plan/talkgroup';
import { MODES, STEPS, type Mode, type Step } from '../radio';

const rangeSchema = z.object({ from: z.int(), to: z.int() });

/** A band of a model; frequencies in Hz. `transmit` is null where the radio only hears. */
export const bandSchema = z.object({
  name: z.string(),
  receive: rangeSchema,
  transmit: rangeSchema.nullable(),
});

/** The makers' hands: how a face is drawn, so that one is told from another across a room. */
export const HANDS = ['larkmoor', 'oriel', 'halden', 'corvane', 'brae'] as const;

/** What the display writes; the texts are the radio's own and may be empty where it has no such mark. */
export const faceSchema = z.object({
  /** The maker's hand in which it is drawn. */
  hand: z.enum(HANDS),
  /** The slot's label, its number padded with zeros to the width in braces: `M-{slot:3}`. */
  slot: z.string(),
  /** Decimals of a frequency on the display. */
  decimals: z.int().min(3).max(6),
  marks: z.object({
    sendTone: z.string(),
    bothTones: z.string(),
    code: z.string(),
    narrow: z.string(),
    lowPower: z.string(),
    skipped: z.string(),
    plus: z.string(),
    minus: z.string(),
    split: z.string(),
    sending: z.string(),
    noTransmit: z.string(),
  }),
  /** The setting that chooses what the large line shows. */
  largeLine: z.object({
    setting: z.string(),
    fallback: z.enum(['name', 'frequency', 'slot']),
    /** The same for the second side, where it has a setting of its own. */
    second: z.string().optional(),
  }),
});

const cable = {
  /** What the radio answers with, 8 characters filled with spaces. */
  ident: z.string().length(8),
  /** Bits per second; ten bits carry one byte. */
  lineRate: z.int(),
  blockBytes: z.int().min(16).max(1024),
  /** Blocks that may be under way before an answer is waited for. */
  window: z.int().min(1).max(16),
};

/** How the link of a model runs; see core/link. */
export const linkSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('stream'), ...cable }),
  z.object({
    kind: z.literal('block'),
    ...cable,
    /** The stretches of its image, one after the other, each of a module of its own; the line drops and returns between them. */
    modules: z.array(z.object({ name: z.string(), bytes: z.int().min(1) })).min(1),
  }),
  // A block link of one module, over which each tells the other what changes.
  z.object({
    kind: z.literal('live'),
    ...cable,
    /** It has no battery that could go out in the middle. */
    mains: z.boolean(),
  }),
  // Its files are the parts of its format; a card has no line and no rate.
  z.object({ kind: z.literal('card'), ident: cable.ident }),
]);

/** A list of numbered places of a model: its memories, or a home channel a band, in the order of its bands. */
export const listSchema = z.object({ name: z.string(), holds: z.enum(['channels', 'home']) });

/** A kind of sets that a model has, so many of them (a list of its own each, or all together), with names of so many characters; 0 where they have none. */
const setsSchema = z.object({ count: z.int().min(1), name: z.int().min(0) });

/** What a model's zones are beside their number: how many channels one holds, in an order of its own, and whether its knob has a place for each. */
const zonesSchema = setsSchema.extend({
  word: z.string(),
  /** Most channels of one; as many as there are slots where it is not said. */
  members: z.int().min(1).optional(),
  /** The channels stand in the order of the plan rather than in that of their slots. */
  ordered: z.literal(true).optional(),
  /** Positions of a knob that has a place for each channel of a zone, empty or not. */
  knob: z.int().min(2).max(16).optional(),
});

/** Lists of channels that are looked at in turn. */
const scanListsSchema = setsSchema.extend({
  members: z.int().min(1),
  /** Whose list it is that a scan takes: the channel's on which it is begun, or the zone's. */
  by: z.enum(['channel', 'zone']),
  /** Whether there is a second priority beside the first. */
  second: z.boolean(),
  answers: z.array(z.enum(ANSWERS)).min(1),
});

/** What a model holds for digital channels with colour code and time slot. */
const digitalSchema = z.object({
  /** Talkgroups, and people where they share their room; what kinds of call it knows. */
  talkgroups: setsSchema.extend({ calls: z.array(z.enum(CALLS)).min(1) }),
  /** Where it has people: among the talkgroups, or so many in a memory of their own. */
  people: z.discriminatedUnion('where', [
    z.object({ where: z.literal('talkgroups') }),
    z.object({
      where: z.literal('apart'),
      count: z.int().min(1),
      name: z.int().min(1),
      /** What that memory begins with, eight characters. */
      signature: z.string().length(8),
    }),
  ]),
  receiveLists: setsSchema.extend({ members: z.int().min(1) }),
  politeness: z.array(z.enum(POLITENESS)).min(1),
  /** The levels in dBm that it takes for polite to all; null where it has one of its own. */
  levels: z.object({ from: z.int(), to: z.int() }).nullable(),
  /** The setting with its own ID, without which nobody knows who calls. */
  ownId: z.string(),
});

/** The one shift that a model stores for a band, Hz, under the key of its setting. */
export const storedShiftSchema = z.object({
  band: z.string(),
  setting: z.string(),
  range: rangeSchema,
  usual: z.int(),
});

/** A step of getting the radio ready for its cable or card: what to do, and what it shows then. */
export const stepSchema = z.object({
  what: z.string(),
  shows: z.string(),
  /** What the hand is at: for the drawing, and for what the bench can see of it by itself. */
  part: z.enum(['cable', 'switch', 'knob', 'menu', 'card']),
  /** When it is done: before either, which is the usual; before a read or a write alone, where they want different keys; or when a write is over. */
  when: z.enum(['before', 'read', 'write', 'after']).optional(),
});

/**
 * What a model can do: what fit, check and the screens read; and how it is linked. How its bytes lie is its format, which
 * `core/image` alone reads. The code knows no model by name: adding one is adding a folder.
 */
export const modelSchema = z.object({
  id: z.string().regex(/^[a-z0-9-]+$/),
  name: z.string(),
  maker: z.string(),
  /** Other names under which the same radio is sold. */
  alsoSoldAs: z.array(z.object({ name: z.string(), maker: z.string() })),
  summary: z.string(),
  /** The newest firmware whose memory is as it stands here. */
  firmware: z.string().regex(/^\d+(\.\d+)*$/),
  /** The slots of each of its lists of channels. */
  slots: z.object({ first: z.int().min(0), count: z.int().min(1) }),
  /** Its lists by number: 0 is the first, which every model has. */
  lists: z.array(listSchema).min(1).max(8),
  /** What it calls a zone, and how many it has a list of channels. */
  zones: zonesSchema.nullable(),
  skipSets: setsSchema.nullable(),
  /** Pairs of scan edges, so many a list of channels. */
  scanEdges: setsSchema.nullable(),
  setUps: setsSchema.nullable(),
  /** Absent where a scan takes what is marked to be scanned. */
  scanLists: scanListsSchema.optional(),
  /** Absent where it holds no colour codes, talkgroups and receive lists. */
  digital: digitalSchema.optional(),
  names: z.object({ length: z.int().min(1), characters: z.string() }),
  bands: z.array(bandSchema).min(1),
  steps: z.array(z.custom<Step>((step) => STEPS.includes(step as Step))).min(1),
  modes: z.array(z.enum(MODES as [Mode, ...Mode[]])).min(1),
  /** Highest first. */
  powers: z.array(z.object({ label: z.string(), milliwatts: z.int().min(1) })).min(1),
  /** False where a memory knows no power, and the set sends with whatever it stands at. */
  storesPower: z.boolean(),
  /** Tenths of Hz. */
  tones: z.array(z.int()),
  codes: z.array(z.int()),
  invertedCodes: z.boolean(),
  /** True where one tone serves both ways: sent, or sent and expected. */
  oneTone: z.boolean(),
  /** The bands for which one shift is stored; empty where every channel has its own. */
  storedShifts: z.array(storedShiftSchema),
  /** The setting without which it sends nothing digital. */
  ownCall: z.string().nullable(),
  /** How they are linked here today; null where their images are files. */
  link: linkSchema.nullable(),
  /** What it takes to get it ready for the cable or the card. */
  getReady: z.array(stepSchema).min(1),
  face: faceSchema,
  /** What a unit may be bought with or without; without it the bands and settings that it brings are not there. */
  options: z
    .array(
      z.object({
        name: z.string(),
        bands: z.array(z.string()).optional(),
        settings: z.array(z.string()).optional(),
      }),
    )
    .max(8)
    .optional(),
  /** Where this is the model as one unit of it is: what that is called, and the settings that it has not, each with what it lacks. */
  unit: z
    .object({
      called: z.string(),
      without: z.array(z.object({ setting: z.string(), name: z.string() })),
    })
    .optional(),
});
export type Model = z.infer<typeof modelSchema>;
export type ModelBand = z.infer<typeof bandSchema>;
