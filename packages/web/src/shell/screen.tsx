import { type ComponentType, lazy, type ReactNode, Suspense, useState } from 'react';
import { Loading } from '../kit/Notice.tsx';
import { onceAnew } from './Broken.tsx';

interface Screen<P> {
  readonly Screen: ComponentType<P>;
  readonly load: () => Promise<unknown>;
}

/**
 * A screen in a script of its own. When the script is already here it is drawn at once: going through Suspense costs a drawing of
 * the placeholder and React's 300 ms before it lets the placeholder go.
 */
export function screen<P extends object>(
  fetchScript: () => Promise<{ default: ComponentType<P> }>,
  meanwhile: ReactNode = <Loading />,
): Screen<P> {
  let here: ComponentType<P> | undefined;
  const load = async (): Promise<{ default: ComponentType<P> }> => {
    const script = await fetchScript().catch((error: unknown) => {
      Later = lazy(load); // a lazy screen remembers that it failed: opened again, it is fetched again
      onceAnew(error);
      throw error;
    });
    here = script.default;
    return script;
  };
  let Later = lazy(load);
  const Screen = (props: P) => {
    const [Here] = useState(() => here);
    return Here === undefined ? (
      <Suspense fallback={meanwhile}>
        <Later {...props} />
      </Suspense>
    ) : (
      <Here {...props} />
    );
  };
  return { Screen, load };
}
