import clsx from 'clsx';
import { useState } from 'react';
import { modelById, slotsOf } from '@/core/models';
import { parseFrequency, USUAL_REGION } from '@/core/radio';
import { Button } from '@/ui';
import { RadioFace } from '@/views/parts';
import type { Lying } from './bench';
import { Mishaps } from './mishaps';

/** What a display shows that has no channel to show. */
const darkOf = ({ on, halfWritten }: Lying): string => (!on ? '' : halfWritten ? 'NO DATA' : 'EMPTY');

/** A radio as it lies on the table, with everything that a hand does to it. */
export function OnTable({
  radio,
  act,
  order,
}: {
  radio: Lying;
  act: (body: object) => void;
  order: (body: object) => void;
}) {
  const model = modelById(radio.modelId)!;
  const { on, plugged, cabled, halfWritten, battery } = radio;
  return (
    <section
      aria-label={radio.label}
      className="relative flex flex-col rounded-lg border border-line bg-wash-faint"
    >
      <Cable radio={radio} />
      <div className="flex items-baseline gap-2 px-3 pt-2 text-[13px]">
        <h2 className="min-w-0 flex-1 truncate font-semibold">{radio.label}</h2>
        <span className="mono text-[12px] text-soft">{radio.serial}</span>
      </div>
      <div className="px-3 pt-1.5">
        <RadioFace
          channel={on && !halfWritten ? radio.channel : null}
          other={on && !halfWritten ? radio.other : null}
          model={model}
          region={USUAL_REGION}
          settings={radio.settings}
          talkgroup={radio.talkgroup}
          position={radio.position}
          dark={darkOf(radio)}
          label={`What ${radio.label} shows`}
          nothing={
            !on
              ? 'Switched off.'
              : halfWritten
                ? 'A write was cut off: it does nothing.'
                : 'This memory is empty.'
          }
          onTurn={(by) => act({ turn: by })}
          onKey={(keyDown) => act({ keyDown })}
        />
      </div>
      <p className="flex h-5 items-center gap-1.5 px-3 text-[12.5px]" aria-live="polite">
        <svg width="12" height="12" viewBox="0 0 12 12" aria-hidden>
          <circle
            cx="6"
            cy="6"
            r="4"
            className={
              on && (radio.air || radio.caller) ? 'fill-receive text-receive' : 'fill-none text-line-strong'
            }
            stroke="currentColor"
            strokeWidth="1.5"
          />
        </svg>
        <span className={on && (radio.air || radio.caller) ? 'truncate text-receive' : 'text-soft'}>
          {!on
            ? 'silent'
            : radio.caller
              ? `${radio.caller} calls`
              : radio.air
                ? `hears ${radio.air}`
                : radio.peopleHalf
                  ? 'people in part: it names none'
                  : 'nobody on the air here'}
        </span>
      </p>
      <div className="flex flex-wrap items-center gap-1.5 px-3 py-2 text-[13px]">
        {cabled && (
          <Button size="small" onClick={() => act({ plugged: !plugged })}>
            {radio.card
              ? plugged
                ? 'Put the card back'
                : 'Card into the computer'
              : plugged
                ? 'Pull the cable'
                : 'Plug it in'}
          </Button>
        )}
        <Button size="small" onClick={() => act({ on: !on })}>
          {on ? 'Switch off' : 'Switch on'}
        </Button>
        <label className="ml-auto flex items-center gap-1.5 text-[12px] text-soft">
          battery
          <input
            type="range"
            min={0}
            max={100}
            value={battery}
            aria-valuetext={`${battery} percent`}
            className="w-20 accent-[var(--ink)]"
            onChange={(event) => act({ battery: Number(event.target.value) })}
          />
          <span className={clsx('mono w-8 text-right', battery < 20 && 'text-stop')}>{battery}%</span>
        </label>
      </div>
      {radio.card && <CardMenu radio={radio} act={act} />}
      <Keys radio={radio} act={act} />
      <Mishaps radio={radio} order={order} />
    </section>
  );
}

/** Its menu for the card, and what the display said of it last. */
function CardMenu({ radio: { card, on }, act }: { radio: Lying; act: (body: object) => void }) {
  const nowhere = !on || card!.in !== 'radio';
  return (
    <div className="flex flex-wrap items-center gap-1.5 border-t border-line px-3 py-1.5 text-[13px]">
      <span className="text-soft">Card</span>
      <Button size="small" disabled={nowhere} onClick={() => act({ card: 'save' })}>
        Save all to card
      </Button>
      <Button size="small" disabled={nowhere} onClick={() => act({ card: 'load' })}>
        Load all from card
      </Button>
      <span role="status" aria-label="What it shows of the card" className="mono ml-auto text-[12px]">
        {card!.says}
      </span>
    </div>
  );
}

