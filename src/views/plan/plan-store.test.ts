import { until } from '@/core/until.test.kit';
import { applyEdit, inverseOf, type Edit, type Plan } from '@/core/plan';
import { channel, placing, plan, renaming } from '@/core/samples.test.kit';
import { Refusal, Unreachable } from '@/api/ask';
import { createPlanStore, type PlanServer } from './plan-store';

const start = plan([channel(1, 145_500_000, { name: 'One' }), channel(2, 145_525_000, { name: 'Two' })]);
const names = (p: Plan) => p.channels.map((c) => c.name);

/** A server that keeps a plan; `trip` is asked before each edit and may throw. */
function fakeServer(trip: (edit: Edit, n: number) => void = () => {}) {
  const kept = { plan: start, revision: 5, undo: null as string | null, redo: null as string | null };
  let n = 0;
  let keys = 0;
  const server: PlanServer = {
    async edit(base, edit) {
      trip(edit, n++);
      if (base !== kept.revision) throw new Refusal(409, 'stale-edit', 'Changed meanwhile.');
      const result = applyEdit(kept.plan, edit);
      if (!result.ok) throw new Refusal(422, 'edit-refused', result.reason);
      Object.assign(kept, { plan: result.value, revision: kept.revision + 1, undo: 'Rename' });
      return { revision: kept.revision, undo: kept.undo, redo: null };
    },
    async step(base, kind) {
      if (base !== kept.revision) throw new Refusal(409, 'stale-edit', 'Changed meanwhile.');
      const edits = [inverseOf(start, kept.plan)];
      Object.assign(kept, { plan: start, revision: kept.revision + 1, undo: null, redo: 'Rename' });
      return { revision: kept.revision, undo: null, redo: kind === 'undo' ? 'Rename' : null, edits };
    },
    async goBack(base, revision) {
      if (base !== kept.revision) throw new Refusal(409, 'stale-edit', 'Changed meanwhile.');
      const undo = `Go back to revision ${revision}`;
      const edits = [inverseOf(start, kept.plan)];
      Object.assign(kept, { plan: start, revision: kept.revision + 1, undo });
      return { revision: kept.revision, undo, redo: null, edits };
    },
    key: () => `test.${++keys}`,
    load: async () => ({ ...kept }),
    wait: async () => {},
  };
  return { kept, server };
}

const settled = async (store: ReturnType<typeof createPlanStore>) => {
  await until('all to be sent', () => store.get().waiting === 0, { everyMs: 1 });
  return store.get();
};

const open = (server: PlanServer) =>
  createPlanStore({ plan: start, revision: 5, undo: null, redo: null }, server);

test('an edit shows at once, is sent in turn, and is kept', async () => {
  const { kept, server } = fakeServer();
  const store = open(server);
  store.apply(renaming(1, 'A'));
  store.apply(renaming(2, 'B'));
  expect(names(store.get().plan)).toEqual(['A', 'B']);
  expect(store.get().waiting).toBe(2);
  expect(await settled(store)).toMatchObject({ revision: 7, waiting: 0, undo: 'Rename', trouble: null });
  expect(names(kept.plan)).toEqual(['A', 'B']);
});

test('an edit that cannot be run says why and sends nothing', () => {
  const { server } = fakeServer();
  const store = open(server);
  expect(store.apply(renaming(9, 'X'))).toMatchObject({ ok: false });
  expect(store.get().waiting).toBe(0);
});

test('what the server refuses is taken back and said; the rest stays', async () => {
  const { kept, server } = fakeServer((_, n) => {
    if (n === 0) throw new Refusal(422, 'edit-refused', 'Not so.');
  });
  const store = open(server);
  store.apply(renaming(1, 'A'));
  store.apply(renaming(2, 'B'));
  expect(await settled(store)).toMatchObject({ trouble: 'Not so.', offline: false });
  expect(names(store.get().plan)).toEqual(['One', 'B']);
  expect(names(kept.plan)).toEqual(['One', 'B']);
  store.dismiss();
  expect(store.get().trouble).toBeNull();
});

