'use client';

import { useState } from 'react';
import { Button, useEscape } from '@/ui';

/** A list that is typed or pasted as somebody jots it down; it is read as a file of it would be. */
export function TypedPanel({ onRead, onClose }: { onRead: (file: File) => void; onClose: () => void }) {
  const [text, setText] = useState('');
  useEscape(onClose);
  return (
    <form
      aria-label="A list of stations"
      className="flex min-h-0 flex-1 flex-col gap-2 rounded-md border border-line-strong bg-sheet p-3 text-[13px]"
      onSubmit={(event) => {
        event.preventDefault();
        if (text.trim() !== '') onRead(new File([text], 'typed list.txt'));
      }}
    >
      <label htmlFor="typed-list">A station a line, or rows with headings</label>
      <textarea
        id="typed-list"
        autoFocus
        spellCheck={false}
        placeholder={'Ullsmere Hill 145.6125 -0.6 88.5\nKetterby Quay 433.500 listen\nCalling 145.5'}
        value={text}
        onChange={(event) => setText(event.target.value)}
        className="mono min-h-0 flex-1 resize-none rounded-md border border-line-strong bg-sheet p-2 text-[12.5px] placeholder:text-soft"
      />
      <div className="flex gap-2">
        <Button kind="strong" type="submit" className="flex-1" disabled={text.trim() === ''}>
          Read it
        </Button>
        <Button onClick={onClose}>Close</Button>
      </div>
    </form>
  );
}
