import { exposureReport } from '../exposure/report.js';
import type { Station } from '../document/station.js';
import { layoutOf } from '../mosaic/layout.js';
import { seriesTurn } from '../mosaic/series.js';
import type { Units } from '../words/format.js';
import { carried } from './carried.js';
import { focusOrders, stopOrders } from './focus.js';
import { frameOrders, seriesOrders } from './frames.js';
import { lightOrders } from './light.js';
import { moveOrders } from './moves.js';
import type { Order, Ordering, OrderPart } from './order.js';
import { backOrders, heightOrders, levelOrders } from './place.js';

/**
 * What a hand does at a station, in the order it is done. Page, card, paper, tag, log and sidecars
 * take what is set from here, and from nowhere else.
 */
export interface Orders extends Ordering {
  readonly orders: readonly Order[];
}

/** Everything that is moved, before the first frame. */
function moves({ station }: Ordering): Order[] {
  if (!station.mosaic || station.held_off) return moveOrders(station, null);
  const layout = layoutOf(station);
  const { carrier, mosaic } = layout;
  const moving = mosaic.moves === 'camera' ? null : carrier;
  // A pinwheel goes round by itself: whatever else turns is set once.
  const byFrames = moving && mosaic.pattern === 'pinwheel' ? { ...moving, turns: false } : moving;
  const series = byFrames?.turns ? seriesOrders(station) : [];
  const eachTurns = byFrames?.turns === true && seriesTurn(station, layout) === null;
  return [...series, ...moveOrders(station, byFrames, eachTurns)];
}

const PARTS: readonly ((told: Ordering) => Order[])[] = [
  heightOrders,
  backOrders,
  levelOrders,
  moves,
  focusOrders,
  stopOrders,
  lightOrders,
  ({ station, units }) => frameOrders(station, units),
];

const known = new WeakMap<Station, Partial<Record<Units, Orders>>>();

/** Worked out once for a station: card, text and tag ask for the same. */
export function ordersOf(planned: Station, units: Units = 'metric'): Orders {
  const before = known.get(planned)?.[units];
  if (before) return before;
  const told: Ordering = {
    planned,
    station: carried(planned, units),
    exposure: planned.exposure ? exposureReport(planned, planned.exposure) : null,
    units,
  };
  const made = { ...told, orders: PARTS.flatMap((part) => part(told)) };
  known.set(planned, { ...known.get(planned), [units]: made });
  return made;
}

/** What is moved on a station as it stands, without a layout: lines to read. */
export function movesOf(station: Station): Order[] {
  const { mosaic: _, ...single } = station;
  return moveOrders(single, null).filter(({ id }) => id !== 'rest' && id !== 'straight');
}

/** The orders of one part. */
export const ordersIn = ({ orders }: Orders, part: OrderPart): Order[] =>
  orders.filter((order) => order.part === part);
