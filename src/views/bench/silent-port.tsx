'use client';

import { useState } from 'react';
import type { Bench } from '@/core/bench';
import { modelById, MODELS } from '@/core/models';
import { Choice } from '@/ui';
import { GetReady } from '@/views/parts';

/** A port on which nobody is known to be: why, and how the radio that somebody says it is is made to answer. */
export function SilentPort({ port }: { port: Bench['ports'][number] }) {
  const [modelId, setModelId] = useState('none');
  const model = modelById(modelId);
  return (
    <section
      aria-label={`Something on ${port.name}`}
      className="rounded-md border border-caution-mark px-3 py-2 text-[13px]"
    >
      <p>
        <b className="font-semibold">{port.name}</b> {port.reason ?? 'Asking who is there.'}
      </p>
      {port.reason !== null && (
        <Choice
          label="Which radio is it?"
          value={modelId}
          options={[
            ['none', 'Choose…'] as const,
            ...MODELS.filter(({ link }) => link !== null).map(
              ({ id, maker, name }) => [id, `${maker} ${name}`] as const,
            ),
          ]}
          onChange={setModelId}
          className="mt-1.5 w-full"
        />
      )}
      {model && <GetReady model={model} seen={{ port: true, answers: false }} />}
    </section>
  );
}
