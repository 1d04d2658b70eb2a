import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { startOutbox } from './app/outbox.ts';
import { watchTyping } from './app/update.ts';
import { App, isSending, ready } from './shell/App.tsx';

void startOutbox();
const whenQuiet = watchTyping();

const root = document.getElementById('root');
if (root === null) throw new Error('index.html has no #root');
// a slow or absent network must not keep the app from opening: after this long it draws what it has
const PATIENCE_MS = 700;
const late = new Promise((done) => setTimeout(done, PATIENCE_MS));
void Promise.race([ready(location.pathname), late]).then(() =>
  createRoot(root).render(
    <StrictMode>
      <App />
    </StrictMode>,
  ),
);

// keeping the app for a day without network is for when the screen stands
const keepApp = async (): Promise<void> => {
  const { registerSW } = await import('virtual:pwa-register');
  const busy = isSending;
  let taken = false;
  const take = registerSW({
    immediate: true,
    onNeedRefresh: () =>
      whenQuiet({
        take: () => {
          taken = true;
          void take(true);
        },
        busy,
      }),
    // another tab may have taken it while someone is typing in this one
    onNeedReload: () => {
      if (taken) location.reload();
      else whenQuiet({ take: () => location.reload(), busy });
    },
  });
};
if ('serviceWorker' in navigator) {
  const later = (): void => void setTimeout(() => void keepApp(), 1_500);
  if (document.readyState === 'complete') later();
  else addEventListener('load', later);
}
