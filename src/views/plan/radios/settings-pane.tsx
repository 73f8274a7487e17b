'use client';

import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { call } from '@/api/call';
import { radioApi } from '@/api/radios';
import { settingWords } from '@/core/image/setting-words';
import type { SettingInfo } from '@/core/image/settings.schema';
import type { SettingValue } from '@/core/plan';
import { Choice, Field } from '@/ui';
import { useDesk } from '../desk';

/** What the plan sets on the radio itself; what is not set stays as the radio has it. */
export function SettingsPane() {
  const { hand } = useDesk();
  const { plan, model, store } = hand;
  const { data } = useQuery({
    queryKey: ['settings', model.id],
    queryFn: () => call(radioApi.modelSettings, { params: { id: model.id } }),
    staleTime: Infinity,
  });
  const set = plan.settings[model.id] ?? {};
  const change = (key: string, value: SettingValue | undefined) =>
    store.apply({ name: 'set', settings: { [model.id]: { [key]: value ?? null } } });
  if (!data || data.settings.length === 0) return null;
  const restarts = data.settings.some(({ key, restart }) => restart && set[key] !== undefined);
  return (
    <details className="rounded-md border border-line bg-sheet px-3 py-2 text-[13px]">
      <summary className="cursor-pointer font-semibold">
        Set on the {model.name}{' '}
        <span className="font-normal text-soft">
          {Object.keys(set).length === 0
            ? 'nothing'
            : `${Object.keys(set).length} of ${data.settings.length}`}
        </span>
      </summary>
      <div className="flex flex-col gap-2 pt-2">
        {data.settings.map((info) =>
          info.kind === 'choice' ? (
            <Choice
              key={info.key}
              label={info.label}
              value={set[info.key] === undefined ? 'as it is' : settingWords(set[info.key]!)}
              options={[
                ['as it is', 'As the radio has it'],
                ...info.values.map((value) => [settingWords(value), settingWords(value)] as const),
              ]}
              onChange={(text) =>
                change(
                  info.key,
                  info.values.find((value) => settingWords(value) === text),
                )
              }
            />
          ) : (
            <Typed
              key={`${info.key} ${String(set[info.key])}`}
              info={info}
              value={set[info.key]}
              usual={model.storedShifts.find(({ setting }) => setting === info.key)?.usual}
              onChange={change}
            />
          ),
        )}
        {restarts && (
          <p className="text-soft">Some of these want the radio to be switched off and on after the write.</p>
        )}
      </div>
    </details>
  );
}

/** A setting that is typed: a text, or a number of its unit. */
function Typed({
  info,
  value,
  usual,
  onChange,
}: {
  info: Exclude<SettingInfo, { kind: 'choice' }>;
  value: SettingValue | undefined;
  /** What is written where nothing is set; undefined where it stays as the radio has it. */
  usual: number | undefined;
  onChange: (key: string, value: SettingValue | undefined) => void;
}) {
  const shown =
    value === undefined ? '' : info.kind === 'number' ? String(Number(value) / info.unit) : String(value);
  const [text, setText] = useState(shown);
  const [problem, setProblem] = useState('');
  const keep = () => {
    if (text === shown) return;
    if (text.trim() === '') return onChange(info.key, undefined);
    if (info.kind === 'text') return onChange(info.key, text.trim().slice(0, info.length));
    const number = Number(text);
    if (!Number.isInteger(number) || number * info.unit < info.least || number * info.unit > info.most)
      return setProblem(`Type a whole number from ${info.least / info.unit} to ${info.most / info.unit}.`);
    setProblem('');
    onChange(info.key, number * info.unit);
  };
  return (
    <Field
      id={`setting-${info.key}`}
      label={info.kind === 'number' && info.unit === 1000 ? `${info.label}, kHz` : info.label}
      placeholder={
        usual === undefined ? 'As the radio has it' : String(usual / (info.kind === 'number' ? info.unit : 1))
      }
      maxLength={info.kind === 'text' ? info.length : 12}
      inputMode={info.kind === 'number' ? 'numeric' : undefined}
      value={text}
      onChange={(event) => setText(event.target.value)}
      onBlur={keep}
      onKeyDown={(event) => event.key === 'Enter' && keep()}
      problem={problem || undefined}
    />
  );
}
