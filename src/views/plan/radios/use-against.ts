'use client';

import { useQueries, useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { call } from '@/api/call';
import { radioApi } from '@/api/radios';
import { modelById, modelOfUnit, MODELS, type Model } from '@/core/models';
import type { Against } from '@/core/organise';
import { heldContent } from '@/views/parts';

/** A radio that the plan can be held against: a model, or a unit that has been read. */
export interface Pick {
  key: string;
  maker: string;
  name: string;
}

/** Every radio to hold a plan against: all models, and the units that have been read. */
export function usePicks() {
  const { data } = useQuery({ queryKey: ['bench'], queryFn: () => call(radioApi.radios), retry: false });
  return useMemo(() => {
    const models: Pick[] = MODELS.map(({ id, maker, name }) => ({ key: id, maker, name }));
    const read = (data?.radios ?? []).filter(({ copies }) => copies.length > 0);
    const units: Pick[] = read.map(({ id, model, called, modelId }) => ({
      key: id,
      maker: model,
      name: called === modelById(modelId)?.name ? `your ${called}` : called,
    }));
    return { models, units, read };
  }, [data]);
}

/** The picked ones with what they hold; a unit comes when its copy has been fetched. `own` is the plan's model, as its unit is. */
export function useAgainst(
  picked: readonly string[],
  read: ReturnType<typeof usePicks>['read'],
  own: Model,
): Against[] {
  const radios = useMemo(() => read.filter(({ id }) => picked.includes(id)), [read, picked]);
  const contents = useQueries({ queries: radios.map(heldContent), combine: dataOf });
  return useMemo(
    () =>
      picked.flatMap((key): Against[] => {
        const model = modelById(key);
        if (model) return [{ model: key === own.id ? own : model }];
        const at = radios.findIndex(({ id }) => id === key);
        const [radio, content] = [radios[at], contents[at]];
        if (!radio || !content?.ok) return [];
        return [
          {
            model: modelOfUnit(modelById(radio.modelId)!, radio),
            unit: { id: radio.id, called: radio.called, channels: content.value.channels },
          },
        ];
      }),
    [picked, radios, contents, own],
  );
}

const dataOf = <T>(results: readonly { data: T | undefined }[]) => results.map(({ data }) => data);
