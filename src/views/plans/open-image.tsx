'use client';

import { useRouter } from 'next/navigation';
import { useEffect, useRef, useState } from 'react';
import { Refusal, sentenceOf } from '@/api/ask';
import { call } from '@/api/call';
import { fileApi } from '@/api/files';
import { planApi } from '@/api/plans';
import { Button, Trouble } from '@/ui';
import { base64Of, isStationFile } from '@/views/parts/pick-file';

/** Longest file that is read here; no radio's image is longer, and one that is would only be carried about. */
const LONGEST = 290_000;
const LONGEST_PLAN = 2_900_000;

/** Opening images of radios, or the files of a card, as plans; what is damaged is said, and what can be read of it offered. */
function useOpenImage() {
  const router = useRouter();
  const [busy, setBusy] = useState(false);
  const [trouble, setTrouble] = useState<{ text: string; files: File[] | null } | null>(null);

  const [unproven, setUnproven] = useState<{ id: string; name: string } | null>(null);

  const open = async (files: File[], rescue = false) => {
    if (files.length === 0) return;
    const [file] = files;
    if (files.length === 1 && isStationFile(file!)) return openPlanFile(file!);
    const long = files.find(({ size }) => size > LONGEST);
    if (long) return setTrouble({ text: `“${long.name}” is longer than any radio’s image.`, files: null });
    setBusy(true);
    setTrouble(null);
    try {
      const body = {
        rescue,
        files: await Promise.all(
          files.map(async (file) => ({ name: file.name.slice(0, 200), base64: await base64Of(file) })),
        ),
      };
      const made = await call(planApi.openImage, { body });
      if (made.proven) router.push(`/plans/${made.plan.id}`);
      else setUnproven(made.plan);
    } catch (error) {
      const damaged = error instanceof Refusal && error.kind === 'image-damaged';
      setTrouble({ text: sentenceOf(error), files: damaged ? files : null });
    }
    setBusy(false);
  };

  /** A plan of ours that somebody took out; rows of stations want a plan to go into. */
  const openPlanFile = async (file: File) => {
    if (!file.name.toLowerCase().endsWith('.json'))
      return setTrouble({
        text: `“${file.name}” may hold stations. Open the plan that they go into, and drop it there.`,
        files: null,
      });
    if (file.size > LONGEST_PLAN)
      return setTrouble({
        text: `“${file.name}” is longer than a plan that is opened at once.`,
        files: null,
      });
    setBusy(true);
    setTrouble(null);
    try {
      const made = await call(fileApi.importFile, {
        body: { base64: await base64Of(file), slots: 'as in the file' },
      });
      router.push(`/plans/${made.plan}`);
    } catch (error) {
      setTrouble({ text: sentenceOf(error), files: null });
    }
    setBusy(false);
  };

  const said = unproven ? (
    <div
      role="status"
      className="fixed bottom-4 right-4 z-40 flex max-w-lg flex-col gap-2 rounded-md border border-line-strong bg-sheet p-3 shadow-lg"
    >
      <p>
        “{unproven.name}” was imported. These files have no checksum, so Veridon cannot tell whether they are
        damaged. Compare the channels with the radio, or open the card together with CARD.TXT.
      </p>
      <p>
        <Button
          kind="strong"
          size="small"
          onClick={() => {
            setUnproven(null);
            router.push(`/plans/${unproven.id}`);
          }}
        >
          Open the plan
        </Button>
      </p>
    </div>
  ) : (
    trouble && (
      <div className="fixed bottom-4 right-4 z-40 flex max-w-lg flex-col gap-2 rounded-md border border-line-strong bg-sheet p-3 shadow-lg">
        <Trouble>{trouble.text}</Trouble>
        <p className="flex gap-2">
          {trouble.files && (
            <Button kind="strong" size="small" onClick={() => void open(trouble.files!, true)}>
              Open what can be read
            </Button>
          )}
          <Button size="small" onClick={() => setTrouble(null)}>
            All right
          </Button>
        </p>
      </div>
    )
  );
  return { open, busy, said };
}

/** Opens what was dropped on the window, whichever screen was there. */
export function OpenDropped({ files }: { files: File[] }) {
  const { open, said } = useOpenImage();
  const begun = useRef<File[] | null>(null);
  useEffect(() => {
    if (begun.current === files) return;
    begun.current = files;
    void open(files);
  });
  return said;
}

/** The button with which images are chosen. */
export function OpenImage({ kind = 'plain' }: { kind?: 'plain' | 'quiet' }) {
  const picker = useRef<HTMLInputElement>(null);
  const { open, busy, said } = useOpenImage();
  return (
    <>
      <input
        ref={picker}
        type="file"
        multiple
        hidden
        aria-label="Image files"
        onChange={(event) => {
          void open([...(event.target.files ?? [])]);
          event.target.value = '';
        }}
      />
      <Button kind={kind} disabled={busy} onClick={() => picker.current?.click()}>
        {busy ? 'Being opened…' : 'Open an image'}
      </Button>
      {said}
    </>
  );
}
