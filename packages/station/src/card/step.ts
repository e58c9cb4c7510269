import type { ExposureReport } from '../exposure/report.js';
import type { Station } from '../document/station.js';
import type { Order, OrderPart } from '../orders/order.js';
import type { Units } from '../words/format.js';
import type { Looked } from './settle.js';

/** In the order things are done. */
export type CardPart = OrderPart;

/** One thing to do, its figure large: an order, or what is looked at between them. */
export type CardStep = Omit<Order, 'sets'> & Partial<Pick<Order, 'sets'>>;

/** What the steps are written from. */
export interface Told {
  /** As the card has it carried out. */
  readonly station: Station;
  readonly report: Looked;
  readonly exposure: ExposureReport | null;
  readonly planned: Station;
  readonly units: Units;
}
