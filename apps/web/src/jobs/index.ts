export { JobPage } from './job-page.js';
export { JobsPage } from './jobs-page.js';
