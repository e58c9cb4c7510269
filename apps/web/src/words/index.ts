export { WordsPage } from './words-page.js';
