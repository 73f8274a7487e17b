'use client';

import { keepPreviousData, queryOptions } from '@tanstack/react-query';
import { decodeImage } from '@/core/image';
import { modelById, type Model } from '@/core/models';
import type { Radio } from '@/core/bench';

async function contentOf(copyId: string, model: Model) {
  const answer = await fetch(`/api/copies/${copyId}/image`);
  return decodeImage(new Uint8Array(await answer.arrayBuffer()), model);
}

/** What a radio holds by its newest sealed copy; for radios that have one. */
export function heldContent({ modelId, copies }: Radio) {
  const [newest] = copies;
  return queryOptions({
    queryKey: ['image', newest?.id],
    queryFn: () => contentOf(newest!.id, modelById(modelId)!),
    enabled: newest !== undefined,
    staleTime: Infinity,
    placeholderData: keepPreviousData,
    retry: false,
  });
}
