import { useEffect } from 'react';
import { useLocation, useNavigate, useRouteError } from 'react-router';
import { useOutbox } from '../app/outbox.ts';
import { Button } from '../kit/Button.tsx';
import { Notice } from '../kit/Notice.tsx';

const RELOADED = 'zabrik-reloaded-at';
const SOON_MS = 30_000;

/** A script of the app that did not come: after an update the old ones are gone from the server. */
const isMissingScript = (error: unknown): boolean =>
  error instanceof Error &&
  /dynamically imported module|importing a module|module script|Loading chunk/i.test(error.message);

/** When a script is missing the page is opened anew, once: the new page asks for the scripts there are. */
export function onceAnew(error: unknown, reload: () => void = () => location.reload()): void {
  if (!isMissingScript(error) || !navigator.onLine) return;
  try {
    const last = Number(sessionStorage.getItem(RELOADED) ?? 0);
    if (Date.now() - last < SOON_MS) return;
    sessionStorage.setItem(RELOADED, String(Date.now()));
  } catch {
    return; // without a memory it could go round and round
  }
  reload();
}

/** What stands where a screen broke: what is kept, and the way back. The bar above goes on working. */
export function Broken() {
  const error = useRouteError();
  const navigate = useNavigate();
  const { pathname, search } = useLocation();
  const waiting = useOutbox().length;
  const missing = isMissingScript(error);
  useEffect(() => {
    // the words for whoever looks into it; the cook reads the sentence above
    console.error(error);
    onceAnew(error);
  }, [error]);
  return (
    <div className="grid max-w-2xl gap-4 p-6">
      <Notice tone="alarm">
        <strong className="block text-lg">
          {missing ? 'A part of the app did not come.' : 'This screen stopped working.'}
        </strong>
        Everything that was saved is saved.{' '}
        {waiting > 0
          ? `${waiting} ${waiting === 1 ? 'thing is' : 'things are'} kept on this device and will be sent by ${waiting === 1 ? 'itself' : 'themselves'}.`
          : 'Nothing waits on this device.'}{' '}
        What was typed into this screen and not sent has to be typed again.
      </Notice>
      <div className="flex flex-wrap gap-3">
        <Button variant="strong" size="bench" onClick={() => void navigate(`${pathname}${search}`, { replace: true })}>
          Open it again
        </Button>
        <Button size="bench" onClick={() => location.reload()}>
          Load the app anew
        </Button>
      </div>
      <p className="text-[14px] text-ink-soft">{error instanceof Error ? error.message : String(error)}</p>
    </div>
  );
}
