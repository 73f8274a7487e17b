'use client';

import { useRef } from 'react';
import { useMutation } from '@tanstack/react-query';
import { call } from '@/api/call';
import { radioApi } from '@/api/radios';
import { CARD_ZIP_BYTES, type Radio } from '@/core/bench';
import type { PlanId } from '@/core/plan';
import { Button, Trouble } from '@/ui';
import { base64Of } from '@/views/parts/pick-file';

/** Reads a card that is in another machine's reader, out of a zip of its files. */
export function OpenCard({ onOpened }: { onOpened: (radioId: Radio['id']) => void }) {
  const picker = useRef<HTMLInputElement>(null);
  const opening = useMutation({
    mutationFn: async (file: File) => {
      if (file.size > CARD_ZIP_BYTES) throw new Error(`“${file.name}” is longer than the zip of any card.`);
      return call(radioApi.openCard, { body: { base64: await base64Of(file) } });
    },
    onSuccess: ({ radioId }) => onOpened(radioId),
  });
  return (
    <>
      <input
        ref={picker}
        type="file"
        hidden
        accept=".zip,application/zip"
        aria-label="Zip of a card"
        onChange={(event) => {
          const [file] = event.target.files ?? [];
          if (file) opening.mutate(file);
          event.target.value = '';
        }}
      />
      <Button disabled={opening.isPending} onClick={() => picker.current?.click()}>
        {opening.isPending ? 'Being read…' : 'Read the zip of a card…'}
      </Button>
      {opening.error && <Trouble>{opening.error.message}</Trouble>}
      {opening.data && !opening.error && (
        <p role="status" className="text-[13px] text-soft">
          The card of {opening.data.called} was read; its content is kept as a sealed copy.
        </p>
      )}
    </>
  );
}

/** A plan on the card of a radio, as a zip, for a card that is in another machine's reader. */
export function SaveCard({ radio, planId }: { radio: Radio; planId: PlanId }) {
  return (
    <p className="text-[13px] text-soft">
      Is the card in another machine?{' '}
      <a className="underline" download href={`/api/radios/${radio.id}/card?plan=${planId}`}>
        Save its files as a zip
      </a>
      , unpack them onto the card, and load it in the radio.
    </p>
  );
}
