import { useQuery } from '@tanstack/react-query';
import { call } from '@/api/call';
import { radioApi } from '@/api/radios';
import type { SettingInfo } from '@/core/image/settings.schema';

/** The settings of a model; undefined while they are loading. */
export function useSettings(modelId: string): readonly SettingInfo[] | undefined {
  const { data } = useQuery({
    queryKey: ['settings', modelId],
    queryFn: () => call(radioApi.modelSettings, { params: { id: modelId } }),
    staleTime: Infinity,
  });
  return data?.settings;
}
