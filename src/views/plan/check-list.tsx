'use client';

import clsx from 'clsx';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { ChevronRight } from 'lucide-react';
import Link from 'next/link';
import { useMemo, useState } from 'react';
import { groupFindings, groupKey, type Finding, type FindingGroup } from '@/core/check';
import { countOf, KINDS, recordsOf, type AnyRecord, type Edit, type Plan } from '@/core/plan';
import { capital } from '@/core/text';
import { Button, LongList, SeverityMark, type ListRow } from '@/ui';
import { item, type SideListProps } from './side-list';

interface Props extends SideListProps {
  onMend: (edit: Edit) => void;
}

/** What Check says: a row a kind of finding, opened on demand; with its mends. */
export function CheckList({ shown, active, onSelect, onMend }: Props) {
  const { views, nameOf } = shown;
  const [open, setOpen] = useState<ReadonlySet<string>>(new Set());
  /** The findings that were asked why. */
  const [why, setWhy] = useState<ReadonlySet<string>>(new Set());
  const groups = useMemo(() => groupFindings(views.findings(), views.lookedFor), [views]);
  const toggle = (key: string) =>
    setOpen((now) => {
      const next = new Set(now);
      if (!next.delete(key)) next.add(key);
      return next;
    });
  const one = (finding: Finding, within: boolean): ListRow => ({
    key: `${finding.rule} ${finding.id} ${finding.text}`,
    className: clsx(item, within && 'pl-6', finding.id === active && 'bg-wash-faint'),
    show: () => (
      <>
        {finding.kind === 'channel' ? (
          <button
            type="button"
            className="flex w-full items-center gap-2 text-left"
            onClick={() => onSelect(finding.id, finding.field)}
          >
            <SeverityMark severity={finding.severity} />
            <span className="mono text-soft">{nameOf(finding.id).slot}</span>
            <span className="truncate font-medium">{nameOf(finding.id).name}</span>
          </button>
        ) : (
          <Link
            prefetch={false}
            href={`/plans/${views.plan!.id}/organise`}
            title="Show in Organise"
            className="flex w-full items-center gap-2 hover:underline"
          >
            <SeverityMark severity={finding.severity} />
            <span className="truncate font-medium">{calledIn(finding, views.plan!)}</span>
          </Link>
        )}
        <p className="pt-0.5 pl-5 text-soft">{finding.text}</p>
        {finding.source && <p className="pl-5 text-[12px] text-soft">By {finding.source}</p>}
        {why.has(`${finding.rule} ${finding.id}`) && (
          <p className="pl-5 pt-1 text-[12.5px]">
            Looked for: {views.lookedFor[finding.rule]}.
            {finding.kind === 'channel' &&
              ' The strip above shows this channel, strong, among the others; where you may transmit is the copper line below it.'}
          </p>
        )}
        <Mends
          shown={shown}
          finding={finding}
          onMend={onMend}
          onWhy={() => {
            if (finding.kind === 'channel') onSelect(finding.id, finding.field);
            setWhy((now) => new Set(now).add(`${finding.rule} ${finding.id}`));
          }}
        />
      </>
    ),
  });
  if (views.plan === null) return <p className="p-3 text-[13px] text-soft">Being checked…</p>;
  if (groups.length === 0)
    return (
      <p className="p-3 text-[13px] text-soft">
        Nothing to say: everything here will be written as it stands.
      </p>
    );
  const ofActive = new Set((active === null ? undefined : views.of.get(active))?.findings.map(groupKey));
  const rows = groups.flatMap((group): ListRow[] => {
    if (group.findings.length === 1) return [one(group.findings[0]!, false)];
    const isOpen = open.has(group.key);
    return [
      {
        key: group.key,
        className: clsx(item, !isOpen && ofActive.has(group.key) && 'bg-wash-faint'),
        show: () => (
          <Group
            shown={shown}
            group={group}
            isOpen={isOpen}
            onToggle={() => toggle(group.key)}
            onMend={onMend}
          />
        ),
      },
      ...(isOpen ? group.findings.map((finding) => one(finding, true)) : []),
    ];
  });
  return (
    <>
      {groups.length > 1 && <MendAll shown={shown} onMend={onMend} />}
      <LongList label="Findings" rows={rows} />
    </>
  );
}

