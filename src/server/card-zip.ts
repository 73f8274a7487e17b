import type { CardOpened } from '../core/bench';
import { contentToWrite } from '../core/check';
import { bytesOf, encodeImage, modelOfImage, withUnitValues } from '../core/image';
import { cardFiles, zipOfCard } from '../core/link';
import { linkOf, modelById, modelByIdent } from '../core/models';
import type { PlanId, RadioId } from '../core/plan';
import { newestSound, sealCopy } from './copies';
import { fileName } from './export';
import { wantWritable } from './may-write';
import { getView } from './plans';
import { clientOf, NOBODY } from './once';
import { Problem } from './problem';
import { calledOf, radioOf, seeRadio } from './radios';
import { runReader } from './reader';

/** Cards that are in another machine's reader: as a zip through the browser. */

/** Reads a card out of a zip and seals what is on it, as a read in the reader would. */
export async function openCard(base64: string, asker = NOBODY, gone?: AbortSignal): Promise<CardOpened> {
  const bytes = new Uint8Array(Buffer.from(base64, 'base64'));
  const zip = await runReader('card', { bytes }, { lane: clientOf(asker), gone });
  if (!zip.ok) throw new Problem(422, 'no-card', 'Not a card', zip.reason);
  const read = zip.value;
  if (read.kind === 'none') throw new Problem(422, 'no-card', 'Not a card', read.reason);
  const model = modelByIdent(read.ident.model);
  if (!model)
    throw new Problem(
      422,
      'no-card',
      'A card of another radio',
      `The card calls its radio ${read.ident.model.trim()}, which Veridon does not know.`,
    );
  if (read.kind === 'half')
    throw new Problem(
      422,
      'half-card',
      'Half a card',
      `${read.reason} Nothing of it was kept. Save to it in the radio again, or pack all of its files.`,
    );
  const radioId = await seeRadio(read.ident, model);
  const copyId = await sealCopy(radioId, model, read.image, 'read');
  return { radioId, copyId, called: calledOf({ serial: read.ident.serial, modelId: model.id }) };
}

/**
 * The card of a unit as a zip, with a plan on it: made on the newest sealed copy of that unit, and whole by its CARD.TXT. It is in the
 * radio when the radio has loaded it, of which Veridon hears nothing.
 */
export async function cardZip(radioId: RadioId, planId: PlanId) {
  const radio = await radioOf(radioId);
  const model = modelById(radio.modelId);
  const called = calledOf(radio);
  if (model?.link?.kind !== 'card')
    throw new Problem(422, 'no-card', 'It has no card', `${called} has a cable. Write the plan to it.`);
  const ident = {
    ...{ model: linkOf(model).ident.padEnd(8), serial: radio.serial, firmware: radio.firmware },
    ...{ region: radio.region, imageBytes: bytesOf(model), halfWritten: false, battery: null, module: 0 },
  };
  await wantWritable({ ident, model, radioId, called, loaded: null });
  const copy = await newestSound(radioId, model);
  if (!copy)
    throw new Problem(
      422,
      'no-copy',
      'No sealed copy',
      `No sealed copy of ${called} can be built upon. Read its card again.`,
    );
  const { plan } = await getView(planId);
  const content = contentToWrite(
    withUnitValues(plan, model, radio.own),
    modelOfImage(copy.image, model, called),
  );
  const files = cardFiles(encodeImage(content, copy.image, model), ident, model, 'COMPUTER');
  return {
    file: zipOfCard(files),
    type: 'application/zip',
    name: fileName(`${plan.name} ${called}`, 'zip'),
  };
}
