'use client';

import { useMemo, useState } from 'react';
import { formatAccess, formatFrequency, formatPower, formatShift, MODES, type Mode } from '@/core/radio';
import { parseCell, slotText, type Channel } from '@/core/plan';
import { CASES, changesFor, commonFields, type Common, type LetterCase } from '@/core/table';
import { Button, Choice, Field, Scroll, SeverityMark } from '@/ui';
import { Digital } from './chosen-digital';
import { Part } from './chosen-part';
import { Rest } from './chosen-rest';
import { useDesk } from './desk';

/**
 * Everything of what is chosen, one channel or many: what it is, what it does on air, what is wrong, the rest. What the chosen do
 * not have in common is said to be mixed; what is set here is set on all of them, as one edit.
 */
export function ChosenPane() {
  const { table } = useDesk();
  const { chosenChannels: channels } = table;
  if (channels.length === 0)
    return (
      <p className="p-3 text-[13px] text-soft">
        Nothing is chosen. Click a row, Shift and Ctrl for several, a heading for all, or drag over the band
        strip.
      </p>
    );
  return (
    <Scroll label="What is chosen" className="flex-1 text-[13px]">
      <What channels={channels} />
      <OnAir channels={channels} />
      <Digital channels={channels} />
      {channels.length > 1 && (
        <Part title="Names">
          <Names channels={channels} />
        </Part>
      )}
      <Wrong channels={channels} />
      <Rest channels={channels} />
    </Scroll>
  );
}