/** The best way out of everything at once: what that comes to is shown first. */
function MendAll({ shown, onMend }: { shown: Props['shown']; onMend: (edit: Edit) => void }) {
  const [asked, setAsked] = useState(false);
  const { data } = useQuery({
    queryKey: ['mend all', shown.views.plan?.id, shown.views.number],
    queryFn: () => shown.mendAll(),
    enabled: asked,
    gcTime: 0,
  });
  if (!asked)
    return (
      <p className="shrink-0 border-b border-line px-3 py-1.5">
        <Button kind="quiet" size="small" className="-ml-2" onClick={() => setAsked(true)}>
          Mend what can be…
        </Button>
      </p>
    );
  return (
    <div
      role="group"
      aria-label="Mend what can be"
      className="shrink-0 border-b border-line-strong bg-paper px-3 py-2 text-[13px]"
    >
      {data === undefined && <p className="text-soft">Being worked out…</p>}
      {data === null && <p>Of these each wants a choice of yours.</p>}
      {data && (
        <ul aria-label="What would be done" className="max-h-40 overflow-y-auto">
          {data.parts.map(({ label, count }) => (
            <li key={label} className="flex justify-between gap-3">
              <span>{label}</span>
              <span className="text-soft tabular-nums">
                {count === 1 ? '1 channel' : `${count} channels`}
              </span>
            </li>
          ))}
        </ul>
      )}
      {data && data.left > 0 && (
        <p className="pt-1 text-soft">
          {data.left === 1 ? 'One is left: it wants' : `${data.left} are left: they want`} a choice of yours.
        </p>
      )}
      <p className="flex gap-2 pt-2">
        {data && (
          <Button
            size="small"
            kind="strong"
            onClick={() => {
              onMend(data.edit);
              setAsked(false);
            }}
          >
            Mend {data.parts.reduce((sum, { count }) => sum + count, 0)}
          </Button>
        )}
        <Button size="small" onClick={() => setAsked(false)}>
          Leave it
        </Button>
      </p>
    </div>
  );
}

/** The record that a finding is about, by kind and name: “Zone Day 1”. */
function calledIn({ kind, id }: Finding, plan: Plan): string {
  if (kind === 'plan') return plan.name;
  const record = (recordsOf(plan, kind) as readonly AnyRecord[]).find((one) => one.id === id);
  return `${capital(KINDS[kind].words.one)} ${record?.name ?? ''}`;
}

/** How many records findings are about: `4 channels`. */
function ofSuch(findings: readonly Finding[]): string {
  const [{ kind }] = findings as readonly [Finding, ...Finding[]];
  return kind === 'plan' || findings.some((one) => one.kind !== kind)
    ? `${findings.length} findings`
    : countOf(findings.length, KINDS[kind]);
}

/** A kind of finding: how many, what of, and the one mend for all. */
function Group({
  shown,
  group,
  isOpen,
  onToggle,
  onMend,
}: {
  shown: Props['shown'];
  group: FindingGroup;
  isOpen: boolean;
  onToggle: () => void;
  onMend: (edit: Edit) => void;
}) {
  const { together } = useWays(shown, { group: group.key });
  const { key, severity, text, findings } = group;
  return (
    <>
      <button
        type="button"
        aria-expanded={isOpen}
        className="flex w-full items-center gap-2 text-left"
        onClick={onToggle}
      >
        <SeverityMark severity={severity} />
        <span className="font-medium">{ofSuch(findings)}</span>
        <span className="mono min-w-0 flex-1 truncate text-[12px] text-soft">
          {findings
            .slice(0, 8)
            .map((one) => (one.kind === 'channel' ? shown.nameOf(one.id).slot : ''))
            .join(' ')}
        </span>
        <ChevronRight aria-hidden size={14} className={clsx('shrink-0 text-soft', isOpen && 'rotate-90')} />
      </button>
      <p className="pt-0.5 pl-5 text-soft">{text}</p>
      {together && (
        <p className="pt-1 pl-5" key={key}>
          <Button
            size="small"
            aria-label={`${together.label}: all ${together.count}`}
            onClick={() => onMend(together.edit)}
          >
            {together.label}, {together.count === findings.length ? `all ${together.count}` : together.count}
          </Button>
        </p>
      )}
    </>
  );
}

const NO_WAYS = { mends: [], together: null };

/** The ways out, asked for when they are to be seen. */
function useWays(shown: Props['shown'], of: Parameters<Props['shown']['ways']>[0]) {
  const { data } = useQuery({
    // Made of what is shown: another plan, other ways. The last ones stay until those come.
    queryKey: ['ways', shown.views.plan?.id, shown.views.number, of],
    queryFn: () => shown.ways(of),
    placeholderData: keepPreviousData,
    gcTime: 0,
  });
  return data ?? NO_WAYS;
}

function Mends({
  shown,
  finding,
  onMend,
  onWhy,
}: {
  shown: Props['shown'];
  finding: Finding;
  onMend: (edit: Edit) => void;
  onWhy: () => void;
}) {
  const { id, rule, text } = finding;
  const { mends } = useWays(shown, { id, rule, text });
  return (
    <p className="flex flex-wrap gap-1.5 pt-1 pl-5">
      {mends.map((mend) => (
        <Button key={mend.label} size="small" onClick={() => onMend(mend.edit)}>
          {mend.label}
        </Button>
      ))}
      <Button size="small" kind="quiet" onClick={onWhy}>
        Why
      </Button>
    </p>
  );
}
