import { useEffect, useState } from 'react';
import { api } from '@/api';
import { call, sentenceOf } from '@/api/call';
import { Button } from '@/ui';

/** How often the server is asked whether it can go on, ms. */
const AGAIN_MS = 2000;

/** In place of a page that could not be made: why, as the server says it. Where the data was away the page opens by itself when it is back. */
export function Broken({ onAgain }: { onAgain: () => void }) {
  const [trouble, setTrouble] = useState<string | null>(null);
  useEffect(() => {
    let away = false;
    const ask = () =>
      call(api.health, {}).then(
        () => {
          if (away) onAgain();
        },
        (error: unknown) => {
          away = true;
          setTrouble(sentenceOf(error));
        },
      );
    void ask();
    const timer = setInterval(() => void ask(), AGAIN_MS);
    return () => clearInterval(timer);
  }, [onAgain]);
  return (
    <main className="grid h-full place-items-center">
      <div className="max-w-md">
        <h1 className="text-[21px] font-semibold">This page could not be made</h1>
        <p role="status" className="py-3 text-soft">
          {trouble === null
            ? 'Nothing of yours is lost. The server’s output says why.'
            : `${trouble} This page will open by itself.`}
        </p>
        <Button onClick={onAgain}>Try again</Button>
      </div>
    </main>
  );
}
