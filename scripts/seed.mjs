/** The seed of the properties in `npm test`; src/core/property.test.kit.ts has the same. */
export const USUAL_SEED = 2611;
/** The seed of this run. */
export const seed = Number(process.env.VERIDON_SEED || USUAL_SEED);
