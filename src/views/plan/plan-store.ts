import type { ChangeAnswer, KeptPlan } from '@/api/plans';
import { applyEdit, type Edit, type Plan } from '@/core/plan';
import type { ProblemKind } from '@/core/problems';
import type { Result } from '@/core/result';
import { Refusal, sentenceOf, Unreachable } from '@/api/ask';

/** What the screen sees. `waiting` counts changes that are not on disk yet. */
export interface PlanState extends KeptPlan {
  waiting: number;
  /** A change could not be sent; it is kept and tried again. */
  offline: boolean;
  /** What was refused last, in a sentence; null where all went well. */
  trouble: string | null;
}

/** A change that waits, with the key under which it is sent, however often. */
type Change = { key: string } & (
  | { kind: 'edit'; edit: Edit }
  | { kind: 'undo' }
  | { kind: 'redo' }
  | { kind: 'go back'; revision: number }
);
type Answer = Omit<ChangeAnswer, 'label'>;

/** What the store needs of the server; tests bring their own. */
export interface PlanServer {
  edit(base: number, edit: Edit, key: string): Promise<Answer>;
  step(base: number, kind: 'undo' | 'redo', key: string): Promise<Answer>;
  goBack(base: number, revision: number, key: string): Promise<Answer>;
  /** A key for a change that no other change has. */
  key(): string;
  load(): Promise<KeptPlan>;
  wait(ms: number): Promise<void>;
}

export interface PlanStore {
  get(): PlanState;
  subscribe(listener: () => void): () => void;
  /** Runs an edit at once and sends it for keeps; the failure's reason where it cannot be run. */
  apply(edit: Edit): Result<Plan>;
  step(kind: 'undo' | 'redo'): void;
  /** Makes the plan what it was at an earlier revision. */
  goBack(revision: number): void;
  /** Takes what others have changed meanwhile; does nothing while changes of our own are under way. */
  refresh(): Promise<void>;
  /**
   * Comes back when no undo, redo or going back is under way. What they make of the plan is known by their answer alone,
   * so that what looks for free slots in it waits for that; not where the server cannot be reached.
   */
  settled(): Promise<void>;
  /** Somebody else made a revision: takes it, unless it is our own or known. True where something of others came. */
  follow(revision: number): Promise<boolean>;
  dismiss(): void;
}

const RETRY_MS = 1500;
/** Refusals that are no trouble: what was to be taken back is back already. */
const NOTHING_TO_DO: readonly ProblemKind[] = ['nothing-to-undo', 'nothing-to-redo'];

/**
 * Holds a plan on the screen. An edit shows at once and is sent in turn, each made on the revision that the one before
 * it answered. What the server refuses is taken back and said; what cannot be sent, or whose answer is lost, is kept and sent
 * again with the same key, so that it is done once.
 */
export function createPlanStore(initial: KeptPlan, server: PlanServer): PlanStore {
  let state: PlanState = { ...initial, waiting: 0, offline: false, trouble: null };
  /** The plan as the server has it at `state.revision`; what is shown is this with what waits laid over it. */
  let kept = initial.plan;
  const listeners = new Set<() => void>();
  const queue: Change[] = [];
  let sending = false;
  /** What was sent and is not taken to its end yet; its answer may have to be loaded. */
  let underWay: Change | undefined;

  const set = (next: Partial<PlanState>) => {
    state = { ...state, ...next, waiting: queue.length };
    for (const listener of listeners) listener();
  };

  /** The server's plan with the edits that still wait laid over it; those that no longer hold are dropped and named. */
  const over = (plan: Plan): { plan: Plan; trouble: string | null } => {
    let trouble: string | null = null;
    let shown = plan;
    for (const change of [...queue]) {
      if (change.kind !== 'edit') continue;
      const result = applyEdit(shown, change.edit);
      if (result.ok) shown = result.value;
      else {
        trouble = result.reason;
        queue.splice(queue.indexOf(change), 1);
      }
    }
    return { plan: shown, trouble };
  };

  /** Takes the server's plan, with what waits laid over it. */
  const show = (plan: Plan, next: Partial<PlanState>) => {
    kept = plan;
    const shown = over(plan);
    set({ ...next, plan: shown.plan, ...(shown.trouble !== null && { trouble: shown.trouble }) });
  };

  /** Loads the plan; where that does not go either it is shown as it is. */
  const reload = async () => {
    const loaded = await server.load().catch(() => undefined);
    if (loaded) show(loaded.plan, { ...loaded, offline: false });
  };

  const take = async (change: Change, { revision, undo, redo, edits }: Answer) => {
    const done = edits ?? (change.kind === 'edit' ? [change.edit] : undefined);
    let plan: Plan | undefined = kept;
    for (const edit of done ?? []) {
      const result: Result<Plan> | undefined = plan && applyEdit(plan, edit);
      plan = result?.ok ? result.value : undefined;
    }
    // Too far behind to be brought along: the whole plan is asked for.
    if (!done || !plan) return reload();
    if (edits) return show(plan, { revision, undo, redo, offline: false });
    // What was shown already had it.
    kept = plan;
    set({ revision, undo, redo, offline: false });
  };

  const carry = (change: Change): Promise<Answer> => {
    if (change.kind === 'edit') return server.edit(state.revision, change.edit, change.key);
    if (change.kind === 'go back') return server.goBack(state.revision, change.revision, change.key);
    return server.step(state.revision, change.kind, change.key);
  };

  const send = async (): Promise<void> => {
    if (sending) return;
    sending = true;
    while (queue.length > 0) {
      const change = queue[0]!;
      underWay = change;
      try {
        const answer = await carry(change);
        queue.shift();
        await take(change, answer);
      } catch (error) {
        if (error instanceof Unreachable) {
          set({ offline: true });
          await server.wait(RETRY_MS);
          continue;
        }
        queue.shift();
        await reload();
        const harmless = error instanceof Refusal && NOTHING_TO_DO.some((kind) => kind === error.kind);
        set({ trouble: harmless ? null : sentenceOf(error) });
      }
    }
    underWay = undefined;
    sending = false;
  };

  return {
    get: () => state,
    subscribe(listener) {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    apply(edit) {
      const result = applyEdit(state.plan, edit);
      if (result.ok) {
        queue.push({ kind: 'edit', edit, key: server.key() });
        set({ plan: result.value, trouble: null });
        void send();
      }
      return result;
    },
    step(kind) {
      // With edits still waiting there will be something to undo, whatever the last answer said.
      if (queue.length === 0 && state[kind] === null) return;
      queue.push({ kind, key: server.key() });
      set({ trouble: null });
      void send();
    },
    goBack(revision) {
      queue.push({ kind: 'go back', revision, key: server.key() });
      set({ trouble: null });
      void send();
    },
    async settled() {
      const steps = () => [underWay, ...queue].some((change) => change && change.kind !== 'edit');
      while (!state.offline && steps()) await server.wait(20);
    },
    async refresh() {
      if (queue.length > 0) return;
      const loaded = await server.load().catch(() => undefined);
      if (loaded && queue.length === 0 && loaded.revision > state.revision) show(loaded.plan, loaded);
    },
    async follow(revision) {
      // Our own changes are answered with all that came in between.
      while (queue.length > 0) await server.wait(50);
      if (revision <= state.revision) return false;
      const before = state.revision;
      await this.refresh();
      return state.revision > before;
    },
    dismiss: () => set({ trouble: null }),
  };
}
