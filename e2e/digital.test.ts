import { violationsInBothThemes } from './axe';
import { choose, kept, press, sees, textOf, until, worldAndBrowser } from './harness';

/** Digital radios: from a repeater to a zone that works, the knob, the matrix, the wiring, a hexadecimal mix-up, and people on the face. */

const at = worldAndBrowser();
const { world, page } = at;
const said = 'footer [role=status]';

interface Digital {
  name: string;
  channels: { id: string; name: string; slot: number; talkgroup?: string | null; scanList?: string | null }[];
  talkgroups: { id: string; name: string; number: number; call: string }[];
  receiveLists: { name: string; members: string[] }[];
  scanLists: { id: string; name: string; members: string[] }[];
  zones: { name: string; members: string[]; knob?: { channel: string | null }[] | null }[];
}
const planOf = async (id: string) => (await world().api<{ plan: Digital }>(`/api/plans/${id}`)).body.plan;
const organise = async (id: string, tab?: string) => {
  await page().goto(`${world().url}/plans/${id}/organise`);
  if (tab) await press(page(), tab);
};
/** A tab of Organise, whatever Check says of it. */
const toTab = async (name: string) =>
  (await page().waitForSelector(
    `::-p-xpath(//*[@role="tab"][starts-with(normalize-space(), "${name}")])`,
  ))!.click();

async function newPlan(name: string, modelId: string): Promise<string> {
  const { body } = await world().api<{ plan: { id: string } }>('/api/plans', 'POST', {
    ...{ name, modelId },
    owner: { callSign: 'Q7ABC', region: 'orrin', grade: 'full', strict: false },
  });
  return body.plan.id;
}

let ospreyPlan: string;

test('from a repeater with nine talkgroups to a zone that works, in under a minute', async () => {
  ospreyPlan = await newPlan('Nine groups', 'osprey-d7');
  await organise(ospreyPlan);
  await toTab('Talkgroups');
  await press(page(), 'From a repeater');
  await page().type('::-p-aria([name="Digital repeaters near"])', 'Ketterby');
  await sees(page(), '[aria-label="Digital repeaters"]', '9 talkgroups');
  await page().click('::-p-aria([name="encrypted ones too"][role="checkbox"])');
  const row = await page().waitForSelector(
    '::-p-xpath(//section[@aria-label="From a repeater"]//label[contains(., "9 talkgroups")])',
  );
  await row!.click();
  await sees(
    page(),
    '[aria-label="What comes of it"]',
    '9 channels, 9 new talkgroups, 2 receive lists, 1 zone',
  );
  await press(page(), 'Add 9 channels');
  await sees(page(), said, '9 channels are new');
  await kept(page());
  const plan = await planOf(ospreyPlan);
  expect([plan.channels.length, plan.talkgroups.length, plan.receiveLists.length]).toEqual([9, 9, 2]);
  expect(plan.zones.map(({ members }) => members)).toEqual([plan.channels.map(({ id }) => id)]);
  // every channel calls its own group, and the zone is in the radio's fit with all nine
  expect(new Set(plan.channels.map(({ talkgroup }) => talkgroup)).size).toBe(9);
  const {
    body: { fit },
  } = await world().api<{ fit: { zones: { slots: number[] }[]; leftOut: unknown[] } }>(
    `/api/plans/${ospreyPlan}/fit`,
  );
  expect([fit.zones[0]!.slots, fit.leftOut]).toEqual([[1, 2, 3, 4, 5, 6, 7, 8, 9], []]);
});

test('a number that reads as either is asked about, and a hexadecimal mix-up is caught and mended', async () => {
  // The directory has the Weather net as 1046, which is 0x416.
  await organise(ospreyPlan);
  await toTab('Talkgroups');
  const before = await planOf(ospreyPlan);
  const weather = before.talkgroups.find(({ number }) => number === 1046);
  if (weather) await press(page(), `Remove “${weather.name}”`);
  await page().type('form[aria-label="New talkgroup"] label:nth-of-type(1) input', 'Weather net');
  await page().type('form[aria-label="New talkgroup"] label:nth-of-type(2) input', '416');
  await press(page(), 'Add');
  await sees(page(), '[aria-label="Which number is meant"]', '416 (0x1A0)');
  await press(page(), '416 (0x1A0)');
  await sees(page(), said, 'Added “Weather net”, 416.');
  await toTab('Wiring');
  await sees(page(), '[aria-label="What is broken"]', 'the directory has “Weather net” as 0x416');
  await press(page(), 'Use 1046 (0x416)');
  await kept(page());
  const after = await planOf(ospreyPlan);
  expect(after.talkgroups.find(({ name }) => name === 'Weather net')!.number).toBe(1046);
});

const RESCUE = 'pl_rescueteam';

