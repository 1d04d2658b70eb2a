/**
 * The first lines that run. They ask at once for everything the address needs: the reads, the script of its screen and the app
 * itself, side by side. Otherwise a slow tablet reads the whole app before it knows what else to fetch.
 */
import './app/theme.css';
import { askEarly } from './app/early.ts';
import { screenFor } from './app/screenAt.ts';
import { FIRST, screens } from './stations/screens.ts';

const found = screenFor(screens, location.pathname) ?? screenFor(screens, FIRST);
if (found?.screen.bare !== true) askEarly(location.pathname);
void found?.screen.script();
void import('./main.tsx').catch((error: unknown) => {
  // before there is an app to say it: a page that stays white tells nobody anything
  const root = document.getElementById('root');
  if (root === null) return;
  const says = document.createElement('p');
  says.style.cssText = 'font: 18px/1.5 sans-serif; margin: 2rem; max-width: 34rem';
  says.textContent = 'The app did not come. What was weighed on this device is kept. ';
  const again = document.createElement('button');
  again.style.cssText = 'font: inherit; padding: 0.8rem 1.2rem';
  again.textContent = 'Load it anew';
  again.onclick = () => location.reload();
  says.append(again);
  root.replaceChildren(says);
  console.error(error);
});
