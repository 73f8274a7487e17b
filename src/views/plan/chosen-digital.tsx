'use client';

import { useId, useMemo, useState } from 'react';
import {
  callNumberText,
  LEVELS,
  parseCallNumber,
  POLITENESS_WORDS,
  type Channel,
  type Plan,
  type ReceiveListId,
  type ScanListId,
  type TalkgroupId,
} from '@/core/plan';
import { hasTalkgroups } from '@/core/radio';
import { Choice, Field } from '@/ui';
import { Part } from './chosen-part';
import { useDesk } from './desk';

const MIXED = 'mixed';
const NONE = 'none';

/** What each way of sending does on a busy or a noisy channel, in a sentence. */
const POLITE_MEANS: Record<keyof typeof POLITENESS_WORDS, string> = {
  impolite: 'Sends whatever is heard, over others too.',
  'own colour code':
    'Waits while somebody of its own colour code sends; strangers and noise do not hold it back.',
  all: 'Waits while anything is louder than the level, strangers and noise among it.',
};

/** The value that all of some channels have in common; undefined where they differ. */
function common<T>(channels: readonly Channel[], of: (channel: Channel) => T): T | undefined {
  const first = of(channels[0]!);
  return channels.every((channel) => of(channel) === first) ? first : undefined;
}

/** Whom digital channels call, what they hear and scan, and when they may send. */
export function Digital({ channels }: { channels: readonly Channel[] }) {
  const { hand, actions } = useDesk();
  const { model, plan } = hand;
  const digital = model.digital && channels.some(({ mode }) => hasTalkgroups(mode));
  const scans = model.scanLists?.by === 'channel';
  if (!digital && !scans) return null;
  const set = (fields: Partial<Channel>) => void actions.many({ what: 'set', set: fields });
  const options = (records: readonly { id: string; name: string }[], value: string | null | undefined) => [
    ...(value === undefined ? [[MIXED, 'mixed'] as const] : []),
    [NONE, 'none'] as const,
    ...records.map(({ id, name }) => [id, name] as const),
  ];
  const chosen = (value: string | null | undefined) => (value === undefined ? MIXED : (value ?? NONE));
  const receiveList = common(channels, (channel) => channel.receiveList ?? null);
  const scanList = common(channels, (channel) => channel.scanList ?? null);
  return (
    <Part title="Calls, hears, scans">
      {digital && (
        <>
          <CalledField
            key={common(channels, ({ talkgroup }) => talkgroup ?? null) ?? MIXED}
            channels={channels}
            plan={plan}
            onSet={set}
          />
          <Choice
            label="Receive list"
            value={chosen(receiveList)}
            options={options(plan.receiveLists, receiveList)}
            onChange={(id) =>
              id !== MIXED && set({ receiveList: id === NONE ? null : (id as ReceiveListId) })
            }
          />
        </>
      )}
      {scans && (
        <Choice
          label="Scan list"
          value={chosen(scanList)}
          options={options(plan.scanLists, scanList)}
          onChange={(id) => id !== MIXED && set({ scanList: id === NONE ? null : (id as ScanListId) })}
        />
      )}
      {digital && <MaySend channels={channels} onSet={set} />}
    </Part>
  );
}

/** The talkgroup that is called, by name or number. */
function CalledField({
  channels,
  plan,
  onSet,
}: {
  channels: readonly Channel[];
  plan: Plan;
  onSet: (fields: Partial<Channel>) => void;
}) {
  const list = useId();
  const now = common(channels, ({ talkgroup }) => talkgroup ?? null);
  const group = plan.talkgroups.find(({ id }) => id === now);
  const before = group?.name ?? '';
  const [text, setText] = useState(before);
  const [problem, setProblem] = useState<string>();
  const matching = useMemo(() => {
    const wanted = text.trim().toLowerCase();
    return plan.talkgroups
      .filter(({ name, number }) => name.toLowerCase().includes(wanted) || String(number).startsWith(wanted))
      .slice(0, 50);
  }, [plan.talkgroups, text]);
  const take = () => {
    if (text.trim() === before) return setProblem(undefined);
    if (text.trim() === '') return onSet({ talkgroup: null });
    const wanted = text.trim().toLowerCase();
    const parsed = parseCallNumber(text);
    const numbers = !parsed.ok
      ? []
      : parsed.value.kind === 'one'
        ? [parsed.value.number]
        : [parsed.value.decimal, parsed.value.hexadecimal];
    const byName = plan.talkgroups.filter(({ name }) => name.toLowerCase() === wanted);
    const found =
      byName.length > 0 ? byName : plan.talkgroups.filter(({ number }) => numbers.includes(number));
    if (found.length === 1) return onSet({ talkgroup: found[0]!.id as TalkgroupId });
    setProblem(
      found.length === 0
        ? 'The plan has no such talkgroup: add it under Organise, Talkgroups.'
        : `That may be ${found.map(({ name, number }) => `${name}, ${callNumberText(number)}`).join(' or ')}: write its name.`,
    );
  };
  return (
    <>
      <Field
        id={`called-${list}`}
        label="Calls the talkgroup"
        list={list}
        placeholder={now === undefined ? 'mixed' : 'nobody'}
        value={text}
        problem={problem}
        onChange={(event) => setText(event.target.value)}
        onBlur={take}
        onKeyDown={(event) => {
          if (event.key === 'Enter') take();
          if (event.key === 'Escape') setText(before);
        }}
      />
      <datalist id={list}>
        {matching.map(({ id, name, number }) => (
          <option key={id} value={name}>
            {callNumberText(number)}
          </option>
        ))}
      </datalist>
      {group && <p className="mono text-[12px] text-soft">{callNumberText(group.number)}</p>}
    </>
  );
}

/** When they may send, in the words of ETSI TS 102 361-1, each with what it does. */
function MaySend({
  channels,
  onSet,
}: {
  channels: readonly Channel[];
  onSet: (fields: Partial<Channel>) => void;
}) {
  const { hand } = useDesk();
  const { politeness: knows, levels } = hand.model.digital!;
  const now = common(channels, ({ politeness }) => politeness?.to ?? 'impolite');
  const level = common(channels, ({ politeness }) =>
    politeness?.to === 'all' ? politeness.level : LEVELS.usual,
  );
  const [text, setText] = useState(String(level ?? ''));
  return (
    <>
      <div className="grid grid-cols-[1fr_auto] items-end gap-1.5">
        <Choice
          label="When it may send"
          value={now ?? MIXED}
          options={[
            ...(now === undefined ? [[MIXED, 'mixed'] as const] : []),
            ...knows.map((one) => [one as string, POLITENESS_WORDS[one]] as const),
          ]}
          onChange={(to) => {
            if (to === 'all') onSet({ politeness: { to, level: level ?? LEVELS.usual } });
            else if (to === 'impolite' || to === 'own colour code') onSet({ politeness: { to } });
          }}
        />
        {now === 'all' && levels && (
          <Field
            className="w-20"
            label="dBm"
            inputMode="numeric"
            value={text}
            onChange={(event) => setText(event.target.value)}
            onBlur={() => {
              const typed = Number(text.replace('−', '-'));
              if (Number.isInteger(typed) && typed >= levels.from && typed <= levels.to) {
                if (typed !== level) onSet({ politeness: { to: 'all', level: typed } });
              } else setText(String(level ?? LEVELS.usual));
            }}
          />
        )}
      </div>
      {now && <p className="text-[12.5px] text-soft">{POLITE_MEANS[now]}</p>}
    </>
  );
}
