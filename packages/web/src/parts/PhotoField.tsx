import { useCommand } from '../app/command.ts';
import { api } from '../app/endpoints.ts';
import { Button } from '../kit/Button.tsx';
import { StepPhoto } from './StepPhoto.tsx';
import { TakePhoto } from './TakePhoto.tsx';

interface Props {
  readonly photo: string | undefined;
  /** What it shows: a step, a recipe. */
  readonly of: string;
  readonly onPhoto: (photo: string | undefined) => void;
}

/** The photograph of a step or a recipe while it is written: taken, looked at, taken away. */
export function PhotoField({ photo, of, onPhoto }: Props) {
  const keep = useCommand(api.pots.photograph, { onDone: ({ id }) => onPhoto(id) });
  return (
    <div className="flex flex-wrap items-center gap-2">
      {photo !== undefined && <StepPhoto photo={photo} of={of} />}
      <TakePhoto
        label={`Photograph of ${of}`}
        pending={keep.pending}
        onPhoto={(base64) => keep.send(base64.then((small) => ({ body: { base64: small } })))}
      >
        {photo === undefined ? 'Photograph' : 'Another'}
      </TakePhoto>
      {photo !== undefined && <Button onClick={() => onPhoto(undefined)}>Take it away</Button>}
      {keep.error !== null && (
        <p role="alert" className="text-alarm">
          {keep.error.message}
        </p>
      )}
    </div>
  );
}