test('the wiring shows a silent scan, and mends it', async () => {
  await organise(RESCUE);
  await toTab('Wiring');
  const broken = await sees(
    page(),
    '[aria-label="What is broken"]',
    'A scan begun on “Team Brannoch” is silent',
  );
  expect(broken).toContain('Two scan lists are called “round”');
  // followed from it: the list that looks at it
  await (await page().waitForSelector('::-p-text(A scan begun on “Team Brannoch” is silent)'))!.click();
  await sees(page(), '[aria-label=Wiring]', 'Followed from Team Brannoch');
  expect(await violationsInBothThemes(page())).toEqual([]);
  await press(page(), 'Give it “Round”');
  await kept(page());
  const plan = await planOf(RESCUE);
  const brannoch = plan.channels.find(({ name }) => name === 'Team Brannoch')!;
  expect(plan.scanLists.find(({ id }) => id === brannoch.scanList)!.name).toBe('Round');
  expect(await textOf(page(), '[aria-label="What is broken"]')).not.toContain('“Team Brannoch” is silent');
});

test('a wire is drawn from a channel to a list, and what it parts comes back with undo', async () => {
  await press(page(), 'Show all');
  const dot = (key: string) => `[data-wired="${key}"] span[title="Draw a wire"]`;
  const plan = await planOf(RESCUE);
  const boats = plan.channels.find(({ name }) => name === 'Boats')!;
  const harbour = (
    await world().api<{ plan: { receiveLists: { id: string; name: string }[] } }>(`/api/plans/${RESCUE}`)
  ).body.plan.receiveLists.find(({ name }) => name === 'Harbour')!;
  const from = await (await page().waitForSelector(dot(`channel ${boats.id}`)))!.boundingBox();
  const to = await (await page().waitForSelector(`[data-wired="receiveList ${harbour.id}"]`))!.boundingBox();
  await page().mouse.move(from!.x + from!.width / 2, from!.y + from!.height / 2);
  await page().mouse.down();
  await page().mouse.move(to!.x + 30, to!.y + 20, { steps: 6 });
  await page().mouse.up();
  await sees(page(), said, 'Joined.');
  await kept(page());
  const now = (
    await world().api<{ plan: { channels: { id: string; receiveList: string }[] } }>(`/api/plans/${RESCUE}`)
  ).body;
  expect(now.plan.channels.find(({ id }) => id === boats.id)!.receiveList).toBe(harbour.id);
});

test('the knob: a position is emptied and filled by keys, and the next zone does the same', async () => {
  await toTab('Zones');
  await page().focus('[role=listbox][aria-label="Positions of the knob"]');
  // The third position, Search, goes to the fourth, and the third is silent.
  for (const key of ['ArrowDown', 'ArrowDown'] as const) await page().keyboard.press(key);
  await page().keyboard.down('Alt');
  await page().keyboard.press('ArrowDown');
  await page().keyboard.up('Alt');
  await sees(page(), said, 'Position 3 and 4 are swapped.');
  expect(await violationsInBothThemes(page())).toEqual([]);
  await press(page(), 'The same in “Water”');
  await kept(page());
  const plan = await planOf(RESCUE);
  const names = new Map(plan.channels.map(({ id, name }) => [id, name]));
  const knob = plan.zones[1]!.knob!.slice(0, 8).map(({ channel }) => channel && names.get(channel));
  expect(knob).toEqual(['Team Ullsmere', 'Team Brannoch', null, 'Search', null, null, null, 'Calling 70 cm']);
});

test('the matrix joins and parts by keys, whole rows too', async () => {
  await toTab('Matrix');
  await choose(page(), 'What is joined', 'Channels and scan lists');
  await page().focus('[role=grid]');
  await page().keyboard.press('End');
  // “Team Ullsmere” into the second list, then out of all of them.
  await page().keyboard.press(' ');
  await sees(page(), said, 'Joined 1 channel.');
  expect(await violationsInBothThemes(page())).toEqual([]);
  await page().keyboard.down('Shift');
  await page().keyboard.press(' ');
  await page().keyboard.up('Shift');
  await sees(page(), said, 'Parted 2 channels.');
  await kept(page());
  const plan = await planOf(RESCUE);
  const ullsmere = plan.channels.find(({ name }) => name === 'Team Ullsmere')!.id;
  expect(plan.scanLists.some(({ members }) => members.includes(ullsmere))).toBe(false);
});

test('what a channel calls and when it may send is set beside the table', async () => {
  await page().goto(`${world().url}/plans/${RESCUE}`);
  await page().waitForSelector('[role=grid] [role=row] + [role=rowgroup] [role=row]');
  await page().focus('[role=grid]');
  await page().keyboard.press('Home');
  await (await page().waitForSelector(
    '::-p-xpath(//*[@role="tab"][starts-with(normalize-space(), "Chosen")])',
  ))!.click();
  await sees(
    page(),
    '[aria-label="Calls, hears, scans"]',
    'Waits while somebody of its own colour code sends',
  );
  await choose(page(), 'When it may send', 'polite to all');
  await sees(page(), '[aria-label="Calls, hears, scans"]', 'Waits while anything is louder than the level');
  await kept(page());
  expect(await violationsInBothThemes(page())).toEqual([]);
});

