export { OwnLensPage } from './own-lens-page.js';
