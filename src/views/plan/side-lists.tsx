'use client';

import clsx from 'clsx';
import { Tabs } from 'radix-ui';
import { memo, useEffect, useMemo, useState } from 'react';
import { mendTogether, SEVERITIES, type Finding } from '@/core/check';
import type { FindingField } from '@/core/check';
import type { ChannelId, Edit } from '@/core/plan';
import { ask, Button, sentenceOf, SeverityMark } from '@/ui';
import type { ShownPlan } from './use-plan';

interface Props {
  hand: ShownPlan;
  revision: number;
  active: ChannelId | null;
  tab: SideTab;
  onTab: (tab: SideTab) => void;
  onSelect: (id: ChannelId, field: FindingField) => void;
  onMend: (edit: Edit) => void;
  onAbbreviations: () => void;
  onGoBack: (revision: number) => void;
}

export type SideTab = 'check' | 'fit' | 'history';

const MANY: Record<Finding['severity'], string> = { stop: 'stops', caution: 'cautions', hint: 'hints' };

/** How many there are of each severity, in words. */
export function counts(
  findings: readonly Finding[],
): { severity: Finding['severity']; n: number; text: string }[] {
  return SEVERITIES.map((severity) => ({
    severity,
    n: findings.filter((finding) => finding.severity === severity).length,
  }))
    .filter(({ n }) => n > 0)
    .map(({ severity, n }) => ({ severity, n, text: `${n} ${n === 1 ? severity : MANY[severity]}` }));
}

/** What Check says, what the fit changes, what has been done: beside the table. */
export const SideLists = memo(function SideLists({
  hand,
  revision,
  active,
  tab,
  onTab,
  onSelect,
  onMend,
  onAbbreviations,
  onGoBack,
}: Props) {
  const { findings, fit } = hand;
  const trigger =
    'flex-1 border-b-2 border-transparent px-1 py-1.5 text-[13px] text-soft data-[state=active]:border-ink data-[state=active]:font-semibold data-[state=active]:text-ink';
  return (
    <Tabs.Root
      value={tab}
      onValueChange={(value) => onTab(value as SideTab)}
      className="flex min-h-0 flex-1 flex-col rounded-md border border-line bg-sheet"
    >
      <Tabs.List aria-label="Beside the table" className="flex shrink-0 border-b border-line px-1">
        <Tabs.Trigger value="check" className={trigger}>
          Check {findings.length}
        </Tabs.Trigger>
        <Tabs.Trigger value="fit" className={trigger}>
          Fit {fit.changes.length + fit.leftOut.length}
        </Tabs.Trigger>
        <Tabs.Trigger value="history" className={trigger}>
          History
        </Tabs.Trigger>
      </Tabs.List>
      <Tabs.Content value="check" className="min-h-0 flex-1 overflow-y-auto">
        <CheckList hand={hand} active={active} onSelect={onSelect} onMend={onMend} />
      </Tabs.Content>
      <Tabs.Content value="fit" className="min-h-0 flex-1 overflow-y-auto">
        <FitList hand={hand} active={active} onSelect={onSelect} />
        <p className="p-2">
          <Button kind="quiet" size="small" onClick={onAbbreviations}>
            Change the abbreviations
          </Button>
        </p>
      </Tabs.Content>
      <Tabs.Content value="history" className="min-h-0 flex-1 overflow-y-auto">
        <HistoryList id={hand.plan.id} revision={revision} onGoBack={onGoBack} />
      </Tabs.Content>
    </Tabs.Root>
  );
});

const item = 'border-b border-line px-3 py-2 text-[13px]';
/** The chosen channel's rows come first. */
const ownFirst = <T extends { id: ChannelId }>(list: readonly T[], active: ChannelId | null) => [
  ...list.filter(({ id }) => id === active),
  ...list.filter(({ id }) => id !== active),
];

function useNames(hand: ShownPlan) {
  return useMemo(
    () =>
      new Map(
        hand.plan.channels.map((channel) => [
          channel.id,
          { slot: String(channel.slot).padStart(3, '0'), name: channel.name || 'no name' },
        ]),
      ),
    [hand.plan.channels],
  );
}

/** For the first of several findings that are mended alike: what mends them all. */
function mendedAlike(findings: readonly Finding[]) {
  const seen = new Set<string>();
  const together = new Map<Finding, NonNullable<ReturnType<typeof mendTogether>>>();
  for (const finding of findings) {
    if (!finding.mend) continue;
    const kind = `${finding.rule} ${finding.mend.label}`;
    const all = seen.has(kind) ? undefined : mendTogether(findings, finding);
    seen.add(kind);
    if (all) together.set(finding, all);
  }
  return together;
}

