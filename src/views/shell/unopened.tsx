import Link from 'next/link';

/** The page of a plan that is there and cannot be opened. */
export function Unopened({ id, why }: { id: string; why: string }) {
  return (
    <main className="grid h-full place-items-center">
      <div className="max-w-lg">
        <h1 className="text-[21px] font-semibold">This plan cannot be opened</h1>
        <p className="break-words py-3 text-soft">{why}</p>
        <p className="flex gap-6">
          <Link prefetch={false} className="underline" href="/">
            All plans
          </Link>
          <a className="underline" href={`/api/plans/${id}/document`} download>
            Save its document
          </a>
        </p>
      </div>
    </main>
  );
}
