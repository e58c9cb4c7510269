import { whileMounted } from '../station/in-hand.js';
import { LayoutPage as Layout } from './layout-page.js';
import { OrderPage as Order } from './order-page.js';
import { SchoolsPage as Schools } from './schools-page.js';
import { WishPage as Wish } from './wish-page.js';

export const LayoutPage = whileMounted(Layout);
export const OrderPage = whileMounted(Order);
export const SchoolsPage = whileMounted(Schools);
export const WishPage = whileMounted(Wish);