test('people are ranked, cut to what the Kestrel holds, written, and seen on its face when somebody keys up', async () => {
  await world().api('/api/people/roll', 'POST');
  await world().api('/api/heard-board', 'POST');
  await until('the roll and the board', async () => {
    const roll = await world().api<{ load: { state: string } }>('/api/people/roll');
    const board = await world().api<{ load: { state: string } }>('/api/heard-board');
    return roll.body.load.state === 'done' && board.body.load.state === 'done';
  });
  await page().goto(`${world().url}/people`);
  await press(page(), 'Choose for a radio');
  await choose(page(), 'For the plan', 'Rescue team');
  // 800 less three talkgroups less a reserve of 20
  await sees(
    page(),
    '[aria-label="By what they are ranked"]',
    'less 3 talkgroups, less the reserve: 777 people',
  );
  await sees(page(), '[aria-label="The cut"]', '777 people are');
  // The handle is a slider: fifty less by a key.
  await page().$eval('[role=slider]', (handle) => (handle as SVGElement).focus());
  await page().keyboard.press('PageDown');
  await sees(page(), '[aria-label="The cut"]', '727 people are');
  expect(await violationsInBothThemes(page())).toEqual([]);
  await press(page(), 'Put 727 into “Rescue team”');
  await sees(page(), '[aria-label="Who is chosen"]', 'They are in the plan');
  const plan = await planOf(RESCUE);
  const people = plan.talkgroups.filter(({ call }) => call === 'private');
  expect(people).toHaveLength(727);

  await world().atBench('/bench/radios/kestrel-1', { plugged: true });
  await page().goto(`${world().url}/bench?plan=${RESCUE}`);
  await sees(page(), 'h2', 'Corvane Kestrel C1');
  await press(page(), 'Read');
  await sees(page(), '[aria-label="Under way"]', 'was read');
  await press(page(), 'Write to CV110073');
  await press(page(), 'Write it');
  await sees(page(), '[aria-label="Under way"]', 'was written to CV110073');

  const [first] = people;
  await world().atBench('/bench/radios/kestrel-1', { slot: 1, talk: { from: first!.number, to: 160 } });
  await page().goto(world().bench);
  await sees(page(), '[aria-label="Kestrel C1, rescue team"]', `${first!.name.slice(0, 16).trim()} calls`);
  // Of a group that its channel does not hear the squelch stays shut.
  await world().atBench('/bench/radios/kestrel-1', { talk: { from: first!.number, to: 354 } });
  await until(
    'silence',
    async () => !(await textOf(page(), '[aria-label="Kestrel C1, rescue team"]')).includes('calls'),
  );
});

test('the whole roll goes into the Osprey, goes on where it was cut off, and names whoever keys up', async () => {
  const of = (await world().api<{ of: number }>('/api/people?count=1')).body.of;
  const unit = '/bench/radios/osprey-1';
  await world().atBench(unit, { plugged: true, slot: 2 });
  await page().goto(`${world().url}/people`);
  await press(page(), 'Choose for a radio');
  await choose(page(), 'For the plan', 'Isles network');
  const chosen = '[aria-label="Who is chosen"]';
  const write = `Write ${of.toLocaleString('en')} people into HR700412`;
  await sees(page(), chosen, write);
  // 20 bytes each and 16; 460,800 bits a second, 10 a byte: the time is told before anything is begun.
  await sees(page(), chosen, 'bits a second of its line');
  const shownAs = (await page().waitForSelector('::-p-aria([name="Shown as"][role="textbox"])'))!;
  await shownAs.click({ count: 3 });
  await shownAs.type('{cal');
  await sees(page(), chosen, 'A brace is not closed');
  await shownAs.click({ count: 3 });
  await shownAs.type('{call} {town:4}');
  expect(await violationsInBothThemes(page())).toEqual([]);
  await world().atBench(`${unit}/faults`, { kind: 'pull', towards: 'radio', atByte: 40_000 });
  await press(page(), write);
  await sees(page(), chosen, 'It shows numbers and no names until they are whole');
  await world().atBench(unit, { plugged: true });
  await press(page(), write);
  await sees(page(), chosen, 'The write went on at byte');
  await sees(page(), chosen, `HR700412 holds ${of.toLocaleString('en')} people`);

  // The last of the roll, of whom the board may never have heard.
  const { people } = (
    await world().api<{ people: { id: number; call: string; town: string }[] }>(
      `/api/people?from=${of - 1}&count=1`,
    )
  ).body;
  const [last] = people;
  await world().atBench(unit, { talk: { from: last!.id, to: 100 } });
  await page().goto(world().bench);
  await sees(
    page(),
    '[aria-label="Osprey D7, jacket pocket"]',
    `${last!.call} ${last!.town.slice(0, 4)} calls`,
  );
});
