export { bedInfinityMm, readingsOf, type FocusReading } from './focusing.js';
export { carried, printedM, printedStop } from './carried.js';
export { crispestMark } from './focus.js';
export { shootingOrder, type FrameStep } from './frames.js';
export { bodyTurns, heldOrders, orderLines } from './held.js';
export * from './clicks.js';
export * from './instructions.js';
export { ordersIn, ordersOf, movesOf, type Orders } from './orders.js';
export type { Control as OrderControl, Order, OrderPart, Setting } from './order.js';