test('without a server edits are kept, said to be waiting, and sent when it is back', async () => {
  let calls = 0;
  const { kept, server } = fakeServer(() => {
    if (calls++ < 3) throw new Unreachable();
  });
  const store = open(server);
  let sawOffline = false;
  store.subscribe(() => (sawOffline ||= store.get().offline));
  store.apply(renaming(1, 'A'));
  expect(await settled(store)).toMatchObject({ offline: false, revision: 6 });
  expect(sawOffline).toBe(true);
  expect(names(kept.plan)).toEqual(['A', 'Two']);
});

test('what others did meanwhile is taken, with what still waits laid over it', async () => {
  const { server } = fakeServer();
  const answers = [
    { revision: 8, edits: [placing(3), placing(4), renaming(1, 'A')] },
    { revision: 9, edits: undefined },
  ];
  const sent: number[] = [];
  const store = open({
    ...server,
    edit: async (base) => {
      sent.push(base);
      return { undo: null, redo: null, ...answers[sent.length - 1]! };
    },
  });
  store.apply(renaming(1, 'A'));
  store.apply(renaming(2, 'B'));
  expect(names((await settled(store)).plan)).toEqual(['Station 3', 'A', 'B', 'Station 4']);
  // the second is made on what the first was answered with
  expect(sent).toEqual([5, 8]);
});

test('who is too far behind to be brought along loads the plan; who was told what does not fit does too', async () => {
  for (const edits of [undefined, [renaming(77, 'Nobody')]]) {
    const { kept, server } = fakeServer();
    const store = open({ ...server, step: async () => ({ revision: 400, undo: null, redo: null, edits }) });
    store.apply(renaming(1, 'A'));
    await settled(store);
    Object.assign(kept, { plan: plan([channel(7, 145_700_000, { name: 'Theirs' })]), revision: 400 });
    store.step('undo');
    await settled(store);
    await until('the plan to be loaded', () => store.get().revision === 400, { everyMs: 1 });
    expect(store.get()).toMatchObject({ revision: 400, waiting: 0 });
    expect(names(store.get().plan)).toEqual(['Theirs']);
  }
});

test('undo takes the server’s plan', async () => {
  const { server } = fakeServer();
  const store = open(server);
  store.apply(renaming(1, 'A'));
  store.step('undo');
  expect(names((await settled(store)).plan)).toEqual(['One', 'Two']);
  expect(store.get()).toMatchObject({ undo: null, redo: 'Rename' });
});

test('who looks for free slots waits for what an undo under way makes of the plan, but not for a server that is away', async () => {
  for (const loaded of [false, true]) {
    const { server } = fakeServer();
    let answer = () => {};
    const gate = new Promise<void>((resolve) => (answer = resolve));
    const store = open({
      ...server,
      step: async (...args) => {
        const { edits, ...rest } = await server.step(...args);
        if (!loaded) await gate;
        return loaded ? rest : { ...rest, edits };
      },
      load: async () => (await gate, server.load()),
      wait: () => new Promise((resolve) => setTimeout(resolve, 1)),
    });
    store.apply(renaming(1, 'A'));
    store.step('undo');
    const seen: string[][] = [];
    const waiting = store.settled().then(() => seen.push(names(store.get().plan)));
    await new Promise((resolve) => setTimeout(resolve, 20));
    expect(seen).toEqual([]);
    answer();
    await waiting;
    expect(seen).toEqual([['One', 'Two']]);
  }
  const { server } = fakeServer();
  let back = () => {};
  const away = open({
    ...server,
    edit: () => Promise.reject(new Unreachable()),
    wait: () => new Promise((resolve) => (back = resolve)),
  });
  away.apply(renaming(1, 'A'));
  away.step('undo');
  await until('the first try', () => away.get().offline, { everyMs: 1 });
  await away.settled();
  expect(away.get()).toMatchObject({ offline: true, waiting: 2 });
  back();
});

