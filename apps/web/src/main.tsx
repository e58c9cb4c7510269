import '@fontsource-variable/archivo/wdth.css';
import './styles.css';
import { setNonce } from 'get-nonce';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { Provider } from 'react-redux';
import { holdInvariants } from '@gangway/station';
import { App } from './app.js';
import { loadAnew, serverThere } from './browser/newer-build.js';
import { session } from './browser/storage.js';
import { sendWaitingLogs } from './store/log-waiting.js';
import { lightOnPaper } from './store/paper-light.js';
import { store } from './store/store.js';

const nonce = document.querySelector<HTMLMetaElement>('meta[name="style-nonce"]')?.content;
if (nonce) setNonce(nonce);

addEventListener('vite:preloadError', () => {
  void loadAnew({
    shelf: session,
    now: Date.now,
    there: serverThere,
    reload: () => location.reload(),
  });
});

if (import.meta.env.DEV) holdInvariants();
lightOnPaper();
void sendWaitingLogs();
// What is open sends its own: the rest is looked after once the page stands.
const LEFT_MS = 1500;
setTimeout(() => {
  void import('./store/left-behind.js').then(({ sendLeftBehind }) => sendLeftBehind());
}, LEFT_MS);

createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <Provider store={store}>
      <App />
    </Provider>
  </StrictMode>,
);
