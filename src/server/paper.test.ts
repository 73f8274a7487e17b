import { chmodSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { dataFolder } from './data-folder.test.kit';
import { paperPdf } from './paper';
import { createPlan } from './plans';

const folder = dataFolder('paper');
const owner = { callSign: 'Q7ABC', region: 'orrin' as const, grade: 'full' as const, strict: false };

/** A printer that writes what it was asked for into the file that it was told, after a while; or ends without one. */
function printer(script: string): void {
  const path = join(folder, `printer-${script.length}.sh`);
  writeFileSync(
    path,
    `#!/bin/sh\nfor one in "$@"; do case $one in --print-to-pdf=*) out=\${one#--print-to-pdf=};; http*) page=$one;; esac; done\n${script}\n`,
  );
  chmodSync(path, 0o755);
  process.env.VERIDON_CHROMIUM = path;
}
afterAll(() => void delete process.env.VERIDON_CHROMIUM);

test('the page of the plan is what is printed, one after the other; who would wait too long is told', async () => {
  const { plan } = await createPlan({ name: 'On paper', modelId: 'tern-p2', owner });
  printer('sleep 0.2; echo "%PDF $page" > "$out"');
  const asked = Array.from({ length: 9 }, () => paperPdf(plan.id, 'wall', 'http://127.0.0.1:9'));
  const settled = await Promise.allSettled(asked);
  const done = settled.flatMap((one) => (one.status === 'fulfilled' ? [one.value] : []));
  expect(done).toHaveLength(6);
  expect(done[0]!.name).toBe('on-paper-wall.pdf');
  expect(Buffer.from(done[0]!.file).toString()).toBe(
    `%PDF http://127.0.0.1:9/plans/${plan.id}/paper?as=wall\n`,
  );
  expect(
    settled
      .filter((one) => one.status === 'rejected')
      .map((one) => (one.reason as { status: number }).status),
  ).toEqual([503, 503, 503]);
  // And it is free again.
  await expect(paperPdf(plan.id, 'card', 'http://127.0.0.1:9')).resolves.toBeDefined();
});

test('a printer that ends without a page is said so', async () => {
  const { plan } = await createPlan({ name: 'Broken', modelId: 'tern-p2', owner });
  printer('exit 3');
  await expect(paperPdf(plan.id, 'wall', 'http://127.0.0.1:9')).rejects.toMatchObject({
    status: 502,
    kind: 'no-printer',
  });
});
