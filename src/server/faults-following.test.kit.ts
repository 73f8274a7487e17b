import { decodeImage } from '../core/image';
import type { Model } from '../core/models';
import { toRadio } from '../core/organise';
import type { PlanId, RadioId } from '../core/plan';
import { placing } from '../core/samples.test.kit';
import { pause, until } from '../core/until.test.kit';
import { lives } from '../db';
import { owner } from './faults.test.kit';
import { endLive, listLives, resumeLives, startLive } from './live';
import { createPlan, getPlan } from './plans';
import { reading, writing } from './database';
import { editPlan } from './revisions';

/** What can go wrong while a radio and a plan follow each other: part of faults.test.ts, which hands in the bench. */

export interface Following {
  unit: string;
  model: Model;
  radioId: () => RadioId;
  /** At how many places the cable is pulled. */
  places: number;
  atBench: (path: string, body: object) => Promise<void>;
  /** The radio as it is without faults, plugged in. */
  mended: () => Promise<void>;
  /** What the radio holds, read by a job once nothing follows it. */
  holds: () => Promise<Uint8Array>;
  /** Kills the bench, and starts it again once `told` holds. */
  killBench: (told: () => boolean) => Promise<void>;
  note: (fault: string, said: string) => void;
}

export function followingFaults({
  unit,
  model,
  radioId,
  places,
  atBench,
  mended,
  holds,
  killBench,
  note,
}: Following) {
  let planId: PlanId;
  let tries = 0;
  const live = () => listLives().find((one) => one.radioId === radioId());
  const fresh = async () => {
    const { plan } = await createPlan({ name: 'Followed', modelId: model.id, owner });
    planId = plan.id;
    await editPlan(planId, 1, placing(1, 2, 3));
  };
  const begin = async () => {
    await mended();
    const { revision } = await getPlan(planId);
    await startLive({ radioId: radioId(), planId, planRevision: revision });
  };
  /** Something typed, and something done on the keys. */
  const bothGoOn = async (): Promise<{ name: string; key: string }> => {
    tries++;
    const { plan, revision } = await getPlan(planId);
    const first = plan.channels.find(({ slot }) => slot === 1)!;
    const name = `Typed ${tries}`;
    await editPlan(planId, revision, { name: 'change', changes: [{ id: first.id, set: { name } }] });
    const key = `KEY ${tries}`;
    await atBench(unit, { key: { slot: 30, name: key, rx: 145_300_000 } });
    return { name, key };
  };
  const planHas = async ({ key }: { key: string }) =>
    (await getPlan(planId)).plan.channels.some(({ fitted }) => fitted[model.id] === key);
  /** Both have both: nothing was lost or half done, on either side. */
  const together = async (done: { name: string; key: string }) => {
    await until('both', async () => live()?.state === 'live' && (await planHas(done)));
    const { revision } = await getPlan(planId);
    await until('the newest revision', () => live()?.revision === revision);
    expect(live()!.apart).toEqual([]);
    await endLive(radioId());
    const image = await holds();
    const held = decodeImage(image, model);
    const names = held.ok ? held.value.channels.map(({ name }) => name) : [];
    expect(names).toEqual(expect.arrayContaining([done.name, done.key]));
    // What the radio holds is what the plan wants in it, to the byte.
    expect(toRadio((await getPlan(planId)).plan, image, [], model)).toEqual({ ok: true, value: image });
  };
  const told = () => {
    const { state, reason } = live()!;
    return state === 'live' ? 'Nothing: it is said again.' : reason!;
  };

  describe('while they follow each other', () => {
    beforeAll(fresh);
    afterEach(async () => {
      if (live()) await endLive(radioId());
    });

    test.each(['radio', 'host'] as const)(
      `pulled at ${places} places of a change towards the %s`,
      async (towards) => {
        await begin();
        let last = { name: '', key: '' };
        for (let place = 0; place < places; place++) {
          await atBench(`${unit}/faults`, {
            kind: 'pull',
            towards,
            atByte: 1 + Math.floor(((towards === 'radio' ? 90 : 120) * place) / places),
          });
          last = await bothGoOn();
          await until('what is told', () => live()!.state === 'away');
          note('The cable is pulled while they follow each other', told());
          await until('both again', async () => {
            await atBench(unit, { plugged: true });
            return live()?.state === 'live' && (await planHas(last));
          });
        }
        await atBench(`${unit}/faults`, { kind: 'none' });
        await together(last);
      },
    );

    test.each([
      ['A bit is flipped while they follow each other', { kind: 'flip', atByte: 40 }],
      ['The line is slow while they follow each other', { kind: 'slow', factor: 20 }],
    ] as const)('%s', async (what, fault) => {
      await begin();
      await atBench(`${unit}/faults`, fault);
      const done = await bothGoOn();
      await until('both', () => planHas(done));
      note(what, told());
      await together(done);
    });

    test.each([
      ['The radio falls silent while they follow each other', { kind: 'silent' }],
      ['The radio sends rubbish while they follow each other', { kind: 'rubbish' }],
    ] as const)('%s', async (what, fault) => {
      await begin();
      await atBench(`${unit}/faults`, fault);
      const done = await bothGoOn();
      await until('what is told', () => live()!.state === 'away');
      note(what, told());
      await atBench(`${unit}/faults`, { kind: 'none' });
      await together(done);
    });

    test.each([
      [
        'Another model is on the cable that they followed each other over',
        { kind: 'wrong model', ident: 'OTHERSET' },
        'away',
      ],
      ['The radio comes back with newer firmware', { kind: 'newer firmware', version: '9.01' }, 'ended'],
    ] as const)('%s', async (what, fault, state) => {
      await begin();
      await atBench(unit, { plugged: false });
      await until('what is told', () => live()!.state === 'away');
      await atBench(`${unit}/faults`, fault);
      await atBench(unit, { plugged: true });
      // What ends it is waited for, however long this machine takes; what does not is left alone for a while.
      if (state === 'ended') await until('what is told', () => live()!.state === state);
      else await pause(400);
      note(what, told());
      expect(live()!.state).toBe(state);
      const done = await bothGoOn();
      if (live()!.state === 'ended') {
        await endLive(radioId());
        await begin();
        return together(await bothGoOn());
      }
      await mended();
      await together(done);
    });

    test('it refuses', async () => {
      await begin();
      await atBench(`${unit}/faults`, { kind: 'refuse' });
      const { plan, revision } = await getPlan(planId);
      await editPlan(planId, revision, {
        name: 'change',
        changes: [{ id: plan.channels.find(({ slot }) => slot === 1)!.id, set: { name: 'Refused' } }],
      });
      await until('what is told', () => live()!.state === 'ended');
      note('It refuses while they follow each other', told());
      await endLive(radioId());
      await begin();
      await together(await bothGoOn());
    });

    test.each([
      ['The port vanishes while they follow each other', { on: false }],
      ['The cable goes into another socket while they follow each other', { cable: 7 }],
    ] as const)('%s', async (what, body) => {
      await begin();
      await atBench(unit, body);
      // What is off has no keys that do anything.
      const done = 'on' in body ? null : await bothGoOn();
      await until('what is told', () => live()!.said.some(({ text }) => /port vanished/.test(text)));
      note(what, live()!.reason ?? live()!.said.find(({ text }) => /port vanished/.test(text))!.text);
      await atBench(unit, { on: true });
      await together(done ?? (await bothGoOn()));
    });

    test('Veridon is killed', async () => {
      await begin();
      await until('its row', async () => (await (await reading()).select().from(lives)).length === 1);
      const [row] = await (await reading()).select().from(lives);
      // A dead process has no line, and its row is all there is.
      await endLive(radioId());
      await (await writing()).insert(lives).values({ ...row!, instance: 'in_dead' });
      const done = await bothGoOn();
      await resumeLives();
      note(
        'Veridon is killed while they follow each other',
        `Nothing: ${live()!.called} is looked for, and caught up.`,
      );
      await together(done);
    });

    test('the bench is killed', async () => {
      await begin();
      const { plan, revision } = await getPlan(planId);
      await killBench(() => live()!.state === 'away');
      note('The bench is killed while they follow each other', told());
      await editPlan(planId, revision, {
        name: 'change',
        changes: [{ id: plan.channels.find(({ slot }) => slot === 1)!.id, set: { name: 'Alone' } }],
      });
      await mended();
      await until('both', () => live()?.state === 'live');
      await together(await bothGoOn());
    });

    test('the disk is full', async () => {
      await begin();
      const room = process.env.VERIDON_RESERVE_MB;
      process.env.VERIDON_RESERVE_MB = '99999999';
      try {
        await atBench(unit, { key: { slot: 31, name: 'NO ROOM', rx: 145_350_000 } });
        await until('what is told', () => live()!.state === 'ended');
        note('The disk is full while they follow each other', told());
      } finally {
        process.env.VERIDON_RESERVE_MB = room;
      }
      // What was done on the radio is in the radio: it is looked at, and taken by hand, before anything follows again.
      await endLive(radioId());
      const held = decodeImage(await holds(), model);
      expect(held.ok && held.value.channels.some(({ name }) => name === 'NO ROOM')).toBe(true);
      await begin();
      await together(await bothGoOn());
    });
  });
}
