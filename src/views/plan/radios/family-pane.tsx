'use client';

import { useQuery } from '@tanstack/react-query';
import Link from 'next/link';
import { call, sentenceOf } from '@/api/call';
import { planApi } from '@/api/plans';
import { modelById } from '@/core/models';
import { Button, Trouble } from '@/ui';
import { useDesk } from '../desk';

/** Plans that were made of one another: what changed there, to take or to leave, and what is this plan's own. */
export function FamilyPane() {
  const { hand, actions } = useDesk();
  const { plan, store, revision } = hand;
  const { data, error, refetch } = useQuery({
    queryKey: ['offers', plan.id, revision],
    queryFn: () => call(planApi.offers, { params: { id: plan.id } }),
    placeholderData: (before) => before,
  });
  if (error) return <Trouble>{sentenceOf(error)}</Trouble>;
  if (!data) return null;
  const { source, offers, own, made } = data;
  const take = (edit: (typeof offers)[number]['edit']) => {
    const result = store.apply(edit);
    if (!result.ok) actions.setSaid(result.reason);
  };
  const seen = () => {
    if (source)
      store.apply({
        name: 'describe',
        set: { origin: { plan: source.id, revision: source.revision } },
      });
  };
  const link = (id: string, name: string) => (
    <Link prefetch={false} className="font-medium underline" href={`/plans/${id}`}>
      {name}
    </Link>
  );
  return (
    <>
      {source && (
        <section
          aria-label="Where it came from"
          className="rounded-md border border-line bg-sheet text-[13px]"
        >
          <p className="border-b border-line px-3 py-2">
            Made of {link(source.id, source.name)}, for the{' '}
            {modelById(source.modelId)?.name ?? source.modelId}.
          </p>
          {offers.length === 0 ? (
            <p className="px-3 py-2 text-soft">
              Nothing new there.{' '}
              <button type="button" className="underline" onClick={() => void refetch()}>
                Look again
              </button>
            </p>
          ) : (
            <>
              <h3 className="px-3 pt-2 font-semibold">Changed there since</h3>
              <ul>
                {offers.map(({ id, name, text, clash, edit }) => (
                  <li key={id} className="flex items-center gap-2 border-b border-line px-3 py-1.5">
                    <span className="min-w-0 flex-1">
                      <span className="block truncate font-medium">{name || 'no name'}</span>
                      <span className="block text-[12px] text-soft">
                        {text}
                        {clash && <span className="text-caution"> · changed here too</span>}
                      </span>
                    </span>
                    <Button size="small" aria-label={`Take: ${name}, ${text}`} onClick={() => take(edit)}>
                      Take
                    </Button>
                  </li>
                ))}
              </ul>
              <p className="flex gap-1.5 px-3 py-2">
                <Button
                  size="small"
                  onClick={() => offers.filter(({ clash }) => !clash).forEach(({ edit }) => take(edit))}
                >
                  Take all that do not clash
                </Button>
                <Button kind="quiet" size="small" onClick={seen}>
                  Leave the rest
                </Button>
              </p>
            </>
          )}
          {own.length > 0 && (
            <>
              <h3 className="border-t border-line px-3 pt-2 font-semibold">
                {own.length === 1 ? 'One difference' : `${own.length} differences`} of its own
              </h3>
              <ul className="px-3 pb-2">
                {own.slice(0, 30).map(({ id, name, text }) => (
                  <li key={id} className="flex justify-between gap-3">
                    <span className="truncate">{name || 'no name'}</span>
                    <span className="shrink-0 text-soft">{text}</span>
                  </li>
                ))}
                {own.length > 30 && <li className="text-soft">and {own.length - 30} more</li>}
              </ul>
            </>
          )}
        </section>
      )}
      <section
        aria-label="Plans made of this one"
        className="rounded-md border border-line bg-sheet text-[13px]"
      >
        <h3 className="px-3 pt-2 font-semibold">Made of this plan</h3>
        {made.length === 0 ? (
          <p className="px-3 pb-2 text-soft">
            None yet. “Make one” above a radio makes a plan for it; what changes here is offered there from
            then on.
          </p>
        ) : (
          <ul className="px-3 pb-2">
            {made.map(({ id, name, modelId, differences }) => (
              <li key={id} className="py-0.5">
                {link(id, name)}
                <span className="block text-[12px] text-soft">
                  {modelById(modelId)?.name ?? modelId},{' '}
                  {differences === 0
                    ? 'no differences'
                    : differences === 1
                      ? 'one difference of its own'
                      : `${differences} differences of its own`}
                </span>
              </li>
            ))}
          </ul>
        )}
      </section>
    </>
  );
}
