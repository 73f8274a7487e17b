'use client';

import clsx from 'clsx';
import { useMemo, useState } from 'react';
import { call, callFile, sentenceOf } from '@/api/call';
import { directoryApi } from '@/api/directories';
import { fileApi } from '@/api/files';
import { PAPER_NAMES, PAPERS } from '@/core/fit';
import { lossesOf, planOf } from '@/core/interchange';
import { countOf, KINDS, type Channel } from '@/core/plan';
import { Button, Field } from '@/ui';
import { OutMenu, type Outgoing } from '@/views/parts/out-menu';
import { useDesk } from './desk';

/** Takes the plan out, whole or what is chosen of it: as a file, or on paper. */
export function OutOfPlan({ className }: { className?: string }) {
  const { hand, table } = useDesk();
  const { plan } = hand;
  const { chosenChannels } = table;
  const what = useMemo((): Outgoing[] => {
    const params = { id: plan.id };
    const whole: Outgoing = {
      key: 'plan',
      label: 'The whole plan',
      take: (as) => callFile(fileApi.export, { params, query: { as } }),
      losses: (format) => lossesOf(plan, format),
    };
    const ids = chosenChannels.map(({ id }) => id);
    if (ids.length < 2) return [whole];
    return [
      {
        key: 'chosen',
        label: `The ${countOf(ids.length, KINDS.channel)} chosen`,
        take: (as) => callFile(fileApi.exportSome, { params, body: { as, ids } }),
        losses: (format) => lossesOf(planOf(plan, new Set(ids)), format),
      },
      whole,
    ];
  }, [plan, chosenChannels]);
  return (
    <OutMenu
      what={what}
      className={clsx(
        'inline-flex items-center gap-0.5 rounded-md px-2 py-1 text-[13px] hover:bg-sunk',
        className,
      )}
    >
      <ul aria-label="On paper" className="border-t border-line pt-2">
        {PAPERS.map((as) => (
          <li key={as}>
            <a
              href={`/plans/${plan.id}/paper?as=${as}`}
              target="_blank"
              className="grid grid-cols-[104px_1fr] items-baseline gap-x-2 rounded px-1.5 py-1 hover:bg-sunk"
            >
              <span className="font-medium">{PAPER_NAMES[as].name}</span>
              <span>{PAPER_NAMES[as].use}</span>
            </a>
          </li>
        ))}
      </ul>
      <KeepSet channels={chosenChannels.length > 1 ? chosenChannels : plan.channels} />
    </OutMenu>
  );
}

/** Keeps channels as a set to begin other plans with. */
function KeepSet({ channels }: { channels: readonly Channel[] }) {
  const [name, setName] = useState('');
  const [said, setSaid] = useState('');
  const keep = async () => {
    const fields = channels.map(({ id: _, slot: _slot, list: _list, ...rest }) => rest);
    try {
      await call(directoryApi.keepSet, { body: { name, channels: fields } });
      setSaid(`Kept as “${name}”: Find fills radios with it.`);
      setName('');
    } catch (error) {
      setSaid(sentenceOf(error));
    }
  };
  return (
    <form
      className="border-t border-line pt-2"
      onSubmit={(event) => {
        event.preventDefault();
        if (name.trim() !== '') void keep();
      }}
    >
      <div className="flex items-end gap-2">
        <Field
          label={`Keep ${countOf(channels.length, KINDS.channel)} as a starter set called`}
          className="flex-1"
          value={name}
          maxLength={60}
          onChange={(event) => setName(event.target.value)}
        />
        <Button type="submit" disabled={name.trim() === '' || channels.length === 0}>
          Keep
        </Button>
      </div>
      {said !== '' && (
        <p role="status" className="pt-1 text-[12px] text-soft">
          {said}
        </p>
      )}
    </form>
  );
}
