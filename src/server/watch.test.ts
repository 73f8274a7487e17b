import { renaming, placing } from '../core/samples.test.kit';
import { dataFolder } from './data-folder.test.kit';
import type { RadioId } from '../core/plan';
import { createPlan } from './plans';
import { dispatchRequest } from './api/dispatch';
import { editPlan } from './revisions';
import { announceLive, watchPlan } from './watch';

dataFolder('watch');

const owner = { callSign: 'Q7ABC', region: 'orrin' as const, grade: 'full' as const, strict: false };
const made = async () => (await createPlan({ name: 'Watched', modelId: 'tern-p2', owner })).plan.id;
/** The next event that says something. */
async function next(stream: AsyncIterator<string>): Promise<unknown> {
  for (;;) {
    const { value, done } = await stream.next();
    if (done) return 'ended';
    if (value.startsWith('data: ')) return JSON.parse(value.slice(6));
  }
}

test('who looks on is told where the plan is, and each revision as it is kept', async () => {
  const id = await made();
  const gone = new AbortController();
  const stream = (await watchPlan(id, gone.signal))[Symbol.asyncIterator]();
  expect(await next(stream)).toEqual({ revision: 1, label: null });
  const waiting = next(stream);
  await editPlan(id, 1, placing(0));
  expect(await waiting).toEqual({ revision: 2, label: 'Place “Station 0”' });
  // Of several that come while nobody listens, the last.
  await editPlan(id, 2, renaming(0, 'A'));
  await editPlan(id, 3, renaming(0, 'B'));
  expect(await next(stream)).toMatchObject({ revision: 4 });
  const ending = next(stream);
  gone.abort();
  expect(await ending).toBe('ended');
});

test('news of a radio that follows the plan takes no revision away that has not been told yet', async () => {
  const id = await made();
  const gone = new AbortController();
  const stream = (await watchPlan(id, gone.signal))[Symbol.asyncIterator]();
  expect(await next(stream)).toEqual({ revision: 1, label: null });
  await editPlan(id, 1, placing(0));
  const radio = { called: 'OR910031', state: 'live' as const, slot: 7, apart: 0 };
  announceLive(id, 'rd_watched' as RadioId, radio);
  expect(await next(stream)).toEqual({
    revision: 2,
    label: null,
    lives: [{ radioId: 'rd_watched', ...radio }],
  });
  const waiting = next(stream);
  announceLive(id, 'rd_watched' as RadioId, null);
  expect(await waiting).toEqual({ revision: 2, label: null });
  const ending = next(stream);
  gone.abort();
  expect(await ending).toBe('ended');
});

test('who looks at another plan, or has gone, is told nothing', async () => {
  const [one, other] = [await made(), await made()];
  const gone = new AbortController();
  const stream = (await watchPlan(other, gone.signal))[Symbol.asyncIterator]();
  expect(await next(stream)).toEqual({ revision: 1, label: null });
  const waiting = next(stream);
  await editPlan(one, 1, placing(0));
  gone.abort();
  expect(await waiting).toBe('ended');
  await editPlan(other, 1, placing(0));
  expect(await next(stream)).toBe('ended');
});

test('two hundred may look on at once; the next is told so, and may when one has gone', async () => {
  const id = await made();
  const leaving = Array.from({ length: 200 }, () => new AbortController());
  const streams = [];
  for (const { signal } of leaving) {
    const stream = (await watchPlan(id, signal))[Symbol.asyncIterator]();
    await next(stream);
    streams.push(stream);
  }
  await expect(watchPlan(id, new AbortController().signal)).rejects.toMatchObject({
    status: 429,
    kind: 'too-many',
  });
  const ending = next(streams[0]!);
  leaving[0]!.abort();
  expect(await ending).toBe('ended');
  expect(await watchPlan(id, leaving[0]!.signal)).toBeDefined();
  for (const one of leaving) one.abort();
  await Promise.all(streams.slice(1).map((stream) => next(stream)));
});

test('by the interface it is an event stream; of a plan that is not there a problem', async () => {
  const id = await made();
  const leaving = new AbortController();
  const ask = (of: string) =>
    dispatchRequest(new Request(`http://127.0.0.1/api/plans/${of}/events`, { signal: leaving.signal }));
  const answer = await ask(id);
  expect(answer.headers.get('content-type')).toBe('text/event-stream');
  const reader = answer.body!.pipeThrough(new TextDecoderStream()).getReader();
  expect((await reader.read()).value).toBe('retry: 1500\n\n');
  expect((await reader.read()).value).toBe('data: {"revision":1,"label":null}\n\n');
  leaving.abort();
  expect((await ask('pl_nothing')).status).toBe(404);
});
