'use client';

import type { Offer, Offers } from '@/core/organise';
import { KINDS, type Edit } from '@/core/plan';
import { Button } from '@/ui';

/** Most offers that are shown one by one; the rest is counted. */
const SHOWN = 60;

/** What changed in a plan of the family: each to take, all that do not clash at once, or the rest left. */
export function OffersList({
  offers,
  all,
  more,
  take,
  leave,
}: Offers & { take: (edit: Edit) => void; leave: () => void }) {
  return (
    <>
      <ul>
        {offers.slice(0, SHOWN).map((offer) => (
          <OfferRow key={`${offer.kind} ${offer.id}`} offer={offer} take={take} />
        ))}
        {offers.length + more > SHOWN && (
          <li className="px-3 py-1.5 text-soft">and {Math.max(0, offers.length - SHOWN) + more} more</li>
        )}
      </ul>
      <p className="flex flex-wrap gap-1.5 px-3 py-2">
        {all && (
          <Button size="small" onClick={() => take(all)}>
            Take all that do not clash
          </Button>
        )}
        <Button kind="quiet" size="small" onClick={leave}>
          Leave the rest
        </Button>
      </p>
    </>
  );
}

function OfferRow({
  offer: { kind, name, text, clash, edit },
  take,
}: {
  offer: Offer;
  take: (edit: Edit) => void;
}) {
  const called = name || 'no name';
  return (
    <li className="flex items-center gap-2 border-b border-line px-3 py-1.5">
      <span className="min-w-0 flex-1">
        <span className="block truncate font-medium">
          {kind === 'channel' ? called : `${KINDS[kind].words.one} “${called}”`}
        </span>
        <span className="block text-[12px] text-soft">
          {text}
          {clash && <span className="text-caution"> · changed here too</span>}
        </span>
      </span>
      <Button size="small" aria-label={`Take: ${name}, ${text}`} onClick={() => take(edit)}>
        Take
      </Button>
    </li>
  );
}
