export { CardPage } from './card-page.js';
export { PaperPage } from './paper-page.js';
