import type { FittedChannel } from '@/core/models';

/** A radio as it lies on the bench. */
export interface Lying {
  id: string;
  label: string;
  modelId: string;
  serial: string;
  firmware: string;
  plugged: boolean;
  /** False where it has no socket for a cable. */
  cabled: boolean;
  /** Its memory card, where it has one in place of a cable: where it is, and what the display said of it last. */
  card: { in: 'radio' | 'reader'; says: string } | null;
  on: boolean;
  slot: number;
  cable: number;
  keyDown: boolean;
  battery: number;
  halfWritten: boolean;
  /** The people in it are there in part, and none of them is named. */
  peopleHalf: boolean;
  fault: { kind: string };
  channel: FittedChannel | null;
  other: FittedChannel | null;
  settings: Record<string, unknown>;
  /** Whom its channel calls, by name. */
  talkgroup: string;
  /** Where its knob stands in its zone, on radios with a place for each channel. */
  position: number | null;
  /** Who calls, as its display has it. */
  caller: string | null;
  /** Who is on the air where it listens; null where nobody is. */
  air: string | null;
}

const headers = () => ({ Authorization: `Bearer ${document.getElementById('bench')!.dataset.key}` });

export async function lookAtTable(): Promise<Lying[]> {
  const answer = await fetch('/bench/radios', { headers: headers() });
  if (!answer.ok) throw new Error('The bench has been started anew. Load this page again.');
  return ((await answer.json()) as { radios: Lying[] }).radios;
}

/** Does something to a radio; `faults` orders a mishap. */
export async function handle(id: string, body: object, faults = false): Promise<void> {
  const answer = await fetch(`/bench/radios/${id}${faults ? '/faults' : ''}`, {
    method: 'POST',
    headers: headers(),
    body: JSON.stringify(body),
  });
  if (!answer.ok)
    throw new Error(((await answer.json()) as { error?: string }).error ?? 'The bench refused that.');
}