test('going back comes after the edits that wait, and takes the server’s plan', async () => {
  const { server } = fakeServer();
  const store = open(server);
  store.apply(renaming(1, 'A'));
  store.goBack(5);
  expect(await settled(store)).toMatchObject({ revision: 7, undo: 'Go back to revision 5', trouble: null });
  expect(names(store.get().plan)).toEqual(['One', 'Two']);
});

test('what others changed is taken when somebody looks again, but never over work under way', async () => {
  const { kept, server } = fakeServer();
  const store = open(server);
  Object.assign(kept, { plan: plan([channel(7, 145_700_000, { name: 'Theirs' })]), revision: 6 });
  await store.refresh();
  expect(names(store.get().plan)).toEqual(['Theirs']);
  store.apply(renaming(7, 'Mine'));
  Object.assign(kept, { plan: start, revision: 9 });
  await store.refresh();
  expect(names(store.get().plan)).toEqual(['Mine']);
  await settled(store);
});

test('a server that is away leaves what is shown as it is', async () => {
  const { server } = fakeServer();
  const store = open({ ...server, load: () => Promise.reject(new Unreachable()) });
  await store.refresh();
  expect(store.get()).toMatchObject({ revision: 5, offline: false, trouble: null });
});

test('with nothing to undo nothing is asked; with an edit under way it is, whatever the last answer said', async () => {
  const { server } = fakeServer();
  const asked: string[] = [];
  const store = open({
    ...server,
    step: (base, kind, key) => (asked.push(kind), server.step(base, kind, key)),
  });
  store.step('undo');
  store.step('redo');
  expect(await settled(store)).toMatchObject({ revision: 5, waiting: 0 });
  expect(asked).toEqual([]);
  store.apply(renaming(1, 'A'));
  store.step('undo');
  await settled(store);
  expect(asked).toEqual(['undo']);
});

test('a change whose answer is lost is sent again under its own key, and only that one', async () => {
  const { server } = fakeServer();
  const sent: string[] = [];
  let lost = 0;
  const lose = async <T>(what: string, key: string, run: () => Promise<T>): Promise<T> => {
    sent.push(`${what} ${key}`);
    // Done there, but the answer does not come.
    if (lost++ < 2) throw new Unreachable();
    return run();
  };
  const store = open({
    ...server,
    edit: (base, edit, key) => lose('edit', key, () => server.edit(base, edit, key)),
    step: (base, kind, key) => lose(kind, key, () => server.step(base, kind, key)),
    goBack: (base, revision, key) => lose('go back', key, () => server.goBack(base, revision, key)),
  });
  store.apply(renaming(1, 'A'));
  await settled(store);
  store.step('undo');
  store.goBack(5);
  await settled(store);
  expect(sent).toEqual(['edit test.1', 'edit test.1', 'edit test.1', 'undo test.2', 'go back test.3']);
});

test('after all has been kept the store goes on keeping', async () => {
  const { kept, server } = fakeServer();
  const store = open(server);
  for (const name of ['A', 'B', 'C']) {
    store.apply(renaming(1, name));
    expect(await settled(store)).toMatchObject({ waiting: 0, trouble: null });
    expect(names(kept.plan)).toEqual([name, 'Two']);
  }
  expect(kept.revision).toBe(8);
});

test('a rename of another window is not overwritten by an edit of ours that waits', async () => {
  const { server } = fakeServer();
  let n = 0;
  // The first edit is answered with what others have done; the second one waits meanwhile.
  const store = open({
    ...server,
    edit: async (_, edit) =>
      n++ === 0
        ? { revision: 9, undo: null, redo: null, edits: [renaming(1, 'Theirs'), edit] }
        : { revision: 10, undo: null, redo: null },
  });
  store.apply({ name: 'change', changes: [{ id: start.channels[1]!.id, set: { scan: false } }] });
  store.apply({ name: 'change', changes: [{ id: start.channels[1]!.id, set: { power: 1000 } }] });
  const { plan: shown, revision } = await settled(store);
  expect(names(shown)).toEqual(['Theirs', 'Two']);
  expect(shown.channels[1]).toMatchObject({ power: 1000 });
  expect(revision).toBe(10);
});
