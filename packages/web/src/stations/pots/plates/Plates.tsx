import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { hasDraft } from '../../../app/draft.ts';
import { moneyOf, useHouse, useMay, useMe } from '../../../app/queries.ts';
import { Button } from '../../../kit/Button.tsx';
import { Empty, Failed, Loading } from '../../../kit/Notice.tsx';
import { PotsHead } from '../PotsHead.tsx';
import { platesQuery } from '../reads.ts';
import { PlateCard } from './PlateCard.tsx';
import { blankPlate, draftOfPlate, PlateEditor } from './PlateEditor.tsx';

/** What is served by its components: how many plates lie ready, what they wait for, and what one costs. */
export default function Plates() {
  const query = useQuery(platesQuery);
  const { data: house } = useHouse();
  const money = moneyOf(house);
  const may = useMay('pots.savePlate');
  const me = useMe().data?.person.id;
  /** Empty for a new one; null once it was put aside here. Until then what was left half written is open. */
  const [chosen, setOpen] = useState<string | null>();
  if (query.isPending) return <Loading />;
  if (query.isLoadingError) return <Failed error={query.error} again={() => void query.refetch()} />;
  const { plates } = query.data;
  const taken = plates.map((p) => p.plate.id);
  const left = hasDraft(me, draftOfPlate(blankPlate, 0))
    ? ''
    : plates.find(({ plate }) => hasDraft(me, draftOfPlate(plate, plate.version)))?.plate.id;
  const open = chosen === undefined && may ? left : (chosen ?? undefined);
  const done = (): void => {
    setOpen(null);
    void query.refetch();
  };
  return (
    <div className="flex flex-1 flex-col">
      <PotsHead>
        {may && open === undefined && (
          <div className="ml-auto pb-2">
            <Button variant="strong" onClick={() => setOpen('')}>
              A new plate
            </Button>
          </div>
        )}
      </PotsHead>
      <div className="mx-auto grid w-full max-w-[1180px] content-start gap-4 p-4">
        {open === '' && <PlateEditor from={0} plate={blankPlate} taken={taken} onDone={done} />}
        {plates.length === 0 && open === undefined && (
          <Empty title="No plates yet">
            A plate is what is served: a portion, its sauce, four strips of carrot. Here stands how many can be served
            from what lies there, what they wait for, and what one costs.{may ? ' Begin with a new plate.' : ''}
          </Empty>
        )}
        {plates.map((listed) =>
          open === listed.plate.id ? (
            <PlateEditor
              key={listed.plate.id}
              from={listed.plate.version}
              plate={listed.plate}
              taken={taken}
              onDone={done}
            />
          ) : (
            <PlateCard
              key={listed.plate.id}
              listed={listed}
              money={money}
              onChange={may && open === undefined ? () => setOpen(listed.plate.id) : undefined}
            />
          ),
        )}
      </div>
    </div>
  );
}
