'use client';

import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { call } from '@/api/call';
import { planApi } from '@/api/plans';
import { KINDS, referringTo, type Channel } from '@/core/plan';
import { ALIKE, ALIKE_NAMES, type Alike } from '@/core/table';
import { capital } from '@/core/text';
import { Button, Moment } from '@/ui';
import { Part } from './chosen-part';
import { useDesk } from './desk';

/** What was done to one channel, the newest first. */
function Done({ channel }: { channel: Channel }) {
  const { hand } = useDesk();
  const { id } = hand.plan;
  const { data } = useQuery({
    queryKey: ['log', id, hand.revision, 'of', channel.id],
    queryFn: () =>
      call(planApi.edits, { params: { id }, query: { channel: channel.id, limit: 6, before: undefined } }),
    placeholderData: keepPreviousData,
  });
  if (!data || data.edits.length === 0) return null;
  return (
    <Part title="What was done to it">
      <ul className="flex flex-col gap-1">
        {data.edits.map(({ revision, label, kind, at }) => (
          <li key={revision}>
            {kind === 'undo' && 'Undone: '}
            {label}{' '}
            <span className="text-[12px] text-soft">
              <Moment at={at} />
            </span>
          </li>
        ))}
      </ul>
    </Part>
  );
}

/** Whether they were heard on the air, how often and when last. */
function OnTheAir({ channels }: { channels: readonly Channel[] }) {
  const { hand, actions } = useDesk();
  const known = channels.flatMap(({ id }) => hand.heard.get(id) ?? []);
  const times = known.reduce((n, one) => n + one.times, 0);
  const last = known.reduce((newest, one) => (one.last > newest ? one.last : newest), '');
  return (
    <Part title="Heard">
      <p className={known.length === 0 ? 'text-soft' : ''}>
        {known.length === 0
          ? 'Never yet, as far as anybody said.'
          : `${times === 1 ? 'Once' : `${times} times`}${channels.length > 1 ? `, ${known.length} of ${channels.length}` : ''}, last `}
        {last && <Moment at={last} />}
      </p>
      <div className="flex flex-wrap gap-1 pt-1">
        <Button size="small" onClick={() => void actions.heardNow()}>
          Heard just now
        </Button>
        {known.length > 0 && (
          <Button size="small" kind="quiet" onClick={() => void actions.notHeard()}>
            Not after all
          </Button>
        )}
      </div>
    </Part>
  );
}

/** The rest: where they are used, and what else is like them. */
export function Rest({ channels }: { channels: readonly Channel[] }) {
  const { hand, actions } = useDesk();
  const uses = useMemo(
    () => referringTo(hand.plan, 'channel', new Set(channels.map(({ id }) => id))),
    [hand.plan, channels],
  );
  return (
    <>
      <OnTheAir channels={channels} />
      <Part title="Where it is used">
        {uses.length === 0 ? (
          <p className="text-soft">In no {hand.model.zones?.word ?? 'zone'} and in nothing else.</p>
        ) : (
          uses.map(({ kind, records }) => (
            <p key={kind}>
              <span className="text-soft">{capital(KINDS[kind].words.many)}:</span>{' '}
              {records.map(({ name }) => name).join(', ')}
            </p>
          ))
        )}
      </Part>
      {channels.length === 1 && <Done channel={channels[0]!} />}
      <Part title="Choose all with">
        <div className="flex flex-wrap gap-1">
          {ALIKE.map((alike: Alike) => (
            <Button key={alike} size="small" kind="quiet" onClick={() => void actions.alike(alike)}>
              {ALIKE_NAMES[alike]}
            </Button>
          ))}
        </div>
      </Part>
    </>
  );
}
