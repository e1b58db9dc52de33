import type { Standing } from '@caderno/core/coverage';

/** A stroke or a fill of a shape, in a square of 12 by 12; colours are tokens of the theme. */
export interface ShapePart {
  readonly path: string;
  readonly fill?: string;
  readonly stroke?: string;
  readonly width?: number;
  readonly dash?: readonly [number, number];
}

const BOX = 'M2.5 1h7A1.5 1.5 0 0 1 11 2.5v7A1.5 1.5 0 0 1 9.5 11h-7A1.5 1.5 0 0 1 1 9.5v-7A1.5 1.5 0 0 1 2.5 1z';

/** The shape of a standing, on a page and on a canvas: filled, half, hollow, hatched, wavy, dotted. */
export const STANDING_SHAPES: Readonly<Record<Standing, readonly ShapePart[]>> = {
  shown: [{ path: 'M2.3 .5h7.4a1.8 1.8 0 0 1 1.8 1.8v7.4a1.8 1.8 0 0 1-1.8 1.8H2.3A1.8 1.8 0 0 1 .5 9.7V2.3A1.8 1.8 0 0 1 2.3 .5z', fill: 'pine' }],
  linked: [
    { path: BOX, fill: 'page', stroke: 'ochre', width: 1.5 },
    { path: 'M1 11V1.8L10.2 11Z', fill: 'ochre' },
  ],
  gap: [{ path: BOX, fill: 'page', stroke: 'brick', width: 1.5 }],
  suspect: [
    { path: 'M3.4 .7h5.2a1.2 1.2 0 0 1 1.2 1.2v4.2a1.2 1.2 0 0 1-1.2 1.2H3.4a1.2 1.2 0 0 1-1.2-1.2V1.9A1.2 1.2 0 0 1 3.4 .7z', fill: 'brick-wash', stroke: 'brick', width: 1.3 },
    { path: 'M0.3 10.6q1.45-2.6 2.85 0t2.85 0 2.85 0 2.85 0', stroke: 'brick', width: 1.35 },
  ],
  waiting: [
    { path: BOX, fill: 'plum-wash', stroke: 'plum', width: 1.3 },
    { path: 'M1.6 7.6 7.6 1.6M2.2 11 11 2.2M6.4 11 11 6.4', stroke: 'plum', width: 1.2 },
  ],
  leftOut: [{ path: BOX, stroke: 'ink3', width: 1.3, dash: [1.6, 1.6] }],
};
