'use client';

import { useDeferredValue, useEffect, useMemo, useState } from 'react';
import type { Channel, Plan } from '@/core/plan';
import type * as TableTools from '@/core/table';
import type { FactContext, ViewOrder, Wish } from '@/core/table';
import type { PlanInHand } from './use-plan';

type Tools = typeof TableTools;

/** What the table does beyond being looked at; comes when it is first asked for, once. */
let tools: Promise<Tools> | undefined;
export const tableTools = (): Promise<Tools> => (tools ??= import('@/core/table'));

const NO_WISHES: readonly Wish[] = [];

/** Whether a zone has a channel, for one plan; worked out when it is first asked. */
function zoneMembers({ zones }: Plan): (channel: Channel) => boolean {
  let members: ReadonlySet<string> | undefined;
  return ({ id }) => (members ??= new Set(zones.flatMap((zone) => zone.members))).has(id);
}

/**
 * Which channels are shown, and in which order: by words and facts, sorted or by slot. Nothing is moved by either. Typing into the
 * field never waits for the rows.
 */
export function useRows({ plan, shown, heard, heardAsked }: PlanInHand, listed: readonly Channel[]) {
  const [filter, setFilter] = useState('');
  const [order, setOrder] = useState<ViewOrder | null>(null);
  const [has, setHas] = useState<Tools | null>(null);
  const wanted = filter.trim() !== '' || order !== null;
  useEffect(() => {
    if (!wanted || has) return;
    let here = true;
    void tableTools().then((found) => here && setHas(found));
    return () => void (here = false);
  }, [wanted, has]);

  const asked = useDeferredValue(filter);
  const { owner } = plan;
  const wishes = useMemo(
    () => (has && asked.trim() !== '' ? has.readWishes(asked, owner) : NO_WISHES),
    [has, asked, owner],
  );
  const inZone = useMemo(() => zoneMembers(plan), [plan]);
  // What Check says changes beside the channels; only who asks by facts is concerned.
  const { number, of } = shown.views;
  const looked = wishes.length > 0 ? number : -1;
  const context = useMemo<FactContext>(
    () => ({
      rules: owner,
      severities: ({ id }) => [...new Set(of.get(id)?.findings.map(({ severity }) => severity))],
      inZone,
      heard,
      now: heardAsked,
    }),
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the same map is filled anew, which its number says
    [owner, of, looked, inZone, heard, heardAsked],
  );
  const { talkgroups, receiveLists, scanLists } = plan;
  const lists = useMemo(
    () => ({ talkgroups, receiveLists, scanLists }),
    [talkgroups, receiveLists, scanLists],
  );
  const rows = useMemo(() => {
    const found = has ? has.filterChannels(listed, wishes, context) : listed;
    return has && order ? has.inViewOrder(found, order, { home: owner.locator ?? '', heard, lists }) : found;
  }, [has, listed, wishes, context, order, owner.locator, heard, lists]);
  return {
    rows,
    filter,
    setFilter,
    /** How what was typed was read. */
    wishes,
    /** What facts are held against. */
    factContext: context,
    /** True where not all rows are shown. */
    filtered: filter.trim() !== '',
    order,
    /** The order that the rows are in: `order`, once what sorts is there. */
    sorted: has ? order : null,
    setOrder,
  };
}
