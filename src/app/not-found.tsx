import Link from 'next/link';

export default function NotFound() {
  return (
    <main className="grid h-full place-items-center">
      <div className="max-w-md">
        <h1 className="text-[21px] font-semibold">There is nothing at this address</h1>
        <p className="py-3 text-soft">
          The plan may have been removed, and can then be brought back, or made with another data directory.
        </p>
        <Link prefetch={false} className="underline" href="/">
          All plans
        </Link>
      </div>
    </main>
  );
}
