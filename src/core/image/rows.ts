import type { FieldValue, Layout, Row } from '../format';
import {
  fittedChannelSchema,
  fittedDigitalSchema,
  storedShift,
  type FittedChannel,
  type Model,
} from '../models';
import { hasTalkgroups, isMode } from '../radio';
import { fail, ok, type Result } from '../result';

/**
 * Between a channel and the fields of its row. Fields have the names of the channel's own, and where a radio keeps something in
 * another form, these: `tone` and `toneWay` are one tone for both ways, `shift` and `other` one stored shift a band with a split
 * beside it, `zones` the banks that it is in; `colourCode`, `timeSlot`, `talkgroup`, `receiveList`, `politeness` and `level` are a
 * digital channel's. A row without `power` knows none.
 */

/** What a field in another form is made of, and what it says. */
interface ChannelForm {
  write(channel: FittedChannel, among: RowContext): FieldValue;
  read(fields: Row['fields'], among: RowContext): Result<Partial<FittedChannel>>;
}

/** What a row is read and written with beside its own fields. */
export interface RowContext {
  model: Model;
  settings: Readonly<Record<string, FieldValue>>;
  /** The banks of this list that a slot is in. */
  zonesOf: (slot: number) => readonly number[];
}

const lowestLevel = ({ digital }: Model) => digital?.levels?.from ?? null;

const nothing: ChannelForm['read'] = () => ok({});

const FORMS: Readonly<Record<string, ChannelForm>> = {
  tone: { write: ({ send, expect }) => send ?? expect, read: nothing },
  toneWay: {
    write: ({ send, expect }) => (expect ? 'both' : send ? 'send' : 'none'),
    read({ tone, toneWay }) {
      if (toneWay === 'none') return ok({ send: null, expect: null });
      const { data } = fittedChannelSchema.shape.send.safeParse(tone);
      if (!data) return fail('a tone is used and none is named');
      return ok({ send: data, expect: toneWay === 'both' ? data : null });
    },
  },
  shift: {
    write({ rx, tx, split }) {
      if (tx === null) return 'listen';
      if (split) return 'split';
      return tx === rx ? 'none' : tx > rx ? 'plus' : 'minus';
    },
    read({ rx, shift, other }, { model, settings }) {
      if (typeof rx !== 'number') return fail('no receive frequency');
      if (shift === 'listen') return ok({ tx: null });
      if (shift === 'none') return ok({ tx: rx });
      if (shift === 'split')
        return typeof other === 'number'
          ? ok({ tx: other, split: true })
          : fail('a split without its transmit side');
      const stored = storedShift(model, settings, rx);
      if (stored === undefined) return fail('a shift where the radio stores none');
      return ok({ tx: shift === 'plus' ? rx + stored : rx - stored });
    },
  },
  other: { write: ({ tx, split }) => (split ? tx : null), read: nothing },
  zones: { write: ({ slot }, { zonesOf }) => zonesOf(slot), read: nothing },
  // What is digital is read with the colour code; where a channel is not, the bytes say the least.
  colourCode: {
    write: ({ digital }) => digital?.colourCode ?? 0,
    read({ mode, colourCode, timeSlot, talkgroup, receiveList, politeness, level }) {
      if (!isMode(mode) || !hasTalkgroups(mode)) return ok({});
      const digital = fittedDigitalSchema.safeParse({
        ...{ colourCode, timeSlot, talkgroup, receiveList, politeness },
        level: politeness === 'all' ? (level ?? null) : null,
      });
      return digital.success ? ok({ digital: digital.data }) : fail('no colour code or time slot');
    },
  },
  timeSlot: { write: ({ digital }) => digital?.timeSlot ?? 1, read: nothing },
  talkgroup: { write: ({ digital }) => digital?.talkgroup ?? null, read: nothing },
  receiveList: { write: ({ digital }) => digital?.receiveList ?? null, read: nothing },
  politeness: { write: ({ digital }) => digital?.politeness ?? 'impolite', read: nothing },
  level: { write: ({ digital }, { model }) => digital?.level ?? lowestLevel(model), read: nothing },
};

/** The names of all fields of a row, those that lie elsewhere among them. */
export const fieldNames = (layout: Layout): string[] => [
  ...Object.keys(layout.row),
  ...(layout.columns ?? []).flatMap((column) =>
    column.kind === 'table' ? Object.keys(column.row) : [column.field],
  ),
];

/** The row of a channel. */
export function rowOf(channel: FittedChannel, layout: Layout, among: RowContext): Row {
  const { digital: _, ...own }: Record<string, unknown> & { digital?: unknown } = channel;
  const fields: Row['fields'] = {};
  for (const field of fieldNames(layout))
    fields[field] = FORMS[field]
      ? FORMS[field].write(channel, among)
      : ((own[field] as FieldValue | undefined) ?? null);
  return { number: channel.slot, fields };
}

/** The channel of a row; fails with a few words where it is none. */
export function channelOf({ number, fields }: Row, list: number, among: RowContext): Result<FittedChannel> {
  const made: Record<string, unknown> = {
    list,
    slot: number,
    power: among.model.powers[0]!.milliwatts,
    scan: true,
  };
  for (const [field, value] of Object.entries(fields)) {
    const form = FORMS[field];
    if (!form) {
      made[field] = value;
      continue;
    }
    const read = form.read(fields, among);
    if (!read.ok) return read;
    Object.assign(made, read.value);
  }
  const channel = fittedChannelSchema.safeParse(made);
  if (channel.success) return ok(channel.data);
  return fail(`no ${channel.error.issues[0]!.path[0] === 'rx' ? 'receive frequency' : 'channel'}`);
}
