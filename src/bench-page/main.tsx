import { useCallback, useEffect, useState } from 'react';
import { createRoot } from 'react-dom/client';
import { handle, lookAtTable, type Lying } from './bench';
import { OnTable } from './radio';

/** How often the table is looked at, ms. */
const LOOK_MS = 700;

function Table() {
  const [radios, setRadios] = useState<Lying[] | null>(null);
  const [trouble, setTrouble] = useState('');
  const look = useCallback(
    () =>
      lookAtTable().then(
        (found) => {
          setRadios(found);
          setTrouble('');
        },
        (error: unknown) =>
          setTrouble(
            error instanceof TypeError ? 'The bench does not answer.' : String((error as Error).message),
          ),
      ),
    [],
  );
  useEffect(() => {
    void look();
    const again = setInterval(() => {
      if (!document.hidden) void look();
    }, LOOK_MS);
    return () => clearInterval(again);
  }, [look]);
  const act = (id: string, faults: boolean) => (body: object) =>
    void handle(id, body, faults).then(look, (error: Error) => setTrouble(error.message));
  const plugged = radios?.filter((radio) => radio.plugged) ?? [];
  return (
    <div className="mx-auto flex min-h-full max-w-[1400px] flex-col px-5 pb-8">
      <header className="flex flex-wrap items-baseline gap-x-4 py-3">
        <h1 className="text-[21px] font-semibold">Simulated bench</h1>
        <p className="text-[13px] text-soft">
          Radios that behave like real ones. Veridon sees those whose cable or card is in the computer.
        </p>
      </header>
      {trouble !== '' && (
        <p role="alert" className="mb-3 rounded-md border border-stop bg-stop-wash px-3 py-2">
          {trouble}
        </p>
      )}
      <section
        aria-label="Sockets of the computer"
        className="flex items-center justify-between rounded-t-md border border-line-strong bg-sheet px-4 py-2 text-[13px]"
      >
        <b className="font-semibold">The computer</b>
        <span className="text-soft">
          {radios === null
            ? 'Looking…'
            : plugged.length === 0
              ? 'Nothing is in: plug a cable in below, or put in a card.'
              : `${plugged.map(({ label }) => label).join('; ')} ${plugged.length === 1 ? 'is' : 'are'} plugged in.`}
        </span>
      </section>
      <main className="grid flex-1 grid-cols-[repeat(auto-fill,minmax(330px,1fr))] content-start items-start gap-x-5 gap-y-9 rounded-b-md border border-t-0 border-line-strong bg-sunk px-5 pb-6 pt-8">
        {(radios ?? []).map((radio) => (
          <OnTable key={radio.id} radio={radio} act={act(radio.id, false)} order={act(radio.id, true)} />
        ))}
      </main>
    </div>
  );
}

createRoot(document.getElementById('bench')!).render(<Table />);
