'use client';

import { useState } from 'react';
import type { ListedPerson } from '@/core/people/person.schema';
import { Button, Field, Trouble } from '@/ui';
import type { PeopleInHand } from './use-people';

/** A number as the trade writes it in hexadecimal: six figures, since it has 24 bits. */
const hex = (id: number) => id.toString(16).toUpperCase().padStart(6, '0');

/** Who is chosen: everything that is known, and what one says of them oneself. */
export function PersonPane({ person, hand }: { person: ListedPerson; hand: PeopleInHand }) {
  const { id, call, first, last, town, area, known } = person;
  const mark = person.mark ?? { pinned: false, note: '' };
  const [note, setNote] = useState(mark.note);
  const say = (what: Partial<typeof mark>) => hand.mark.mutate({ id, ...mark, ...what });
  return (
    <section aria-label="Chosen" className="flex flex-col gap-2.5 rounded-md border border-line bg-sheet p-3">
      <div>
        <h2 className="mono text-[19px] font-semibold">{call || 'No call sign'}</h2>
        <p className="text-[15px]">{`${first} ${last}`.trim() || 'No name'}</p>
        <p className="text-[13px] text-soft">{[town, area].filter(Boolean).join(', ')}</p>
      </div>
      <p className="text-[13px]">
        Number <b className="mono">{id}</b>, in hexadecimal <span className="mono">{hex(id)}</span>
      </p>
      {!known && (
        <p className="text-[13px] text-caution">
          The roll in use does not know this number any more: this is what was known when it was marked.
        </p>
      )}
      <form
        className="flex flex-col gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          say({ note });
        }}
      >
        <Field label="Note" value={note} maxLength={200} onChange={(event) => setNote(event.target.value)} />
        <p className="flex gap-2">
          <Button type="submit" disabled={note.trim() === mark.note}>
            Keep the note
          </Button>
          <Button onClick={() => say({ pinned: !mark.pinned })}>
            {mark.pinned ? 'Let go of the pin' : 'Pin'}
          </Button>
        </p>
      </form>
      <p className="text-[13px] text-soft">Pins and notes stay, whatever later rolls say.</p>
      {hand.mark.error && <Trouble>{hand.mark.error.message}</Trouble>}
    </section>
  );
}
