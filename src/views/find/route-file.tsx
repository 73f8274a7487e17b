'use client';

import { FileUp } from 'lucide-react';
import { routeOf } from '@/core/radio';
import type { Result } from '@/core/result';
import { pickFile } from '@/views/parts';
import type { FileHead } from '@/workers/file-worker';
import type { Search } from './use-search';

/** Takes a route from a track or route of a file: the longest line of it. */
export function RouteFile({ search }: { search: Search }) {
  const take = async (file: File) => {
    const { readInWorker } = await import('@/views/parts/read-file');
    const taken = (read: Result<FileHead>) => {
      reading.stop();
      if (!read.ok) return search.say(read.reason);
      const lines = read.value.kind === 'places' ? read.value.lines : [];
      const [longest] = lines.map((line) => ({ line, km: routeOf(line).km })).sort((a, b) => b.km - a.km);
      if (!longest)
        return search.say(`There is no route and no track in ${file.name}. GPX, GeoJSON and KML have them.`);
      search.alongPoints(longest.line);
    };
    const reading = readInWorker(file, undefined, { onHead: taken });
  };
  return (
    <button
      type="button"
      title="A route from a GPX, GeoJSON or KML file"
      className="inline-flex h-8 items-center rounded-md border border-line-strong bg-sheet px-2 hover:bg-sunk"
      onClick={() => pickFile((file) => void take(file))}
    >
      <FileUp size={14} aria-hidden />
      <span className="sr-only">A route from a file</span>
    </button>
  );
}
