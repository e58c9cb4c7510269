export { KitPage } from './kit-page.js';
export { ItemPage, NewItemPage } from './item-page.js';
export { ImportPage } from './import-page.js';
