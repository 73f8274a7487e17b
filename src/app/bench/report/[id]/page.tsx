import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { getSeveral, Problem } from '@/server';
import { ReportPage } from '@/views/bench';

export const metadata: Metadata = { title: 'Report' };

/** The report; a page of its own kind says that there is none. */
async function load(id: string) {
  try {
    return await getSeveral(id.slice(0, 60));
  } catch (error) {
    if (error instanceof Problem && [404, 410].includes(error.status)) notFound();
    throw error;
  }
}

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  return <ReportPage batch={await load((await params).id)} />;
}
