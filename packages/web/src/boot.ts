/**
 * The first lines that run. They ask at once for everything the address needs: the reads, the script of its screen and the app
 * itself, side by side. Otherwise a slow tablet reads the whole app before it knows what else to fetch.
 */
import './app/theme.css';
import { askEarly } from './app/early.ts';
import { needsOf, scripts } from './app/scripts.ts';

const needs = needsOf(location.pathname);
if (needs !== undefined) {
  askEarly(needs.breakdownId);
  void scripts[needs.script]();
}
void import('./main.tsx');
