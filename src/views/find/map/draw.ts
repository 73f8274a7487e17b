import { geoCircle, geoPath } from 'd3-geo';
import type { Point } from '@/core/radio';
import { onScreen, projectionOf, pxPerKm, type Camera, type Size } from './camera';
import type { Isles } from './isles';
import type { MarkShape } from './marks';

/** Colours of the theme, as the canvas takes them. */
export type Inks = Record<
  'paper' | 'sheet' | 'ink' | 'soft' | 'line' | 'lineStrong' | 'receive' | 'wash' | 'transmit',
  string
>;

const TOKENS: Record<keyof Inks, string> = {
  paper: '--paper',
  sheet: '--sheet',
  ink: '--ink',
  soft: '--soft',
  line: '--line',
  lineStrong: '--line-strong',
  receive: '--receive',
  wash: '--wash',
  transmit: '--transmit',
};

/** The colours of the theme in which an element stands; the canvas does not know what belongs to a theme. */
export function inksOf(element: HTMLElement): Inks {
  const probe = document.createElement('span');
  probe.hidden = true;
  element.append(probe);
  const found = Object.fromEntries(
    Object.entries(TOKENS).map(([name, token]) => {
      probe.style.color = `var(${token})`;
      return [name, getComputedStyle(probe).color];
    }),
  );
  probe.remove();
  return found as Inks;
}

type Canvas = CanvasRenderingContext2D;

/** How strong each height is drawn over the land. */
const HILL_SHADES = [0, 0.035, 0.04, 0.045, 0.05];

/** Sea, coast with the shallows around it, hills, ferries, and the names for which there is room. */
export function drawIsles(canvas: Canvas, isles: Isles, camera: Camera, size: Size, inks: Inks): void {
  const { width, height } = size;
  canvas.fillStyle = inks.paper;
  canvas.fillRect(0, 0, width, height);
  canvas.save();
  canvas.transform(
    camera.k,
    0,
    0,
    camera.k,
    width / 2 - camera.x * camera.k,
    height / 2 - camera.y * camera.k,
  );
  const px = 1 / camera.k;
  const [coast, ...hills] = isles.levels;
  canvas.lineJoin = 'round';
  // The shallows, as charts have them: bands along the shore.
  for (const [wide, strong] of [
    [18, 0.16],
    [9, 0.22],
  ] as const) {
    canvas.globalAlpha = strong;
    canvas.strokeStyle = inks.lineStrong;
    canvas.lineWidth = wide * px;
    canvas.stroke(coast!);
  }
  canvas.globalAlpha = 1;
  canvas.fillStyle = inks.sheet;
  canvas.fill(coast!);
  hills.forEach((hill, level) => {
    canvas.globalAlpha = HILL_SHADES[level + 1] ?? 0.08;
    canvas.fillStyle = inks.ink;
    canvas.fill(hill);
    canvas.globalAlpha = 0.3;
    canvas.strokeStyle = inks.lineStrong;
    canvas.lineWidth = 0.6 * px;
    canvas.stroke(hill);
  });
  canvas.globalAlpha = 1;
  canvas.strokeStyle = inks.lineStrong;
  canvas.lineWidth = 1.1 * px;
  canvas.stroke(coast!);
  canvas.setLineDash([5 * px, 5 * px]);
  canvas.globalAlpha = 0.8;
  canvas.stroke(isles.ferries);
  canvas.restore();
}

const NAME_FONT = '"Instrument Sans Variable", system-ui, sans-serif';

/** Left, top, right, bottom, px. */
export type Taken = readonly [number, number, number, number];

const free = (box: Taken, taken: readonly Taken[]): boolean =>
  taken.every(
    (other) => box[0] >= other[2] || box[2] <= other[0] || box[1] >= other[3] || box[3] <= other[1],
  );

/** Names of the islands, between the stations. */
export function drawIslandNames(
  canvas: Canvas,
  isles: Isles,
  camera: Camera,
  size: Size,
  inks: Inks,
  stations: readonly Taken[],
): void {
  if (camera.k > 30_000) return;
  canvas.textAlign = 'center';
  canvas.font = `600 13px ${NAME_FONT}`;
  canvas.globalAlpha = 0.7;
  canvas.fillStyle = inks.soft;
  for (const island of isles.islands) {
    const text = [...island.name.toUpperCase()].join('\u200a\u200a');
    const [x, y] = onScreen(camera, size, island);
    const half = canvas.measureText(text).width / 2;
    // Where there is room near its middle; where there is none it is done without.
    const base = [0, 18, -18, 36, -36, 54, -54].find((off) =>
      free([x - half - 2, y + off - 11, x + half + 2, y + off + 4], stations),
    );
    if (base !== undefined) canvas.fillText(text, x, y + base);
  }
  canvas.globalAlpha = 1;
}

