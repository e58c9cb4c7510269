import { readingOf, readings } from '../report/readings.js';
import { reportMosaic } from '../mosaic/report.js';
import { assumedFor, assumptionsOf, type Assumption } from '../report/assumed.js';
import { measuredFor, measurementsOf, type Measurement } from '../report/measured.js';
import { exposureReport } from '../exposure/report.js';
import type { Station } from '../document/station.js';
import type { CareKind } from '../document/stand.js';
import type { Units } from '../words/format.js';
import { careOf } from './care.js';
import { focusingAssumed } from '../orders/assumed.js';
import { ordersOf, type Orders } from '../orders/orders.js';
import type { OrderPart } from '../orders/order.js';
import { cardVerdict, unsettled, type CardVerdict, type Looked, type Unsettled } from './settle.js';
import { meterSteps } from './light-steps.js';
import { checkSteps, fixedSteps } from './looks.js';
import { lookSteps, placeSteps, rigSteps, tapeSteps } from './place-steps.js';
import type { CardStep, Told } from './step.js';

/** What is shot from: everything to do at a station, in the order it is done. */
export interface Card {
  readonly name: string;
  readonly steps: readonly CardStep[];
  readonly care: readonly CareKind[];
  readonly unsettled: Unsettled;
  /** What its figures rest on and nobody gave. */
  readonly assumed: readonly Assumption[];
  /** What its figures rest on that was measured. */
  readonly measured: readonly Measurement[];
  /** As the card has it carried out. */
  readonly station: Station;
}

type Steps = (told: Told, orders: Orders) => readonly CardStep[];

const ordered =
  (part: OrderPart): Steps =>
  (_, { orders }) =>
    orders.filter((order) => order.part === part);

/** Orders as they are given, and between them what is measured and looked at. */
const PARTS: readonly Steps[] = [
  tapeSteps,
  ordered('stand'),
  placeSteps,
  rigSteps,
  ordered('rig'),
  ordered('level'),
  meterSteps,
  ordered('move'),
  ordered('focus'),
  checkSteps,
  ordered('stop'),
  ordered('expose'),
  fixedSteps,
  ordered('frames'),
  lookSteps,
];

export function cardOf(planned: Station, units: Units = 'metric'): Card {
  const orders = ordersOf(planned, units);
  const { station, exposure } = orders;
  const report: Looked = {
    ...readings(station),
    // What the rig cannot do is asked of the plan: what is printed stays within its reach.
    rig: readingOf(planned).rig,
    ...(station.mosaic ? { mosaic: reportMosaic(station, station.mosaic) } : {}),
  };
  const told: Told = { station, report, exposure, planned, units };
  const steps = PARTS.flatMap((part) => part(told, orders));
  const all = [...assumptionsOf(planned), ...focusingAssumed(planned)];
  const rests = [...new Set(steps.flatMap((step) => step.rests ?? []))];
  return {
    name: planned.name,
    steps,
    care: careOf(planned),
    unsettled: unsettled(station, exposure ? { ...report, exposure } : report),
    assumed: assumedFor(all, rests),
    measured: measuredFor(measurementsOf(planned), rests),
    station,
  };
}

/** Whether a station with frames and an exposure can be shot from. */
export function cardStanding(station: Station): CardVerdict {
  const { mosaic, exposure } = station;
  const looked: Looked = {
    ...readings(station),
    ...(mosaic ? { mosaic: reportMosaic(station, mosaic) } : {}),
    ...(exposure ? { exposure: exposureReport(station, exposure) } : {}),
  };
  return cardVerdict(unsettled(station, looked));
}

/** Whether a step’s figure rests on what was measured, and on nothing that nobody gave. */
export const restsOnMeasured = ({ assumed, measured }: Card, { rests = [] }: CardStep): boolean =>
  assumedFor(assumed, rests).length === 0 && measuredFor(measured, rests).length > 0;

/** Whether a step’s figure rests on what nobody gave. */
export const restsOnAssumed = ({ assumed }: Card, { rests = [] }: CardStep): boolean =>
  assumedFor(assumed, rests).length > 0;
