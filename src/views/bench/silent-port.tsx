'use client';

import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { call } from '@/api/call';
import { radioApi } from '@/api/radios';
import type { Bench } from '@/core/bench';
import { modelById, MODELS } from '@/core/models';
import { Choice, Trouble } from '@/ui';
import { GetReady } from '@/views/parts';

type Port = Bench['ports'][number];

/** Of models that answer alike a person says which it is; it is known by that from then on. */
function OneOfSeveral({ port }: { port: Port }) {
  const client = useQueryClient();
  const choose = useMutation({
    mutationFn: (modelId: string) => call(radioApi.choosePort, { body: { port: port.name, modelId } }),
    onSettled: () => client.invalidateQueries({ queryKey: ['bench'] }),
  });
  return (
    <>
      <Choice
        label="Which of these is it?"
        value={choose.variables ?? 'none'}
        options={[['none', 'Choose…'], ...port.choices.map(({ id, name }) => [id, name] as const)]}
        onChange={(id) => id !== 'none' && choose.mutate(id)}
        className="mt-1.5 w-full"
      />
      {choose.error && <Trouble>{choose.error.message}</Trouble>}
    </>
  );
}

/** What somebody says that it is, and how that is made to answer. */
function MadeToAnswer() {
  const [modelId, setModelId] = useState('none');
  const model = modelById(modelId);
  return (
    <>
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
      {model && <GetReady model={model} seen={{ port: true, answers: false }} />}
    </>
  );
}

/** A port on which nobody is known to be: why, and what can be done. */
export function SilentPort({ port }: { port: Port }) {
  return (
    <section
      aria-label={`Something on ${port.name}`}
      className="rounded-md border border-caution-mark px-3 py-2 text-[13px]"
    >
      <p>
        <b className="font-semibold">{port.name}</b> {port.reason ?? 'Asking who is there.'}
      </p>
      {port.choices.length > 0 ? <OneOfSeveral port={port} /> : port.reason !== null && <MadeToAnswer />}
    </section>
  );
}