/** Names of towns, the large ones first; none over another, nor over what is taken: a name stands where there is room beside its town. */
export function drawNames(
  canvas: Canvas,
  isles: Isles,
  camera: Camera,
  size: Size,
  inks: Inks,
  stations: readonly Taken[],
): void {
  const taken: Taken[] = [];
  canvas.lineJoin = 'round';
  canvas.font = `500 11.5px ${NAME_FONT}`;
  const near = camera.k > 6500;
  const towns = [...isles.towns].sort((a, b) => Number(b.large) - Number(a.large));
  for (const { name, large, ...town } of towns) {
    if (!large && !near) continue;
    const [x, y] = onScreen(camera, size, town);
    if (x < -60 || y < -20 || x > size.width + 60 || y > size.height + 20) continue;
    const { width } = canvas.measureText(name);
    const places: [CanvasTextAlign, number, number][] = [
      ['center', x, y - 6],
      ['center', x, y + 14],
      ['left', x + 6, y + 4],
      ['right', x - 6, y + 4],
    ];
    const ranked = places.map(([align, left, base]) => {
      const from = align === 'center' ? left - width / 2 : align === 'left' ? left : left - width;
      return { align, left, base, box: [from - 2, base - 10, from + width + 2, base + 4] as Taken };
    });
    // A large town is named in any case, over a station where need be, but never over another name.
    const found =
      ranked.find(({ box }) => free(box, taken) && free(box, stations)) ??
      (large ? ranked.find(({ box }) => free(box, taken)) : undefined);
    if (!found) continue;
    taken.push(found.box);
    canvas.textAlign = found.align;
    canvas.lineWidth = 3;
    canvas.strokeStyle = inks.sheet;
    canvas.fillStyle = inks.ink;
    canvas.strokeText(name, found.left, found.base);
    canvas.fillText(name, found.left, found.base);
    canvas.beginPath();
    canvas.arc(x, y, large ? 2.4 : 1.8, 0, 2 * Math.PI);
    canvas.fill();
  }
}

/** The circle that is searched, with rings at a third and two. */
export function drawCircle(
  canvas: Canvas,
  centre: Point,
  km: number,
  camera: Camera,
  size: Size,
  inks: Inks,
): void {
  const path = geoPath(projectionOf(camera, size), canvas);
  const ring = (share: number) => {
    canvas.beginPath();
    path(
      geoCircle()
        .center([centre.lon, centre.lat])
        .radius(((km * share) / 6371.0088) * (180 / Math.PI))
        .precision(3)(),
    );
  };
  ring(1);
  canvas.fillStyle = inks.wash;
  canvas.globalAlpha = 0.45;
  canvas.fill();
  canvas.globalAlpha = 1;
  canvas.strokeStyle = inks.ink;
  canvas.lineWidth = 1.4;
  canvas.stroke();
  canvas.globalAlpha = 0.35;
  canvas.lineWidth = 0.8;
  for (const share of [1 / 3, 2 / 3]) {
    ring(share);
    canvas.stroke();
  }
  canvas.globalAlpha = 1;
  const [x, y] = onScreen(camera, size, centre);
  canvas.lineWidth = 1.4;
  canvas.beginPath();
  for (const [dx, dy] of [
    [6, 0],
    [0, 6],
  ] as const) {
    canvas.moveTo(x - dx, y - dy);
    canvas.lineTo(x + dx, y + dy);
  }
  canvas.stroke();
}

/** The route with its corridor, its places, and the ends of its days. */
export function drawRoute(
  canvas: Canvas,
  places: readonly Point[],
  km: number,
  cuts: readonly Point[],
  camera: Camera,
  size: Size,
  inks: Inks,
): void {
  if (places.length > 1) {
    const path = geoPath(projectionOf(camera, size), canvas);
    const line = { type: 'LineString' as const, coordinates: places.map(({ lat, lon }) => [lon, lat]) };
    const middle = places.reduce((sum, { lat }) => sum + lat, 0) / places.length;
    canvas.lineCap = 'round';
    canvas.lineJoin = 'round';
    canvas.beginPath();
    path(line);
    canvas.strokeStyle = inks.wash;
    canvas.globalAlpha = 0.6;
    canvas.lineWidth = 2 * km * pxPerKm(camera, middle);
    canvas.stroke();
    canvas.globalAlpha = 1;
    canvas.strokeStyle = inks.ink;
    canvas.lineWidth = 2;
    canvas.stroke();
  }
  for (const cut of cuts) {
    const [x, y] = onScreen(camera, size, cut);
    canvas.fillStyle = inks.sheet;
    canvas.strokeStyle = inks.ink;
    canvas.lineWidth = 1.4;
    canvas.beginPath();
    canvas.rect(x - 4, y - 4, 8, 8);
    canvas.fill();
    canvas.stroke();
  }
  places.forEach((place, at) => {
    const [x, y] = onScreen(camera, size, place);
    canvas.beginPath();
    canvas.arc(x, y, at === 0 || at === places.length - 1 ? 6 : 4.5, 0, 2 * Math.PI);
    canvas.fillStyle = at === 0 ? inks.ink : inks.sheet;
    canvas.strokeStyle = inks.ink;
    canvas.lineWidth = 1.6;
    canvas.fill();
    canvas.stroke();
  });
}

