import { decodeImage } from '../src/core/image';
import { ternP2 } from '../src/core/models/tern-p2';
import { pick, seeded } from '../src/sim/random';
import { PLAN, until as waitFor, type World } from '../e2e/world';
import { ask, limits, post, Watch, type Report } from './figures';

interface Job {
  id: string;
  state: string;
  message: string;
  result: { radio?: string; bytesIn?: number };
}
interface Look {
  halfWritten: boolean;
  plugged: boolean;
}

/**
 * Writes and restores with the cable pulled, a bit flipped or the radio gone at any byte: what is said of the radio is true,
 * every end is an end, and the first sealed copy always brings it back.
 */
export async function pullCables(
  world: World,
  { faults, seed, until }: { faults: number; seed: number; until: number },
): Promise<Report> {
  const random = seeded(seed);
  const watch = new Watch();
  const ends: Record<string, number> = {};
  const look = async () => ((await world.atBench('/bench/radios')) as { radios: Look[] }).radios[0]!;
  const run = async (body: object): Promise<Job> => {
    const started = await ask(`${world.url}/api/jobs`, post(body));
    watch.take('POST /api/jobs', started, Math.max(15_000, limits.hangMs));
    if (started.status !== 202)
      return { id: '', state: `refused with ${started.status}`, message: '', result: {} };
    const { id } = started.body as Job;
    return waitFor(`the end of ${id}`, async () => {
      const now = (await ask(`${world.url}/api/jobs/${id}`)).body as Job;
      return now.state !== 'running' && now;
    });
  };
  await ask(`${world.url}/api/plans/${PLAN}/recover`, post(undefined));
  await world.atBench('/bench/radios/tern-1', { plugged: true, on: true });
  const bench = (await ask(`${world.url}/api/radios`)).body as { radios: { id: string; serial: string }[] };
  const radioId = bench.radios.find(({ serial }) => serial === 'LK204417')!.id;
  await run({ kind: 'read', radioId });
  const copies = (await ask(`${world.url}/api/radios/${radioId}/copies`)).body as {
    copies: { id: string }[];
  };
  const first = copies.copies.at(-1)!.id;
  const original = new Uint8Array(
    await (await fetch(`${world.url}/api/copies/${first}/image`)).arrayBuffer(),
  );

  for (let n = 0; n < faults && Date.now() < until; n++) {
    const { revision } = (await ask(`${world.url}/api/plans/${PLAN}`)).body as { revision: number };
    const kind = pick(random, ['pull', 'pull', 'pull', 'flip', 'silent']);
    // Reading first takes few bytes towards the radio; a write some 8,500.
    const atByte = 1 + Math.floor(random() * pick(random, [60, 400, 9000]));
    const fault = kind === 'silent' ? { kind } : { kind, atByte };
    await world.atBench('/bench/radios/tern-1/faults', fault);
    const job = await run(
      random() < 0.7
        ? { kind: 'write', radioId, planId: PLAN, planRevision: revision }
        : { kind: 'restore', radioId, copyId: first },
    );
    const now = await look();
    const said = `${job.state}${job.result.radio ? `, ${job.result.radio}` : ''}`;
    ends[said] = (ends[said] ?? 0) + 1;
    const where = `${kind} at ${atByte}: ${said}`;
    if (now.halfWritten && (job.state === 'done' || job.result.radio === 'untouched'))
      watch.note(`${where}, but the radio is half written`);
    if (!now.halfWritten && job.result.radio === 'half written')
      watch.note(`${where}, but the radio is whole`);
    if (/ 0 bytes were in/.test(job.message)) watch.note(`${where} says “${job.message}”`);
    if (kind === 'flip' && job.state !== 'done') watch.note(`${where}: ${job.message}`);
    await world.atBench('/bench/radios/tern-1/faults', { kind: 'none' });
    await world.atBench('/bench/radios/tern-1', { plugged: true, on: true });
    if (now.halfWritten || random() < 0.2) {
      const back = await run({ kind: 'restore', radioId, copyId: first });
      if (back.state !== 'done') watch.note(`Restoring after ${where}: ${back.message}`);
    }
  }
  const restored = await run({ kind: 'restore', radioId, copyId: first });
  const [newest] = (
    (await ask(`${world.url}/api/radios/${radioId}/copies`)).body as { copies: { id: string }[] }
  ).copies;
  const image = new Uint8Array(
    await (await fetch(`${world.url}/api/copies/${newest!.id}/image`)).arrayBuffer(),
  );
  const differ = [...image.keys()].filter((at) => image[at] !== original[at] && (at < 0x70 || at >= 0x80));
  if (restored.state !== 'done' || differ.length > 0)
    watch.note(`At the end ${differ.length} bytes are not what the radio came with`);
  if (!decodeImage(image, ternP2).ok) watch.note('At the end the content cannot be read');
  return { attack: 'cables', figures: { ...ends }, broken: watch.broken };
}