/** What it is: its name, where it is from, its note and its tags. */
function What({ channels }: { channels: readonly Channel[] }) {
  const { actions } = useDesk();
  const [only] = channels;
  const one = channels.length === 1;
  const { tags, note } = useMemo(() => commonFields(channels), [channels]);
  const [tag, setTag] = useState('');
  const source = one ? only!.source : null;
  return (
    <Part title={one ? `Slot ${slotText(only!.slot)}` : `${channels.length} channels`}>
      {one && <p className="text-[15px] font-semibold">{only!.name || 'no name'}</p>}
      {source && (
        <p className="text-soft">
          {[source.call, source.place, source.service].filter(Boolean).join(', ')}
          {source.directory && ` · ${source.directory}`}{' '}
          {source.lat !== undefined && (
            <a href="#news" className="whitespace-nowrap underline">
              What has changed?
            </a>
          )}
        </p>
      )}
      {!one && (
        <Text
          key={`note ${note.kind} ${note.kind === 'all' ? note.value : ''}`}
          label="Note"
          common={note}
          onSet={(text) => void actions.many({ what: 'set', set: { note: text } })}
        />
      )}
      <div className="flex flex-wrap items-center gap-1">
        {tags.map(({ tag: own, n }) => (
          <button
            key={own}
            type="button"
            aria-label={`Take the tag ${own} off`}
            title="Take it off"
            className="rounded-full border border-line-strong bg-wash px-2 py-px hover:line-through"
            onClick={() => void actions.many({ what: 'tag', tag: own, on: false })}
          >
            #{own}
            {n < channels.length && <span className="text-[11.5px] text-soft"> {n}</span>}
          </button>
        ))}
        <form
          onSubmit={(event) => {
            event.preventDefault();
            if (tag.trim() !== '')
              void actions.many({ what: 'tag', tag: tag.trim().replace(/^#/, ''), on: true });
            setTag('');
          }}
        >
          <input
            aria-label="Add a tag"
            placeholder="add a tag"
            maxLength={24}
            value={tag}
            onChange={(event) => setTag(event.target.value)}
            className="h-6 w-24 rounded-md border border-line-strong bg-sheet px-1.5 text-[12.5px] placeholder:text-soft"
          />
        </form>
      </div>
    </Part>
  );
}

/** A name for each by a template, and how its letters are; what comes of it is shown first. */
function Names({ channels }: { channels: readonly Channel[] }) {
  const { hand, actions } = useDesk();
  const [template, setTemplate] = useState('');
  const preview = useMemo(
    () => (template.trim() === '' ? null : changesFor(channels, { what: 'name', template }, hand.plan.owner)),
    [channels, template, hand.plan.owner],
  );
  return (
    <form
      className="flex flex-col gap-1.5"
      onSubmit={(event) => {
        event.preventDefault();
        if (preview && preview.changes.length > 0) void actions.many({ what: 'name', template });
        setTemplate('');
      }}
    >
      <Field
        id="name-template"
        label="Names by a template"
        placeholder="{call} {band} {n}"
        value={template}
        onChange={(event) => setTemplate(event.target.value)}
      />
      {preview && (
        <p aria-live="polite" className="text-soft">
          {preview.changes.length > 0 &&
            `${preview.changes
              .slice(0, 3)
              .map(({ set }) => set.name)
              .join(', ')}${preview.changes.length > 3 ? ' …' : ''}. `}
          {preview.left > 0 && `${preview.left} stay as they are: ${preview.reason}`}
        </p>
      )}
      <div className="flex flex-wrap gap-1">
        {preview && preview.changes.length > 0 && (
          <Button size="small" type="submit">
            Name {preview.changes.length}
          </Button>
        )}
        {!preview &&
          CASES.map((to: LetterCase) => (
            <Button key={to} size="small" onClick={() => void actions.many({ what: 'case', to })}>
              {to === 'Each Word' ? 'Each Word' : to === 'capitals' ? 'CAPITALS' : 'small letters'}
            </Button>
          ))}
      </div>
    </form>
  );
}

/** A text that all of them have, or that is mixed; Enter sets it on all. */
function Text({
  label,
  common,
  onSet,
  problemOf,
}: {
  label: string;
  common: Common<string>;
  onSet: (text: string) => void;
  problemOf?: (text: string) => string | undefined;
}) {
  const before = common.kind === 'all' ? common.value : '';
  const [text, setText] = useState(before);
  const [problem, setProblem] = useState<string>();
  const take = () => {
    if (text === before) return;
    const found = problemOf?.(text);
    setProblem(found);
    if (found === undefined) onSet(text);
  };
  return (
    <Field
      id={`chosen-${label}`}
      label={label}
      placeholder={common.kind === 'mixed' ? 'mixed' : undefined}
      value={text}
      problem={problem}
      maxLength={500}
      onChange={(event) => setText(event.target.value)}
      onBlur={take}
      onKeyDown={(event) => {
        if (event.key === 'Enter') take();
        if (event.key === 'Escape') setText(before);
      }}
    />
  );
}

const MIXED = 'mixed';

/** What it does on air. */
function OnAir({ channels }: { channels: readonly Channel[] }) {
  const { hand, actions } = useDesk();
  const { model, context } = hand;
  const { shift, access, mode, power, scan } = useMemo(() => commonFields(channels), [channels]);
  const [only] = channels;
  const sends =
    shift.kind === 'mixed'
      ? 'They transmit in different ways.'
      : shift.value === null
        ? 'Listens only.'
        : shift.value === 0
          ? 'Transmits where it receives.'
          : `Transmits ${formatShift(shift.value).replace('-', '−')} MHz from where it receives.`;
  const accessText: Common<string> =
    access.kind === 'mixed' ? access : { kind: 'all', value: formatAccess(access.value) };
  const known = <T extends string>(common: Common<T>): T | typeof MIXED =>
    common.kind === 'all' ? common.value : MIXED;
  const mixed = [[MIXED, 'mixed']] as const;
  // This radio's modes first; the rest is understood all the same.
  const modes = [...model.modes, ...MODES.filter((one) => !model.modes.includes(one))];
  const powerValue = power.kind === 'all' ? String(power.value) : MIXED;
  const powers = [
    ...model.powers.map(
      ({ label, milliwatts }) => [String(milliwatts), `${label}, ${formatPower(milliwatts)}`] as const,
    ),
    ...(power.kind === 'all' && !model.powers.some(({ milliwatts }) => milliwatts === power.value)
      ? [[powerValue, formatPower(power.value)] as const]
      : []),
  ];
  return (
    <Part title="On air">
      <p>
        {channels.length === 1 && <span className="mono text-receive">{formatFrequency(only!.rx)} </span>}
        {sends}
      </p>
      <div className="flex flex-wrap gap-1">
        <Button size="small" onClick={() => void actions.many({ what: 'listen only' })}>
          Listen only
        </Button>
        <Button size="small" onClick={() => void actions.many({ what: 'same as receive' })}>
          Same as receive
        </Button>
        <Button size="small" onClick={() => void actions.many({ what: 'usual shift' })}>
          Usual shift
        </Button>
      </div>
      <Text
        key={`access ${JSON.stringify(accessText)}`}
        label="Access"
        common={accessText}
        problemOf={(text) => {
          const parsed = parseCell('access', text, only!, context);
          return parsed.ok ? undefined : parsed.reason;
        }}
        onSet={(text) => {
          const parsed = parseCell('access', text, only!, context);
          if (parsed.ok) void actions.many({ what: 'set', set: { access: parsed.value.access! } });
        }}
      />
      <div className="grid grid-cols-3 gap-1.5">
        <Choice
          label="Mode"
          value={known(mode)}
          options={[
            ...(mode.kind === 'mixed' ? mixed : []),
            ...modes.map((one) => [one, model.modes.includes(one) ? one : `${one}, not here`] as const),
          ]}
          onChange={(value) =>
            value !== MIXED && void actions.many({ what: 'set', set: { mode: value as Mode } })
          }
        />
        <Choice
          label="Power"
          value={powerValue}
          options={[...(power.kind === 'mixed' ? mixed : []), ...powers]}
          onChange={(value) =>
            value !== MIXED && void actions.many({ what: 'set', set: { power: Number(value) } })
          }
        />
        <Choice
          label="Scan"
          value={scan.kind === 'mixed' ? MIXED : scan.value ? 'yes' : 'no'}
          options={[...(scan.kind === 'mixed' ? mixed : []), ['yes', 'yes'], ['no', 'no']]}
          onChange={(value) =>
            value !== MIXED && void actions.many({ what: 'set', set: { scan: value === 'yes' } })
          }
        />
      </div>
    </Part>
  );
}

/** What Check says of them, each thing once. */
function Wrong({ channels }: { channels: readonly Channel[] }) {
  const { hand } = useDesk();
  const { of, number } = hand.shown.views;
  const found = useMemo(
    () => {
      const byText = new Map<string, { severity: 'stop' | 'caution' | 'hint'; text: string; n: number }>();
      for (const { id } of channels)
        for (const { severity, text } of of.get(id)?.findings ?? [])
          byText.set(text, { severity, text, n: (byText.get(text)?.n ?? 0) + 1 });
      return [...byText.values()].sort((a, b) => b.n - a.n).slice(0, 6);
    },
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the same map is filled anew, which its number says
    [channels, of, number],
  );
  if (found.length === 0) return null;
  return (
    <Part title="What Check says">
      <ul className="flex flex-col gap-1">
        {found.map(({ severity, text, n }) => (
          <li key={text} className="flex items-start gap-2">
            <span className="pt-0.5">
              <SeverityMark severity={severity} />
            </span>
            <span>
              {text}
              {n > 1 && <span className="text-soft"> ({n} channels)</span>}
            </span>
          </li>
        ))}
      </ul>
    </Part>
  );
}
