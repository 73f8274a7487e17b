import { sentenceOf } from '@/api/ask';
import { countOf, KINDS, makeId, type Channel, type ChannelId } from '@/core/plan';
import type { Result } from '@/core/result';
import {
  alikeTo,
  changesFor,
  countDown as countOn,
  intoThisOrder,
  leaveOver as leavingOver,
  type Alike,
  type ManyWish,
} from '@/core/table';
import type { Table } from './use-table';
import type { PlanInHand } from './use-plan';

/** What is done to many channels in one stroke; it comes with the first of them. */
export function strokes({
  hand,
  table,
  say,
  setSaid,
}: {
  hand: PlanInHand;
  table: Table;
  say: (result: Result<unknown>, done?: string) => void;
  setSaid: (said: string) => void;
}) {
  const { store } = hand;
  const { chosen, chosenChannels, selection, rows } = table;
  const called = (channels: readonly Channel[]) =>
    channels.length === 1 ? channels[0]!.name || 'no name' : countOf(channels.length, KINDS.channel);
  const telling = (asked: Promise<unknown>, done: string) =>
    asked.then(
      () => setSaid(done),
      (error: unknown) => setSaid(sentenceOf(error)),
    );
  return {
    /** One stroke for all that is chosen; says what it could not be done with. */
    many(wish: ManyWish) {
      const { changes, left, reason } = changesFor(chosenChannels, wish, hand.plan.owner);
      const of = left === 0 ? '' : `${left} of ${chosenChannels.length} stay as they are: ${reason}`;
      if (changes.length === 0) return setSaid(of || 'They stand so already.');
      say(table.change(changes), of);
    },
    /** Chooses all that are shown and like the one with the focus in something. */
    alike(alike: Alike) {
      const one = table.active;
      if (!one) return;
      const { of } = hand.shown.views;
      const ids = alikeTo(rows, one, alike, {
        rules: hand.plan.owner,
        findings: ({ id }) => of.get(id)?.findings.map(({ rule }) => rule) ?? [],
      });
      if (ids.length === 0) return setSaid('Check says nothing of this one.');
      table.setSelection({ active: selection.active, anchor: selection.active, added: new Set(ids) });
      setSaid(`${ids.length} chosen.`);
    },
    /** Counts on from the first of the block through the others: frequency by step, the number in the name. */
    countDown() {
      const step = hand.model.steps.includes(12_500) ? 12_500 : 5_000;
      say(table.change(countOn(table.block, table.columns, step)));
    },
    /** Moves what is shown into the order in which it is seen, among the slots that it holds. */
    intoView() {
      const moves = intoThisOrder(rows);
      if (moves.length > 0) say(store.apply({ name: 'arrange', how: 'sort', moves }));
      table.setOrder(null);
    },
    /** A row like the one with the focus, without a name, above or below it; its frequency is typed next. */
    insert(above: boolean) {
      const like = table.active;
      if (!like) return;
      const { slot, list: _, ...fields } = like;
      const id = makeId('ch', crypto.getRandomValues(new Uint8Array(12))) as ChannelId;
      const result = store.apply({
        name: 'place',
        channels: [{ ...fields, id, name: '', fitted: {}, note: '', source: null }],
        placement: 'push-down',
        at: above ? slot : slot + 1,
        range: table.range,
        ...(table.list > 0 && { list: table.list }),
      });
      say(result);
      if (result.ok) setTimeout(() => table.selectLater(id, 'rx', true), 0);
    },
    /** Keeps that the chosen were heard at this moment. */
    async heardNow() {
      if (chosenChannels.length === 0) return;
      const at = new Date().toISOString();
      await telling(
        hand.hear(chosenChannels.map(({ id: channel }) => ({ channel, at }))),
        `Heard now: ${called(chosenChannels)}.`,
      );
    },
    /** Forgets the last time that the chosen were heard. */
    async notHeard() {
      const last = chosenChannels.flatMap(({ id: channel }) => {
        const known = hand.heard.get(channel);
        return known ? [{ channel, at: known.last }] : [];
      });
      if (last.length === 0) return setSaid('None of them was heard yet.');
      await telling(hand.hear([], last), `Not heard after all, the last time: ${called(chosenChannels)}.`);
    },
    /** Takes the chosen out of their slots and leaves them over, beside the table. */
    leaveOver() {
      if (chosenChannels.length === 0) return;
      say(
        store.apply(leavingOver(hand.plan, chosen)),
        `${chosenChannels.length} left over, beside the table.`,
      );
    },
  };
}
