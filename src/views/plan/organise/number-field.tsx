'use client';

import clsx from 'clsx';
import { useId, useRef, useState } from 'react';
import { callNumberText, parseCallNumber, type Talkgroup } from '@/core/plan';
import { Button, Field } from '@/ui';

/** What is asked where a number reads as decimal and as hexadecimal alike: nothing is assumed. */
export function EitherQuestion({
  decimal,
  hexadecimal,
  onTake,
}: {
  decimal: number;
  hexadecimal: number;
  onTake: (number: number) => void;
}) {
  return (
    <span role="group" aria-label="Which number is meant" className="flex flex-wrap items-center gap-1.5">
      <span>Is that</span>
      {/* It is asked of whoever has just typed it. */}
      {}
      <Button size="small" autoFocus onClick={() => onTake(decimal)}>
        {callNumberText(decimal)}
      </Button>
      <span>or</span>
      <Button size="small" onClick={() => onTake(hexadecimal)}>
        {callNumberText(hexadecimal)}
      </Button>
    </span>
  );
}

/** A number that is changed where it stands: decimal or hexadecimal, and asked about where it reads as either. */
export function NumberField({
  label,
  number,
  onNumber,
}: {
  label: string;
  number: number;
  onNumber: (number: number) => void;
}) {
  const [text, setText] = useState<string | null>(null);
  const [either, setEither] = useState<{ decimal: number; hexadecimal: number } | null>(null);
  const [problem, setProblem] = useState('');
  const note = useId();
  const keep = () => {
    if (text === null || text.trim() === String(number)) return setText(null);
    const parsed = parseCallNumber(text);
    if (!parsed.ok) return setProblem(parsed.reason);
    setProblem('');
    if (parsed.value.kind === 'either') return setEither(parsed.value);
    setText(null);
    onNumber(parsed.value.number);
  };
  return (
    <span className="relative block">
      <input
        aria-label={label}
        aria-invalid={problem !== '' || undefined}
        aria-describedby={note}
        value={text ?? String(number)}
        maxLength={12}
        onChange={(event) => setText(event.target.value)}
        onBlur={() => text !== null && either === null && keep()}
        onKeyDown={(event) => {
          if (event.key === 'Enter') keep();
          if (event.key === 'Escape') {
            setText(null);
            setProblem('');
          }
        }}
        className={clsx(
          'mono h-7 w-full rounded border bg-transparent px-1 hover:border-line focus:bg-sheet',
          problem ? 'border-stop' : 'border-transparent focus:border-line-strong',
        )}
      />
      <span
        id={note}
        role={problem ? 'alert' : undefined}
        className={clsx(
          (problem || either) &&
            'absolute left-0 top-8 z-20 flex w-max max-w-[340px] rounded-md border border-line-strong bg-sheet p-2 text-[12.5px] shadow-lg',
          problem && 'text-stop',
        )}
      >
        {problem}
        {either && (
          <EitherQuestion
            {...either}
            onTake={(taken) => {
              setEither(null);
              setText(null);
              onNumber(taken);
            }}
          />
        )}
      </span>
    </span>
  );
}

/** A new talkgroup: a name and a number. */
export function NewTalkgroup({ onAdd }: { onAdd: (fields: Omit<Talkgroup, 'id'>) => boolean }) {
  const [name, setName] = useState('');
  const [text, setText] = useState('');
  const [problem, setProblem] = useState('');
  const [either, setEither] = useState<{ decimal: number; hexadecimal: number } | null>(null);
  const first = useRef<HTMLInputElement>(null);
  const id = useId();
  const add = (number: number) => {
    setEither(null);
    if (!onAdd({ name: name.trim(), number, call: number === 0xffffff ? 'all' : 'group' })) return;
    setName('');
    setText('');
    first.current?.focus();
  };
  return (
    <form
      aria-label="New talkgroup"
      className="flex flex-wrap items-end gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        const parsed = parseCallNumber(text);
        if (!parsed.ok) return setProblem(parsed.reason);
        setProblem('');
        if (parsed.value.kind === 'either') setEither(parsed.value);
        else add(parsed.value.number);
      }}
    >
      <Field
        ref={first}
        className="w-44"
        label="Name"
        maxLength={32}
        value={name}
        onChange={(event) => setName(event.target.value)}
      />
      <Field
        id={`${id}-number`}
        className="w-40"
        label="Number, 416 or 0x1A0"
        maxLength={12}
        value={text}
        problem={problem || undefined}
        onChange={(event) => {
          setText(event.target.value);
          setEither(null);
        }}
      />
      {either ? (
        <span className="pb-0.5 text-[13px]">
          <EitherQuestion {...either} onTake={add} />
        </span>
      ) : (
        <Button type="submit" disabled={!name.trim() || !text.trim()}>
          Add
        </Button>
      )}
    </form>
  );
}