/** The card: in the reader of the computer above, or in the radio. */
const CardDrawn = ({ out }: { out: boolean }) => (
  <span
    aria-hidden
    className={clsx('pointer-events-none absolute right-10 text-ink', out ? '-top-7' : '-top-4 opacity-60')}
  >
    <svg width="26" height="20" viewBox="0 0 26 20">
      <path d="M2 2a2 2 0 0 1 2-2h13l7 6v12a2 2 0 0 1-2 2H4a2 2 0 0 1-2-2z" fill="currentColor" />
      <path d="M6 3v4M10 3v4M14 3v4" stroke="var(--wash-faint, #fff)" strokeWidth="2" />
    </svg>
  </span>
);

/** The cable: to a socket of the computer above, or lying on the table. */
function Cable({ radio: { plugged, cabled, cable, card } }: { radio: Lying }) {
  if (!cabled) return null;
  if (card) return <CardDrawn out={plugged} />;
  return (
    <span aria-hidden className="pointer-events-none absolute -top-6 right-8 h-6 w-16 text-ink">
      <svg viewBox="0 0 64 24" className="h-full w-full overflow-visible" fill="none" stroke="currentColor">
        {plugged ? (
          <>
            <path d="M32 24V6" strokeWidth="3" />
            <rect x="26" y="-4" width="12" height="10" rx="2" fill="currentColor" stroke="none" />
            {cable > 0 && (
              <text x="44" y="6" className="mono fill-current text-[11px]" stroke="none">
                {cable}
              </text>
            )}
          </>
        ) : (
          <>
            <path d="M32 24c0-9 10-6 18-11" strokeWidth="3" opacity="0.45" />
            <rect
              x="48"
              y="8"
              width="12"
              height="8"
              rx="2"
              fill="currentColor"
              stroke="none"
              opacity="0.45"
            />
          </>
        )}
      </svg>
    </span>
  );
}

/** Its own keys: what somebody stores in the memory that it stands at. */
function Keys({ radio, act }: { radio: Lying; act: (body: object) => void }) {
  const model = modelById(radio.modelId)!;
  const [name, setName] = useState('');
  const [typed, setTyped] = useState('');
  const [slot, setSlot] = useState('');
  const range = slotsOf(model, 0)!;
  const at = slot === '' ? radio.slot : Number(slot);
  const rx =
    typed.trim() === ''
      ? undefined
      : parseFrequency(
          typed,
          model.bands.map(({ receive }) => receive),
        );
  const wrong = rx && !rx.ok ? rx.reason : '';
  const field = 'mono block rounded-md border border-line-strong bg-sheet px-2 py-1 text-[13px] text-ink';
  return (
    <details className="border-t border-line text-[13px]">
      <summary className="px-3 py-1.5">
        Its keys <span className="text-soft">store in a memory, or empty it</span>
      </summary>
      <form
        className="flex flex-wrap items-end gap-2 px-3 pb-2 text-[12px] text-soft"
        onSubmit={(event) => {
          event.preventDefault();
          if (wrong) return;
          act({
            key: { slot: at, ...(name && { name }), ...(rx?.ok && { rx: rx.value }) },
            slot: at,
          });
          setName('');
          setTyped('');
        }}
      >
        <label>
          memory
          <input
            className={`${field} w-14`}
            inputMode="numeric"
            placeholder={String(radio.slot)}
            value={slot}
            onChange={(event) => setSlot(event.target.value.replace(/\D/g, '').slice(0, 4))}
          />
        </label>
        <label>
          name
          <input
            className={`${field} w-24`}
            maxLength={model.names.length}
            value={name}
            onChange={(event) => setName(event.target.value)}
          />
        </label>
        <label>
          frequency
          <input
            className={`${field} w-24`}
            value={typed}
            onChange={(event) => setTyped(event.target.value)}
          />
        </label>
        <Button
          size="small"
          type="submit"
          disabled={(name === '' && typed === '') || wrong !== '' || !radio.on}
        >
          Store
        </Button>
        <Button size="small" disabled={!radio.on} onClick={() => act({ key: { slot: at, clear: true } })}>
          Empty it
        </Button>
        {wrong !== '' && <p className="w-full text-stop">{wrong}</p>}
        {(at < range.first || at >= range.first + range.count) && (
          <p className="w-full text-stop">
            Its memories run from {range.first} to {range.first + range.count - 1}.
          </p>
        )}
      </form>
    </details>
  );
}
