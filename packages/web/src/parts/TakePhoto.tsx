import { Camera } from 'lucide-react';
import { useRef } from 'react';
import { Button } from '../kit/Button.tsx';
import { smallPhoto } from './smallPhoto.ts';

interface Props {
  /** What it is a photograph of, for whoever cannot see the button. */
  readonly label: string;
  readonly pending: boolean;
  /** The picture, made small enough for a kitchen's network. */
  readonly onPhoto: (base64: Promise<string>) => void;
  readonly children?: string;
}

/** Takes a photograph with the tablet's camera, or out of a file. */
export function TakePhoto({ label, pending, onPhoto, children = 'Photograph' }: Props) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <input
        ref={input}
        type="file"
        accept="image/jpeg,image/png,image/webp"
        capture="environment"
        className="sr-only"
        tabIndex={-1}
        aria-label={label}
        onChange={(event) => {
          const [file] = event.target.files ?? [];
          if (file !== undefined) onPhoto(smallPhoto(file));
          event.target.value = '';
        }}
      />
      <Button disabled={pending} onClick={() => input.current?.click()}>
        <Camera size={18} aria-hidden="true" />
        {pending ? 'Sending…' : children}
      </Button>
    </>
  );
}
