import type { Point } from '../../core/radio';
import { destination } from '../../core/radio';
import { seeded } from '../random';

export interface Town extends Point {
  name: string;
  island: string;
}

interface Island extends Point {
  name: string;
  /** Half the length and half the width, km, and the direction of the length. */
  reach: [number, number, number];
  towns: string[];
}

/** The Orrin Isles, around 52.0 N 30.0 W. */
export const ISLANDS: readonly Island[] = [
  {
    name: 'Ullsmere',
    lat: 52.0,
    lon: -30.05,
    reach: [120, 52, 35],
    towns: [
      'Ketterby',
      'Tamsin Quay',
      'Garrowick',
      'Ashgill',
      'Little Ketter',
      'Wend',
      'Callow Bridge',
      'Ullstead',
      'Harrock',
      'Thornmere',
      'Sallow End',
      'Merrin Dale',
    ],
  },
  {
    name: 'Brannoch',
    lat: 52.95,
    lon: -28.9,
    reach: [90, 42, 60],
    towns: ['Norrast', 'Brannoch Head', 'Cold Ferren', 'Strand', 'Oxter', 'Hallin', 'Upper Brann', 'Pellow'],
  },
  {
    name: 'Farrow',
    lat: 51.35,
    lon: -28.35,
    reach: [85, 36, 100],
    towns: ['Hollin Bay', 'Farrow Point', 'Dunmarrow', 'Skerry', 'Lantry', 'Farholm', 'Tolland'],
  },
  {
    name: 'Hestin',
    lat: 51.1,
    lon: -31.7,
    reach: [100, 40, 150],
    towns: [
      'Perrin Cross',
      'Hestin Vale',
      'Ravelow',
      'Stoke Hestin',
      'Quarrel',
      'Fenwather',
      'Ivory Down',
      'Mossend',
    ],
  },
  {
    name: 'Quill',
    lat: 53.2,
    lon: -31.4,
    reach: [65, 30, 10],
    towns: ['Stennick', 'Quillhaven', 'Arrowby', 'Tern Rock', 'Bell Sound'],
  },
];

const KETTERBY: Point = { lat: 52.06, lon: -29.84 };

/** A point of an island, thinner towards its shore. */
export function pointOn(island: Island, random: () => number): Point {
  const [length, width, direction] = island.reach;
  const angle = random() * 2 * Math.PI;
  const radius = Math.sqrt(random());
  const along = radius * Math.cos(angle) * length;
  const across = radius * Math.sin(angle) * width;
  const first = destination(island, along < 0 ? direction + 180 : direction, Math.abs(along));
  return destination(first, across < 0 ? direction - 90 : direction + 90, Math.abs(across));
}

const round = (degrees: number) => Math.round(degrees * 10_000) / 10_000;

/** Every town, the same on every machine. */
export const TOWNS: readonly Town[] = (() => {
  const random = seeded(52_30);
  return ISLANDS.flatMap((island) =>
    island.towns.map((name) => {
      const at = pointOn(island, random);
      const { lat, lon } = name === 'Ketterby' ? KETTERBY : at;
      return { name, island: island.name, lat: round(lat), lon: round(lon) };
    }),
  );
})();

/** Towns whose name holds the text; those that begin with it first. */
export function findTowns(text: string, most = 12): Town[] {
  const wanted = text.trim().toLowerCase();
  const starts = (town: Town) => (town.name.toLowerCase().startsWith(wanted) ? 0 : 1);
  return TOWNS.filter((town) => town.name.toLowerCase().includes(wanted))
    .sort((a, b) => starts(a) - starts(b) || a.name.localeCompare(b.name))
    .slice(0, most);
}
