import { useState } from 'react';

/** How it looks when it is right: a touch makes it large, another small again. One that cannot be fetched, without network, is left out. */
export function StepPhoto({
  photo,
  of,
  className = '',
}: {
  readonly photo: string;
  readonly of: string;
  readonly className?: string;
}) {
  const [large, setLarge] = useState(false);
  const [gone, setGone] = useState(false);
  if (gone) return null;
  return (
    <button
      type="button"
      aria-pressed={large}
      aria-label={`Photograph: ${of}`}
      className={`block overflow-hidden rounded-md border-[1.5px] border-line-strong bg-white ${large ? 'w-full' : 'w-fit'} ${className}`}
      onClick={() => setLarge(!large)}
    >
      <img
        src={`/api/v1/photographs/${photo}`}
        alt=""
        loading="lazy"
        className={large ? 'max-h-[70vh] w-full object-contain' : 'h-28 w-40 object-cover'}
        onError={() => setGone(true)}
      />
    </button>
  );
}