/** What is to be seen of a mark beside where it is. */
export interface MarkLook {
  shape: MarkShape;
  /** Of no use to this radio. */
  unfit: boolean;
  offAir: boolean;
  chosen: boolean;
  lit: boolean;
  /** In the plan already. */
  present: boolean;
}

function outline(canvas: Canvas, shape: MarkShape, x: number, y: number, r: number): void {
  canvas.beginPath();
  switch (shape) {
    case 'disc':
      canvas.arc(x, y, r, 0, 2 * Math.PI);
      return;
    case 'square':
      canvas.rect(x - r * 0.9, y - r * 0.9, r * 1.8, r * 1.8);
      return;
    case 'triangle':
      canvas.moveTo(x, y - r * 1.15);
      canvas.lineTo(x + r * 1.1, y + r * 0.8);
      canvas.lineTo(x - r * 1.1, y + r * 0.8);
      break;
    case 'diamond':
      canvas.moveTo(x, y - r * 1.25);
      canvas.lineTo(x + r * 1.25, y);
      canvas.lineTo(x, y + r * 1.25);
      canvas.lineTo(x - r * 1.25, y);
      break;
    case 'bar':
      canvas.rect(x - r * 0.6, y - r * 1.2, r * 1.2, r * 2.4);
      return;
    case 'cross':
      canvas.moveTo(x - r * 0.4, y - r);
      canvas.lineTo(x + r * 0.4, y - r);
      canvas.lineTo(x + r * 0.4, y - r * 0.4);
      canvas.lineTo(x + r, y - r * 0.4);
      canvas.lineTo(x + r, y + r * 0.4);
      canvas.lineTo(x + r * 0.4, y + r * 0.4);
      canvas.lineTo(x + r * 0.4, y + r);
      canvas.lineTo(x - r * 0.4, y + r);
      canvas.lineTo(x - r * 0.4, y + r * 0.4);
      canvas.lineTo(x - r, y + r * 0.4);
      canvas.lineTo(x - r, y - r * 0.4);
      canvas.lineTo(x - r * 0.4, y - r * 0.4);
      break;
  }
  canvas.closePath();
}

/** One station. */
export function drawMark(canvas: Canvas, x: number, y: number, look: MarkLook, inks: Inks): void {
  const r = look.lit || look.chosen ? 5.5 : 4;
  if (look.chosen || look.lit) {
    canvas.beginPath();
    canvas.arc(x, y, r + 4, 0, 2 * Math.PI);
    canvas.fillStyle = look.chosen ? inks.wash : inks.sheet;
    canvas.fill();
    canvas.strokeStyle = inks.ink;
    canvas.lineWidth = look.lit ? 2 : 1.2;
    canvas.stroke();
  }
  outline(canvas, look.shape, x, y, r);
  canvas.fillStyle = look.unfit || look.offAir ? inks.sheet : inks.receive;
  canvas.fill();
  canvas.strokeStyle = look.unfit ? inks.soft : look.offAir ? inks.receive : inks.sheet;
  canvas.lineWidth = 1.2;
  canvas.stroke();
  if (look.present) {
    canvas.beginPath();
    canvas.arc(x, y, 1.6, 0, 2 * Math.PI);
    canvas.fillStyle = inks.ink;
    canvas.fill();
  }
}

/** Several stations that stand too close to be drawn apart. */
export function drawMany(canvas: Canvas, x: number, y: number, n: number, inks: Inks): void {
  const r = radiusOf(n);
  canvas.beginPath();
  canvas.arc(x, y, r, 0, 2 * Math.PI);
  canvas.fillStyle = inks.sheet;
  canvas.globalAlpha = 0.92;
  canvas.fill();
  canvas.globalAlpha = 1;
  canvas.strokeStyle = inks.receive;
  canvas.lineWidth = 1.5;
  canvas.stroke();
  canvas.fillStyle = inks.ink;
  canvas.font = `500 11px ${NAME_FONT}`;
  canvas.textAlign = 'center';
  canvas.textBaseline = 'middle';
  canvas.fillText(String(n), x, y + 0.5);
  canvas.textBaseline = 'alphabetic';
}

/** How large several together are drawn, px. */
export const radiusOf = (n: number): number => 7 + 1.5 * Math.log2(n);

/** How far a station can be heard, at the most, as a dashed ring. */
export function drawReach(
  canvas: Canvas,
  at: Point,
  km: number,
  camera: Camera,
  size: Size,
  inks: Inks,
): void {
  canvas.beginPath();
  geoPath(
    projectionOf(camera, size),
    canvas,
  )(
    geoCircle()
      .center([at.lon, at.lat])
      .radius((km / 6371.0088) * (180 / Math.PI))
      .precision(3)(),
  );
  canvas.setLineDash([4, 4]);
  canvas.strokeStyle = inks.receive;
  canvas.lineWidth = 1.3;
  canvas.stroke();
  canvas.setLineDash([]);
}
