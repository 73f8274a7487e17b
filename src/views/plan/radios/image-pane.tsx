'use client';

import { useQuery } from '@tanstack/react-query';
import Link from 'next/link';
import { sentenceOf } from '@/api/ask';
import { call } from '@/api/call';
import { planApi } from '@/api/plans';
import { GetReady } from '@/views/parts';
import { useDesk } from '../desk';

/** The plan as an image of its radio: saved as a file, or as the files of a card; looked at byte by byte. */
export function ImagePane() {
  const { hand } = useDesk();
  const { plan, revision } = hand;
  const { data, error } = useQuery({
    queryKey: ['image files', plan.id, revision],
    queryFn: () => call(planApi.imageFiles, { params: { id: plan.id } }),
    retry: false,
  });
  const address = `/api/plans/${plan.id}/image`;
  return (
    <section
      aria-label="As an image"
      className="rounded-md border border-line bg-sheet px-3 py-2 text-[13px]"
    >
      <h3 className="font-semibold">As an image</h3>
      {error ? (
        <p className="text-soft">{sentenceOf(error)}</p>
      ) : data ? (
        <>
          <p className="text-soft">
            {data.files.length > 1
              ? `The files of a card for the ${data.model}.`
              : `A file of ${data.files[0]!.bytes.toLocaleString('en')} bytes for the unit that it came from.`}
            {data.heldBack > 0 && ` ${data.heldBack} channels are held back by a stop.`}
          </p>
          <p className="flex flex-wrap gap-x-3 gap-y-1 pt-1">
            {data.files.map(({ part }) => (
              <a
                key={part ?? 'whole'}
                className="underline"
                download
                href={part ? `${address}?part=${encodeURIComponent(part)}` : address}
              >
                {part ?? 'Save the image'}
              </a>
            ))}
            <Link prefetch={false} className="underline" href={`/plans/${plan.id}/bytes`}>
              Look at the bytes
            </Link>
          </p>
        </>
      ) : null}
      <details className="pt-1">
        <summary className="cursor-pointer text-soft">Getting the {hand.model.name} ready</summary>
        <GetReady model={hand.model} />
      </details>
    </section>
  );
}
