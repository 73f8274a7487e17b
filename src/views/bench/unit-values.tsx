'use client';

import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { call } from '@/api/call';
import { radioApi } from '@/api/radios';
import type { Radio } from '@/core/bench';
import type { SettingInfo } from '@/core/image/settings.schema';
import { modelById } from '@/core/models';
import type { SettingValue } from '@/core/plan';
import type { ValueKind } from '@/core/settings/setting.schema';
import { Button, Moment, Trouble } from '@/ui';

export type UnitValues = Record<string, SettingValue>;
type Typed = SettingInfo & { value: Extract<ValueKind, { kind: 'text' | 'number' }> };

/** The values that one unit of a model has: its ID, its call sign, its power-on text. */
function useUnitSettings({ modelId }: Radio): Typed[] {
  const settings = useQuery({
    queryKey: ['settings', modelId],
    queryFn: () => call(radioApi.modelSettings, { params: { id: modelId } }),
  });
  return (settings.data?.settings ?? []).filter(
    (setting): setting is Typed =>
      setting.scope === 'unit' && (setting.value.kind === 'text' || setting.value.kind === 'number'),
  );
}

function valueOf(setting: Typed, text: string): SettingValue | undefined {
  if (setting.value.kind !== 'number') return text === '' ? undefined : text;
  const figures = text.replace(/\D/g, '');
  return figures === '' ? undefined : Number(figures);
}

/** A field for each value of one unit. */
export function UnitValueFields({
  radio,
  values,
  onChange,
}: {
  radio: Radio;
  values: UnitValues;
  onChange: (values: UnitValues) => void;
}) {
  return useUnitSettings(radio).map((setting) => (
    <label key={setting.key} className="flex items-center gap-1.5 text-[12px] text-soft">
      {setting.name}
      <input
        className="mono w-24 rounded-md border border-line-strong bg-sheet px-1.5 py-0.5 text-[13px] text-ink"
        aria-label={`${setting.name} of ${radio.called}`}
        {...(setting.value.kind === 'text'
          ? { maxLength: setting.value.length }
          : { inputMode: 'numeric' as const })}
        placeholder="the plan’s"
        value={String(values[setting.key] ?? '')}
        onChange={(event) => {
          const { [setting.key]: _, ...rest } = values;
          const value = valueOf(setting, event.target.value);
          onChange(value === undefined ? rest : { ...rest, [setting.key]: value });
        }}
      />
    </label>
  ));
}

/** What this unit has of its own: set here, written with every plan, with what it was before. */
export function UnitValuesPanel({ radio }: { radio: Radio }) {
  const client = useQueryClient();
  const settings = useUnitSettings(radio);
  const [typed, setTyped] = useState<UnitValues | null>(null);
  const known = useQuery({
    queryKey: ['unit-values', radio.id],
    queryFn: () => call(radioApi.unitValues, { params: { id: radio.id } }),
  });
  const save = useMutation({
    mutationFn: (own: UnitValues) =>
      call(radioApi.setUnitValues, { params: { id: radio.id }, body: { own } }),
    onSuccess: async () => {
      setTyped(null);
      await client.invalidateQueries();
    },
  });
  if (settings.length === 0 || !known.data) return null;
  const { own, log } = known.data;
  const names = new Map(settings.map(({ key, name }) => [key, name]));
  const set = settings.filter(({ key }) => own[key] !== undefined);
  return (
    <details className="shrink-0 rounded-md border border-line bg-sheet text-[13px]">
      <summary className="cursor-default px-3 py-1.5">
        <b className="font-semibold">Values of this unit</b>{' '}
        <span className="text-soft">
          {set.length === 0
            ? `None set. A write leaves them as ${radio.called} has them, unless the plan sets them.`
            : set.map(({ key, name }) => `${name} ${String(own[key])}`).join(', ')}
        </span>
      </summary>
      <form
        aria-label="Values of this unit"
        className="flex flex-wrap items-center gap-x-4 gap-y-1.5 border-t border-line px-3 py-2"
        onSubmit={(event) => {
          event.preventDefault();
          if (typed) save.mutate(typed);
        }}
      >
        <UnitValueFields radio={radio} values={typed ?? own} onChange={setTyped} />
        <Button size="small" type="submit" disabled={typed === null || save.isPending}>
          Save values
        </Button>
        <p className="basis-full text-soft">
          They are written to this {modelById(radio.modelId)?.name ?? 'radio'} with every plan, and to no
          other radio.
        </p>
        {save.error && <Trouble className="basis-full">{save.error.message}</Trouble>}
        {log.length > 0 && (
          <ol aria-label="Earlier values" className="basis-full text-[12px] text-soft">
            {log.slice(0, 8).map(({ key, value, at }, n) => (
              <li key={n}>
                {names.get(key) ?? key} {value === null ? 'removed' : `set to ${String(value)}`},{' '}
                <Moment at={at} />
              </li>
            ))}
          </ol>
        )}
      </form>
    </details>
  );
}
