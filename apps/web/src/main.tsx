import '@fontsource-variable/archivo/wdth.css';
import './styles.css';
import { setNonce } from 'get-nonce';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { Provider } from 'react-redux';
import { App } from './app.js';
import { readFrom, session, whyNotKept, writeTo } from './browser/storage.js';
import { sendWaitingLogs } from './store/log-waiting.js';
import { lightOnPaper } from './store/paper-light.js';
import { store } from './store/store.js';

const nonce = document.querySelector<HTMLMetaElement>('meta[name="style-nonce"]')?.content;
if (nonce) setNonce(nonce);

const RELOADED = 'gangway.reloaded';
const RELOAD_AGAIN_MS = 30_000;

// A part of the app that cannot be fetched is most often of an older build than the server's:
// load the page anew, once. Edits and unfinished text are kept in this browser.
addEventListener('vite:preloadError', (event) => {
  // Where that cannot be noted, the page would load itself again for ever.
  if (whyNotKept(session)) return;
  if (Date.now() - Number(readFrom(session, RELOADED) ?? 0) < RELOAD_AGAIN_MS) return;
  event.preventDefault();
  writeTo(session, RELOADED, String(Date.now()));
  location.reload();
});

lightOnPaper();
void sendWaitingLogs();

createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <Provider store={store}>
      <App />
    </Provider>
  </StrictMode>,
);
