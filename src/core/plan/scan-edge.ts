import { defineRecord } from '../document/record';

export const EDGE_NAME_LIMIT = 32;

/** Most pairs of scan edges that a plan holds. */
export const SCAN_EDGE_LIMIT = 200;

export const scanEdgeKind = defineRecord({
  kind: 'scanEdge',
  list: 'scanEdges',
  idPrefix: 'se',
  limit: SCAN_EDGE_LIMIT,
  refs: {},
  order: 'own',
  words: {
    one: 'pair of scan edges',
    many: 'pairs of scan edges',
    fields: { id: 'id', name: 'name', list: 'side', from: 'lower edge', to: 'upper edge' },
  },
});