function CheckList({
  hand,
  active,
  onSelect,
  onMend,
}: Pick<Props, 'hand' | 'active' | 'onSelect' | 'onMend'>) {
  const names = useNames(hand);
  const together = useMemo(() => mendedAlike(hand.findings), [hand.findings]);
  if (hand.findings.length === 0)
    return (
      <p className="p-3 text-[13px] text-soft">
        Nothing to say: everything here will be written as it stands.
      </p>
    );
  return (
    <ul aria-label="Findings">
      {hand.findings.map((finding) => (
        <li
          key={finding.rule + finding.id + finding.field}
          className={clsx(item, finding.id === active && 'bg-wash-faint')}
        >
          <button
            type="button"
            className="flex w-full items-center gap-2 text-left"
            onClick={() => onSelect(finding.id, finding.field)}
          >
            <SeverityMark severity={finding.severity} />
            <span className="mono text-soft">{names.get(finding.id)?.slot}</span>
            <span className="truncate font-medium">{names.get(finding.id)?.name}</span>
          </button>
          <p className="pt-0.5 pl-5 text-soft">{finding.text}</p>
          {finding.mend && (
            <p className="flex gap-1.5 pt-1 pl-5">
              <Button size="small" onClick={() => onMend(finding.mend!.edit)}>
                {finding.mend.label}
              </Button>
              {together.has(finding) && (
                <Button
                  size="small"
                  aria-label={`${finding.mend.label}: all ${together.get(finding)!.count}`}
                  onClick={() => onMend(together.get(finding)!.edit)}
                >
                  All {together.get(finding)!.count}
                </Button>
              )}
            </p>
          )}
        </li>
      ))}
    </ul>
  );
}

const LEFT_OUT: Record<string, string> = {
  slot: 'its slot is not in this radio',
  'receive range': 'this radio does not tune there',
  'receive step': 'receive lies between the steps',
  'transmit step': 'transmit lies between the steps',
  mode: 'this radio lacks the mode',
  access: 'this radio lacks the tone or code',
};

function FitList({ hand, active, onSelect }: Pick<Props, 'hand' | 'active' | 'onSelect'>) {
  const names = useNames(hand);
  const { fit, model } = hand;
  if (fit.changes.length + fit.leftOut.length === 0)
    return <p className="p-3 text-[13px] text-soft">The {model.name} holds this plan as it stands.</p>;
  return (
    <ul aria-label="What this radio changes">
      {fit.leftOut.map(({ id, obstacles }) => (
        <li key={id} className={clsx(item, id === active && 'bg-wash-faint')}>
          <button type="button" className="text-left" onClick={() => onSelect(id, 'name')}>
            <span className="mono text-soft">{names.get(id)?.slot}</span>{' '}
            <span className="font-medium">{names.get(id)?.name}</span>
            <br />
            Left out: {obstacles.map((obstacle) => LEFT_OUT[obstacle]).join(', ')}.
          </button>
        </li>
      ))}
      {ownFirst(fit.changes, active).map((change) => (
        <li key={change.id + change.what} className={clsx(item, change.id === active && 'bg-wash-faint')}>
          <button
            type="button"
            className="w-full text-left"
            onClick={() => onSelect(change.id, change.what === 'transmit' ? 'tx' : change.what)}
          >
            <span className="flex gap-2">
              <span className="mono text-soft">{names.get(change.id)?.slot}</span>
              <span>{change.text}</span>
            </span>
            <span className="block pl-8 text-[12px] text-soft">{change.because}</span>
          </button>
        </li>
      ))}
    </ul>
  );
}

interface LogRow {
  revision: number;
  kind: 'edit' | 'undo' | 'redo';
  label: string;
  at: string;
}

function GoBack({ revision, onGoBack }: { revision: number; onGoBack: Props['onGoBack'] }) {
  return (
    <button
      type="button"
      className="text-[12px] text-soft underline hover:text-ink"
      aria-label={`Go back to revision ${revision}`}
      onClick={() => onGoBack(revision)}
    >
      Go back to here
    </button>
  );
}

const KIND = { edit: '', undo: 'Undone: ', redo: 'Done again: ' };

function HistoryList({
  id,
  revision,
  onGoBack,
}: {
  id: string;
  revision: number;
  onGoBack: Props['onGoBack'];
}) {
  const [log, setLog] = useState<LogRow[] | null>(null);
  const [trouble, setTrouble] = useState('');
  useEffect(() => {
    let gone = false;
    ask<{ edits: LogRow[] }>(`/api/plans/${id}/edits?limit=200`).then(
      ({ edits }) => !gone && setLog(edits),
      (error: unknown) => !gone && setTrouble(sentenceOf(error)),
    );
    return () => {
      gone = true;
    };
  }, [id, revision]);
  const time = useMemo(
    () => new Intl.DateTimeFormat(undefined, { dateStyle: 'short', timeStyle: 'short' }),
    [],
  );
  if (trouble) return <p className="p-3 text-[13px] text-stop">{trouble}</p>;
  return (
    <ol aria-label="What has been done, newest first" reversed>
      {log?.map((row) => (
        <li key={row.revision} className={item}>
          <span className="flex justify-between gap-3">
            <span className={clsx(row.kind === 'undo' && 'text-soft')}>
              {KIND[row.kind]}
              {row.label}
            </span>
            <time dateTime={row.at} className="shrink-0 text-[12px] text-soft">
              {time.format(new Date(row.at))}
            </time>
          </span>
          {row.revision < revision && <GoBack revision={row.revision} onGoBack={onGoBack} />}
        </li>
      ))}
      {log && (log.at(-1)?.revision ?? 2) === 2 && (
        <li className={item}>
          The plan as it was made
          {revision > 1 && <GoBack revision={1} onGoBack={onGoBack} />}
        </li>
      )}
    </ol>
  );
}
