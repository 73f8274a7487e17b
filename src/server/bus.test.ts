import { CHANNEL, hearAnnouncement, joinBus, onAnnouncement, publish } from './bus';
import { dataFolder } from './data-folder.test.kit';
import { instanceId } from './instance';

/** What of a channel that anybody can write to is understood. e2e/instances.test.ts has two instances on a real server. */

dataFolder('bus');

test('an announcement of another instance reaches the listener of its topic, and nothing else does', () => {
  const heard: unknown[] = [];
  onAnnouncement('document', (one) => heard.push(one));
  onAnnouncement('stop job', (one) => heard.push(one));
  const document = { topic: 'document', from: 'in_other', id: 'pl_1', revision: 7 };
  const stop = { topic: 'stop job', from: 'in_other', id: 'jb_1' };
  for (const payload of [
    JSON.stringify(document),
    JSON.stringify({ ...document, from: instanceId }),
    JSON.stringify({ ...document, revision: 'seven' }),
    JSON.stringify({ ...stop, topic: 'of a later version' }),
    ...['', 'no JSON', 'null', '[]', '{"topic":"document"}'],
    JSON.stringify(stop),
  ])
    hearAnnouncement(payload);
  expect(heard).toEqual([document, stop]);
});

test('with the embedded database there is nobody to tell', async () => {
  joinBus();
  await expect(publish({ topic: 'stop job', id: 'jb_1' })).resolves.toBeUndefined();
  expect(CHANNEL).toBe('veridon');
});
