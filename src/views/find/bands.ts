import type { Candidate } from '@/core/directory';
import { ALLOCATIONS } from '@/core/radio';

/** The band of a candidate's receive frequency, by the Orrin table. */
export const bandOf = ({ entry }: Candidate): string =>
  ALLOCATIONS.orrin.find((a) => a.from <= entry.output && a.to >= entry.output)?.band ?? 'Other';
