'use client';

import type { Load, Roll } from '@/core/people/person.schema';
import { Button, Moment, Scroll, Trouble } from '@/ui';
import { pickFile } from '@/views/parts';
import type { PeopleInHand } from './use-people';

const WORDS = { added: 'New', changed: 'Changed', gone: 'Gone' } as const;
const grouped = (n: number) => n.toLocaleString('en');

/** When a roll was made, by its own word, which may be no date, or none at all. */
function madeWhen(made: string) {
  if (made === '') return null;
  return <>made {Number.isNaN(Date.parse(made)) ? made : <Moment at={made} />}, </>;
}

/** What came of a load, or how far it is. */
function Loading({ load, onStop }: { load: Load; onStop: () => void }) {
  if (load.state !== 'loading')
    return load.state === 'failed' ? (
      <Trouble>{load.message}</Trouble>
    ) : (
      <p role="status" className="text-[13px]">
        {load.message}
      </p>
    );
  return (
    <div className="flex flex-col gap-2">
      <p role="status" className="text-[13px]">
        {load.message}{' '}
        {load.bytes > 0 && <span className="text-soft">{(load.bytes / 1e6).toFixed(0)} MB</span>}
      </p>
      <Button onClick={onStop}>Stop</Button>
    </div>
  );
}

/** What the roll has otherwise than the one before, and which of its rows were odd. */
function News({ news, odd }: Pick<Roll, 'news' | 'odd'>) {
  return (
    <>
      {news && news.added + news.changed + news.gone > 0 && (
        <details className="text-[13px]">
          <summary className="cursor-pointer">
            {grouped(news.added)} new, {grouped(news.changed)} changed, {grouped(news.gone)} gone
          </summary>
          <Scroll label="What is new in the roll" className="max-h-56 pt-1">
            <ul>
              {news.first.map(({ what, id, is, was }) => (
                <li key={id} className="border-t border-line py-1">
                  <span className="text-soft">{WORDS[what]}</span> <span className="mono">{id}</span>{' '}
                  {is || was}
                  {what === 'changed' && <span className="text-soft">, was {was}</span>}
                </li>
              ))}
            </ul>
          </Scroll>
        </details>
      )}
      {odd.count > 0 && (
        <details className="text-[13px]">
          <summary className="cursor-pointer">
            {odd.count === 1 ? 'One row was odd' : `${grouped(odd.count)} rows were odd`}
          </summary>
          <Scroll label="Odd rows" className="max-h-40 pt-1">
            <ul>
              {odd.first.map(({ row, reason }) => (
                <li key={`${row} ${reason}`} className="border-t border-line py-1">
                  <span className="text-soft">Row {grouped(row)}</span> {reason}
                </li>
              ))}
            </ul>
          </Scroll>
        </details>
      )}
    </>
  );
}

/** A file of one's own in the place of the roll: CSV, XLSX or JSON, with a column for the number. */
const FromFile = ({ hand }: { hand: PeopleInHand }) => (
  <Button
    disabled={hand.loadFile.isPending}
    title="CSV, XLSX or JSON, with a number, call sign, name and town a row"
    onClick={() => pickFile((file) => hand.loadFile.mutate(file))}
  >
    From a file
  </Button>
);

/** The roll in use: where it is from, how many are in it, what was new in it; and how it is loaded anew. */
export function RollPanel({ hand }: { hand: PeopleInHand }) {
  const { roll, load } = hand.roll.data ?? { roll: null, load: null };
  if (!roll) return null;
  return (
    <section
      aria-label="The roll"
      className="flex flex-col gap-2.5 rounded-md border border-line bg-sheet p-3"
    >
      <div>
        <h2 className="font-semibold">{roll.source}</h2>
        <p className="text-[13px] text-soft">
          {grouped(roll.people)} people, {madeWhen(roll.made)} loaded <Moment at={roll.at} />
        </p>
      </div>
      {load && <Loading load={load} onStop={() => hand.stop.mutate()} />}
      <News news={roll.news} odd={roll.odd} />
      {!hand.loading && (
        <div className="flex gap-1.5">
          <Button disabled={hand.load.isPending} onClick={() => hand.load.mutate()}>
            Load it anew
          </Button>
          <FromFile hand={hand} />
        </div>
      )}
      {hand.load.error && <Trouble>{hand.load.error.message}</Trouble>}
      {hand.loadFile.error && <Trouble>{hand.loadFile.error.message}</Trouble>}
    </section>
  );
}

/** Where nobody is known yet. */
export function NoRoll({ hand }: { hand: PeopleInHand }) {
  const load = hand.roll.data?.load ?? null;
  return (
    <section aria-label="Nobody yet" className="m-auto flex max-w-md flex-col items-center gap-3 text-center">
      <h2 className="text-[17px] font-semibold">Nobody is known yet</h2>
      <p className="text-soft">
        Digital radios send a number with every word. The Ident Roll says who is behind it: some 250,000
        people, with call sign, name and place. It is loaded once, and again when you want it fresh.
      </p>
      {load && <Loading load={load} onStop={() => hand.stop.mutate()} />}
      {!hand.loading && (
        <div className="flex gap-2">
          <Button kind="strong" disabled={hand.load.isPending} onClick={() => hand.load.mutate()}>
            Load the Ident Roll
          </Button>
          <FromFile hand={hand} />
        </div>
      )}
      {hand.load.error && <Trouble>{hand.load.error.message}</Trouble>}
      {hand.loadFile.error && <Trouble>{hand.loadFile.error.message}</Trouble>}
    </section>
  );
}
