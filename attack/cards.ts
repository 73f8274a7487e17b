import type { Job } from '../src/core/bench';
import { contentToWrite } from '../src/core/check';
import { decodeImage } from '../src/core/image';
import { ploverF5 } from '../src/core/models/plover-f5';
import type { Plan } from '../src/core/plan';
import { placing, renaming } from '../src/core/samples.test.kit';
import { pick, seeded } from '../src/sim/random';
import { until as waitFor, type World } from '../e2e/world';
import { ask, post, Watch, type Report } from './figures';

const UNIT = '/bench/radios/plover-1';
const SERIAL = 'OR520144';

interface Lying {
  card: { in: string; says: string };
  channel: { name: string } | null;
  halfWritten: boolean;
}

/**
 * A card that is taken out anywhere in a write, while Veridon is killed too: the radio has its old content or the new, and never anything
 * else; what is half is known as half, by Veridon and by the radio; and the write always comes to its end.
 */
export async function spoilCards(
  world: World,
  { rounds, seed, until }: { rounds: number; seed: number; until: number },
): Promise<Report> {
  const random = seeded(seed);
  const watch = new Watch();
  const ends: Record<string, number> = { rounds: 0 };
  const count = (what: string) => (ends[what] = (ends[what] ?? 0) + 1);
  const hand = (body: object, path = '') => world.atBench(`${UNIT}${path}`, body) as Promise<Lying>;
  const owner = { callSign: 'Q7ABC', region: 'orrin', grade: 'full', strict: false };
  const made = await ask(
    `${world.url}/api/plans`,
    post({ name: `On card ${seed}`, modelId: ploverF5.id, owner }),
  );
  const planId = (made.body as { plan: Plan }).plan.id;
  const planNow = async () =>
    (await ask(`${world.url}/api/plans/${planId}`)).body as { plan: Plan; revision: number };
  const edit = async (what: object) => {
    const { revision } = await planNow();
    const answer = await ask(`${world.url}/api/plans/${planId}/edits`, post({ base: revision, edit: what }));
    watch.take('POST /api/plans/{id}/edits', answer);
  };
  const run = async (body: object, killing = false): Promise<Pick<Job, 'state' | 'message' | 'result'>> => {
    const started = await ask(`${world.url}/api/jobs`, post(body));
    if (started.status !== 202)
      return { state: 'failed', message: `Refused: ${JSON.stringify(started.body)}`, result: {} } as never;
    const { id } = started.body as Job;
    if (killing) {
      await new Promise((resolve) => setTimeout(resolve, random() * 120));
      count('kills');
      await world.kill('SIGKILL');
      await world.start();
    }
    return waitFor(`the end of ${id}`, async () => {
      const now = (await ask(`${world.url}/api/jobs/${id}`)).body as Job;
      return now.state !== 'running' && now;
    });
  };
  /** The card in the reader, as the radio saved it last. */
  const toReader = async (save: boolean) => {
    await hand({ kind: 'none' }, '/faults');
    await hand({ plugged: false });
    if (save) await hand({ card: 'save' });
    await hand({ plugged: true });
    return waitFor(SERIAL, async () => {
      const { radios } = (await ask(`${world.url}/api/radios`)).body as {
        radios: { id: string; serial: string; port: string | null; state: string }[];
      };
      const found = radios.find(({ serial, port }) => serial === SERIAL && port !== null);
      return found && { radioId: found.id, state: found.state };
    });
  };
  const { radioId } = await toReader(true);
  await run({ kind: 'read', radioId });
  // The first falls into slot 0, which this radio does not have; the second is its first.
  await edit(placing(1, 2, 3, 4, 5));
  /** The name that the first memory of the radio has, or has had while what is on the card now was made. */
  let inRadio = (await hand({ slot: 1 })).channel?.name ?? '';
  /** What the card has that was written whole and not loaded yet. */
  let onCard = inRadio;

  for (let n = 0; n < rounds && Date.now() < until; n++) {
    count('rounds');
    const wanted = `Round ${n}`;
    await edit(renaming(2, wanted));
    const { revision } = await planNow();
    const saves = random() < 0.3;
    await toReader(saves);
    if (saves) onCard = inRadio;
    const kind = pick(random, ['pull', 'pull', 'kill', 'none']);
    // CARD.TXT, then four files with together 74,414 bytes, CARD.TXT again.
    const atByte = 1 + Math.floor(random() * pick(random, [400, 3000, 74_900]));
    if (kind === 'pull') await hand({ kind, atByte }, '/faults');
    const job = await run({ kind: 'write', radioId, planId, planRevision: revision }, kind === 'kill');
    const where = `${kind} at ${atByte}: ${job.state}, “${job.message}”`;
    count(`${kind}, ${job.state}`);
    if (kind === 'none' && job.state !== 'done') watch.note(where);
    // The radio tries what is on the card, whatever that is.
    await hand({ kind: 'none' }, '/faults');
    await hand({ plugged: false });
    const loaded = await hand({ card: 'load', slot: 1 });
    const name = loaded.channel?.name ?? '';
    if (loaded.halfWritten) watch.note(`${where}, and the radio is half written`);
    if (job.state === 'done' && name !== wanted) watch.note(`${where}, but the radio shows ${name}`);
    // What is not done may be the card of before, the new one where only its proof is missing, or an error: never anything else.
    if (![wanted, inRadio, onCard].includes(name)) watch.note(`${where}, and the radio shows ${name}`);
    if (loaded.card.says === 'CARD ERROR') count('refused by the radio');
    inRadio = name;
    if (loaded.card.says !== 'CARD ERROR') onCard = name;
    const { state } = await toReader(false);
    if (loaded.card.says === 'CARD ERROR' && state !== 'half written')
      watch.note(`${where}: the radio takes nothing of the card, and Veridon calls it ${state}`);
    if (state === 'half written') {
      const back = await run(
        random() < 0.5
          ? { kind: 'resume', radioId }
          : { kind: 'write', radioId, planId, planRevision: revision },
      );
      if (back.state !== 'done') watch.note(`After ${where}: ${back.message}`);
      count('brought to its end');
      onCard = wanted;
    }
  }
  await toReader(true);
  await edit(renaming(2, 'The last'));
  const { plan, revision } = await planNow();
  const last = await run({ kind: 'write', radioId, planId, planRevision: revision });
  if (last.state !== 'done') watch.note(`The last write: ${last.message}`);
  await hand({ plugged: false });
  if ((await hand({ card: 'load', slot: 1 })).channel?.name !== 'The last')
    watch.note('In the end the radio does not show what was written');
  const image = new Uint8Array(
    await (await fetch(`${world.url}/api/copies/${last.result.writtenCopyId}/image`)).arrayBuffer(),
  );
  const held = decodeImage(image, ploverF5);
  const { channels } = contentToWrite(plan, ploverF5);
  if (!held.ok || held.value.channels.length !== channels.length)
    watch.note('In the end the card holds something else than the plan');
  return { attack: 'cards', figures: ends, broken: watch.broken };
}
