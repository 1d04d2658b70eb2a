import { codeTyped } from '@zabrik/core';
import { useEffect, useRef, useState } from 'react';
import { useLocation, useNavigate } from 'react-router';
import { call } from '../../app/api.ts';
import { api } from '../../app/endpoints.ts';
import { useMe } from '../../app/queries.ts';
import type { ScreenAt } from '../../app/screenAt.ts';
import { onOpened } from '../../app/title.ts';
import { BarButton } from '../../kit/BarButton.tsx';
import FindBox from './FindBox.tsx';
import KeysBox from './KeysBox.tsx';
import { opened } from './recent.ts';

/** A scanner that says what kind of code it read begins with this, then types faster than a hand, and ends with Enter. */
const SCANNED = ']';
/** Longer than this between two keys is no scanner. */
const PAUSE_MS = 300;

const inField = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement && target.closest('input, textarea, select, [contenteditable="true"]') !== null;

interface Props {
  /** Asked for before its script was here. */
  readonly wanted: boolean;
  readonly screens: readonly ScreenAt[];
}

/**
 * The button that finds anything, and what listens for it anywhere: the key /, the key ? for all keys, and a scanner that reads one of our labels. A scanner's keys
 * are kept from the screen: at the bench each would be a tray.
 */
export default function Finder({ wanted, screens }: Props) {
  const [asked, setAsked] = useState<string | undefined>(wanted ? '' : undefined);
  const [keys, setKeys] = useState(false);
  const { data: me } = useMe();
  const { pathname } = useLocation();
  const navigate = useNavigate();
  const personId = me?.person.id;
  const here = useRef(pathname);
  here.current = pathname;
  useEffect(
    () =>
      personId === undefined
        ? undefined
        : onOpened((name, room = '') => opened(personId, { to: here.current, name, room })),
    [personId],
  );
  useEffect(() => {
    let scan: string | undefined;
    let last = 0;
    const lookUp = async (text: string): Promise<void> => {
      const code = codeTyped(text);
      const { found } = code === undefined ? { found: [] } : await call(api.find.search, { query: { q: code } });
      const lot = found.find((f) => f.kind === 'lot' && f.code === code);
      if (lot === undefined) setAsked(text.replace(/^\][A-Za-z]\d/, ''));
      else void navigate(`/larder/${lot.id}`);
    };
    const onKey = (event: KeyboardEvent): void => {
      if (event.ctrlKey || event.metaKey || event.altKey || inField(event.target)) return;
      const now = Date.now();
      if (scan !== undefined && now - last > PAUSE_MS) scan = undefined;
      last = now;
      if (event.key === SCANNED) scan = SCANNED;
      else if (scan !== undefined && event.key.length === 1) scan += event.key;
      else if (scan !== undefined && event.key === 'Enter') {
        const text = scan;
        scan = undefined;
        // without the server the box says what the tablet knows of it
        lookUp(text).catch(() => setAsked(text.replace(/^\][A-Za-z]\d/, '')));
      } else if (document.querySelector('[role="dialog"]') !== null) return;
      else if (event.key === '/') setAsked('');
      else if (event.key === '?') setKeys(true);
      else return;
      event.preventDefault();
      event.stopImmediatePropagation();
    };
    addEventListener('keydown', onKey, { capture: true });
    return () => removeEventListener('keydown', onKey, { capture: true });
  }, [navigate]);
  return (
    <>
      <BarButton aria-keyshortcuts="/" onClick={() => setAsked('')}>
        Find
      </BarButton>
      {keys && <KeysBox close={() => setKeys(false)} />}
      {asked !== undefined && (
        <FindBox
          first={asked}
          screens={screens}
          go={(to) => {
            setAsked(undefined);
            void navigate(to);
          }}
          keys={() => {
            setAsked(undefined);
            setKeys(true);
          }}
          close={() => setAsked(undefined)}
        />
      )}
    </>
  );
}
