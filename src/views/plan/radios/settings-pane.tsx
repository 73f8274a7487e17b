'use client';

import { useState } from 'react';
import type { SettingInfo } from '@/core/image/settings.schema';
import { recordsOf, type SettingValue } from '@/core/plan';
import type { ValueKind } from '@/core/settings/setting.schema';
import { valueWords, wantedWords } from '@/core/settings/values';
import { Choice, Field } from '@/ui';
import { useDesk } from '../desk';
import { useSettings } from '../use-settings';

type Kind<K extends ValueKind['kind']> = Extract<ValueKind, { kind: K }>;
type Change = (value: SettingValue | undefined) => void;

const UNSET = 'As the radio has it';

/** What the plan sets on the radio itself; what is not set stays as the radio has it. */
export function SettingsPane() {
  const { hand } = useDesk();
  const { plan, model, store } = hand;
  const settings = useSettings(model.id);
  const set = plan.settings[model.id] ?? {};
  const change = (key: string) => (value: SettingValue | undefined) =>
    store.apply({ name: 'set', settings: { [model.id]: { [key]: value ?? null } } });
  if (!settings || settings.length === 0) return null;
  const restarts = settings.some(({ key, restart }) => restart && set[key] !== undefined);
  return (
    <details className="rounded-md border border-line bg-sheet px-3 py-2 text-[13px]">
      <summary className="cursor-pointer font-semibold">
        Set on the {model.name}{' '}
        <span className="font-normal text-soft">
          {Object.keys(set).length === 0 ? 'nothing' : `${Object.keys(set).length} of ${settings.length}`}
        </span>
      </summary>
      <div className="flex flex-col gap-2 pt-2">
        {settings.map((info) => (
          <div key={`${info.key} ${JSON.stringify(set[info.key])}`}>
            <SettingField
              info={info}
              value={set[info.key]}
              usual={model.storedShifts.find(({ setting }) => setting === info.key)?.usual}
              onChange={change(info.key)}
            />
            <p className="pt-0.5 text-[12px] text-soft">{info.help}</p>
          </div>
        ))}
        {restarts && (
          <p className="text-soft">
            Some of these settings take effect only after you switch the radio off and on.
          </p>
        )}
      </div>
    </details>
  );
}

/** A setting with its value, by the kind of the value. */
function SettingField({
  info,
  value,
  usual,
  onChange,
}: {
  info: SettingInfo;
  value: SettingValue | undefined;
  /** What is written where nothing is set; undefined where the radio keeps its value. */
  usual: number | undefined;
  onChange: Change;
}) {
  const { hand } = useDesk();
  const { value: kind } = info;
  switch (kind.kind) {
    case 'choice':
    case 'switch':
      return (
        <Options
          info={info}
          kind={kind}
          values={kind.kind === 'switch' ? [false, true] : kind.values}
          value={value}
          onChange={onChange}
        />
      );
    case 'reference':
      return (
        <Choice
          label={info.name}
          value={typeof value === 'object' && 'id' in value ? value.id : UNSET}
          options={[
            [UNSET, UNSET],
            ...(recordsOf(hand.plan, kind.to) as readonly { id: string; name: string; list?: number }[])
              .filter(({ list }) => kind.list === undefined || list === kind.list)
              .map(({ id, name }) => [id, name] as const),
          ]}
          onChange={(id) => onChange(id === UNSET ? undefined : { kind: kind.to, id })}
        />
      );
    case 'text':
    case 'number':
      return <Typed info={info} kind={kind} value={value} usual={usual} onChange={onChange} />;
    default:
      return (
        <p>
          {info.name}: {value === undefined ? UNSET : valueWords(kind, value)}
        </p>
      );
  }
}

function Options({
  info,
  kind,
  values,
  value,
  onChange,
}: {
  info: SettingInfo;
  kind: ValueKind;
  values: readonly (string | number | boolean)[];
  value: SettingValue | undefined;
  onChange: Change;
}) {
  const words = (one: SettingValue) => valueWords(kind, one);
  return (
    <Choice
      label={info.name}
      value={value === undefined ? UNSET : words(value)}
      options={[[UNSET, UNSET], ...values.map((one) => [words(one), words(one)] as const)]}
      onChange={(text) => onChange(values.find((one) => words(one) === text))}
    />
  );
}

/** A setting that is typed: a text, or a number of its unit. */
function Typed({
  info,
  kind,
  value,
  usual,
  onChange,
}: {
  info: SettingInfo;
  kind: Kind<'text'> | Kind<'number'>;
  value: SettingValue | undefined;
  usual: number | undefined;
  onChange: Change;
}) {
  const scale = kind.kind === 'number' ? kind.scale : 1;
  const shown =
    value === undefined ? '' : kind.kind === 'number' ? String(Number(value) / scale) : String(value);
  const [text, setText] = useState(shown);
  const [problem, setProblem] = useState('');
  const keep = () => {
    if (text === shown) return;
    if (text.trim() === '') return onChange(undefined);
    if (kind.kind === 'text') return onChange(text.trim().slice(0, kind.length));
    const number = Number(text) * scale;
    if (!(number >= kind.least && number <= kind.most && (number - kind.least) % kind.step === 0))
      return setProblem(`Type ${wantedWords(kind)}.`);
    setProblem('');
    onChange(number);
  };
  return (
    <Field
      id={`setting-${info.key}`}
      label={kind.kind === 'number' && kind.unit ? `${info.name}, ${kind.unit}` : info.name}
      placeholder={usual === undefined ? UNSET : String(usual / scale)}
      maxLength={kind.kind === 'text' ? kind.length : 12}
      inputMode={kind.kind === 'number' ? 'numeric' : undefined}
      value={text}
      onChange={(event) => setText(event.target.value)}
      onBlur={keep}
      onKeyDown={(event) => event.key === 'Enter' && keep()}
      problem={problem || undefined}
    />
  );
}
