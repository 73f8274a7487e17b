// Part of npm run measure: a radio that follows a plan, on a line at its real rate. From an edit being asked for to its being in the radio; from a turn of the knob to its being told.
/* global AbortController, TextDecoder */
import { readFileSync } from 'node:fs';
import { join } from 'node:path';

const RADIO = 'petrel-1';
const quantile = (values, share) =>
  [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(values.length * share))];

export async function measureLive({ demo, folder, report }) {
  const data = join(folder, 'live');
  const world = await demo(data, 1);
  const key = readFileSync(join(data, 'bench', 'key'), 'utf8').trim();
  const hand = (body) =>
    fetch(`${world.bench}/bench/radios/${RADIO}`, {
      method: 'POST',
      headers: { Authorization: `Bearer ${key}` },
      body: JSON.stringify(body),
    }).then((answer) => answer.json());
  const ask = async (path, body, method = body === undefined ? 'GET' : 'POST') => {
    const answer = await fetch(world.url + path, {
      method,
      ...(body !== undefined && { body: JSON.stringify(body) }),
    });
    const json = await answer.json();
    if (!answer.ok) throw new Error(`${path}: ${json.detail}`);
    return json;
  };
  await hand({ plugged: true });
  const radio = (await ask('/api/radios')).radios.find(({ modelId }) => modelId === 'petrel-hf9');
  const { id } = await ask('/api/jobs', { kind: 'read', radioId: radio.id });
  while ((await ask(`/api/jobs/${id}`)).state === 'running')
    await new Promise((done) => setTimeout(done, 20));

  // A plan that fills it: each edit works out fit, check and image of 120 channels.
  const made = await ask('/api/plans', {
    name: 'Full base',
    modelId: 'petrel-hf9',
    owner: { callSign: 'Q7ABC' },
  });
  const letters = 'abcdefghijklmnop';
  const channels = Array.from({ length: 120 }, (_, n) => ({
    id: `ch_live${letters[n >> 4]}${letters[n & 15]}`,
    name: `Station ${n}`,
    fitted: {},
    rx: 144_000_000 + n * 12_500,
    tx: 144_000_000 + n * 12_500,
    txFixed: false,
    access: { kind: 'analogue', send: null, expect: null },
    mode: 'FM',
    power: 50_000,
    scan: true,
    alwaysOn: false,
    note: '',
    source: null,
  }));
  let { revision } = await ask(`/api/plans/${made.plan.id}/edits`, {
    base: 1,
    edit: { name: 'place', channels, placement: 'next-free', at: 1, range: { first: 1, count: 120 } },
  });
  await ask('/api/live', { radioId: radio.id, planId: made.plan.id, planRevision: revision });

  const edit = async (changes) =>
    ({ revision } = await ask(`/api/plans/${made.plan.id}/edits`, {
      base: revision,
      edit: { name: 'change', changes },
    }));
  const until = async (slot, name) => {
    const last = performance.now() + 10_000;
    while (performance.now() < last) if ((await hand({ slot })).channel?.name === name) return;
    throw new Error(`${name} did not come into slot ${slot}.`);
  };
  const typed = [];
  for (let n = 0; n < 60; n++) {
    const [slot, name] = [1 + ((n * 37) % 120), `Typed ${n}`];
    const began = performance.now();
    await edit([{ id: channels[slot - 1].id, set: { name } }]);
    await until(slot, name);
    typed.push(performance.now() - began);
  }
  report(
    'An edit in the radio that follows, 95th',
    [quantile(typed, 0.95)],
    'ms',
    `median ${quantile(typed, 0.5).toFixed(0)} ms, 60 edits, 57,600 bit/s, plan of 120 channels`,
  );
  const strokes = [];
  for (let n = 0; n < 5; n++) {
    const began = performance.now();
    await edit(channels.map(({ id: one }, at) => ({ id: one, set: { name: `Go ${n} ${at}` } })));
    await until(120, `Go ${n} 119`);
    strokes.push(performance.now() - began);
  }
  report(
    'All 120 channels changed in one stroke, in the radio',
    strokes,
    'ms',
    '1,440 bytes of names take 250 ms',
  );

  // The knob, as the Bench hears it.
  const gone = new AbortController();
  const events = await fetch(`${world.url}/api/live-events`, { signal: gone.signal });
  const told = { slot: null, wake: () => {} };
  const read = async () => {
    let text = '';
    for await (const bytes of events.body) {
      text += new TextDecoder().decode(bytes);
      for (let end = text.indexOf('\n\n'); end >= 0; end = text.indexOf('\n\n')) {
        const line = text.slice(0, end);
        text = text.slice(end + 2);
        if (line.startsWith('data: ')) told.slot = JSON.parse(line.slice(6)).lives[0]?.slot;
        told.wake();
      }
    }
  };
  read().catch(() => {});
  const turned = [];
  for (let n = 0; n < 40; n++) {
    const slot = 1 + ((n * 7) % 120);
    const began = performance.now();
    const heard = new Promise((done) => {
      told.wake = () => told.slot === slot && done();
    });
    await hand({ slot });
    await heard;
    turned.push(performance.now() - began);
  }
  gone.abort();
  report(
    'A turn of its knob told to the Bench, 95th',
    [quantile(turned, 0.95)],
    'ms',
    `median ${quantile(turned, 0.5).toFixed(0)} ms, 40 turns`,
  );
  await world.stop();
}
