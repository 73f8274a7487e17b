'use client';

import type { Offer, OfferGroup, Offers } from '@/core/organise';
import { countOf, KINDS, type Edit } from '@/core/plan';
import { capital } from '@/core/text';
import { Button } from '@/ui';

/** So many that are alike are told of once. */
const MANY = 4;
/** Most of a group that are shown when it is opened. */
const SHOWN = 60;

/** What changed in a plan of the family: all that do not clash at once, what is alike together, or each by itself; or the rest left. */
export function OffersList({
  offers,
  groups,
  all,
  more,
  take,
  leave,
}: Offers & { take: (edit: Edit) => void; leave: () => void }) {
  const byId = new Map(offers.map((offer) => [`${offer.kind} ${offer.id}`, offer]));
  return (
    <>
      <p className="flex flex-wrap gap-1.5 border-b border-line px-3 py-2">
        {all && (
          <Button size="small" onClick={() => take(all)}>
            Take all that do not clash
          </Button>
        )}
        <Button kind="quiet" size="small" onClick={leave}>
          Leave {all ? 'the rest' : 'them'}
        </Button>
      </p>
      <ul>
        {groups.map((group) => {
          const alike = group.ids.flatMap((id) => byId.get(`${group.kind} ${id}`) ?? []);
          return alike.length < MANY ? (
            alike.map((offer) => <OfferRow key={`${offer.kind} ${offer.id}`} offer={offer} take={take} />)
          ) : (
            <GroupRow
              key={`${group.kind} ${group.what} ${group.text} ${group.clash}`}
              group={group}
              alike={alike}
              take={take}
            />
          );
        })}
        {more > 0 && (
          <li className="px-3 py-1.5 text-soft">{more} more come when these are taken or left.</li>
        )}
      </ul>
    </>
  );
}

function GroupRow({
  group: { kind, text, clash, edit },
  alike,
  take,
}: {
  group: OfferGroup;
  alike: readonly Offer[];
  take: (edit: Edit) => void;
}) {
  const count = countOf(alike.length, KINDS[kind]);
  return (
    <li className="border-b border-line last:border-b-0">
      <div className="flex items-start gap-2 px-3 py-1.5">
        <details className="min-w-0 flex-1">
          <summary className="cursor-pointer">
            <span className="font-medium">{count}</span>{' '}
            <span className="text-[12px] text-soft">
              {text}
              {clash && <span className="text-caution"> · changed here too</span>}
            </span>
          </summary>
          <ul className="text-[12.5px]">
            {alike.slice(0, SHOWN).map((offer) => (
              <li key={offer.id} className="flex items-baseline gap-2 py-0.5">
                <span className="min-w-0 flex-1 truncate">{offer.name || 'no name'}</span>
                <button
                  type="button"
                  className="shrink-0 underline"
                  aria-label={`Take: ${offer.name}, ${offer.text}`}
                  onClick={() => take(offer.edit)}
                >
                  Take
                </button>
              </li>
            ))}
            {alike.length > SHOWN && <li className="text-soft">and {alike.length - SHOWN} more</li>}
          </ul>
        </details>
        <Button size="small" aria-label={`Take: ${count}, ${text}`} onClick={() => take(edit)}>
          Take
        </Button>
      </div>
    </li>
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
    <li className="flex items-center gap-2 border-b border-line px-3 py-1.5 last:border-b-0">
      <span className="min-w-0 flex-1">
        <span className="block truncate font-medium">
          {kind === 'channel' ? called : `${capital(KINDS[kind].words.one)} “${called}”`}
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
