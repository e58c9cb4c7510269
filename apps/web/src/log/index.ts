export { LogPage } from './log-page.js';
