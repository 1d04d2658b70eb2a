import { Refused } from '../../app/api.ts';
import { type Catalogue, useCatalogue, useHouse } from '../../app/queries.ts';
import { Failed, Loading, Notice } from '../../kit/Notice.tsx';
import { Confirm } from '../../parts/Confirm.tsx';
import { SimulatedPan } from '../../parts/SimulatedPan.tsx';
import { StillHere } from '../../parts/StillHere.tsx';
import { Inspection } from './Inspection.tsx';
import { LineInvoice } from './LineInvoice.tsx';
import { LineWeights } from './LineWeights.tsx';
import { LineWhat, Ordered } from './LineWhat.tsx';
import { type LineProps, useLine } from './useLine.ts';
import { type Supplier, useSuppliers } from './useSuppliers.ts';
import { Verdict } from './Verdict.tsx';

interface Known extends LineProps {
  readonly catalogue: Catalogue;
  readonly suppliers: readonly Supplier[];
  readonly currency: string;
}

function KnownLine({ catalogue, suppliers, currency, ...props }: Known) {
  const line = useLine(props, catalogue, currency);
  const { species, typed, inspection, send } = line;
  return (
    <form
      className="grid gap-4"
      noValidate
      onSubmit={(event) => {
        event.preventDefault();
        line.write((body) => body);
      }}
    >
      <StillHere draft={line.before} />
      {props.order !== undefined && <Ordered line={line} order={props.order} />}
      <LineWhat line={line} catalogue={catalogue} />
      {inspection !== undefined && (species !== undefined || typed.goods !== '') && (
        <Inspection
          inspection={inspection}
          answers={line.answers}
          onAnswer={line.answer}
          tags={(species?.inspection ?? []).slice(0, 2)}
        />
      )}
      <LineWeights line={line} />
      <LineInvoice line={line} suppliers={suppliers} fixed={props.supplierId !== undefined} />
      {send.error instanceof Refused && send.error.code === 'needs_confirmation' ? (
        <Confirm
          error={send.error}
          onConfirm={() => line.write((body) => ({ ...body, confirmed: true }))}
          words="Take it in, on hold"
        />
      ) : (
        send.error !== null && <Notice tone="alarm">{send.error.message} What you typed is still here.</Notice>
      )}
      <div className="sticky bottom-0 -mx-5 flex flex-wrap items-center justify-between gap-4 border-t border-line bg-ground px-5 py-3">
        <SimulatedPan />
        <Verdict
          netMg={line.netMg}
          busy={send.pending}
          onAccept={() => line.write((body) => body)}
          onRefuse={line.refuse}
        />
      </div>
    </form>
  );
}

/** One line of a delivery: what it is, what the papers and the nose say, what the scale says, and the verdict. */
export function LineForm(props: LineProps) {
  const catalogue = useCatalogue();
  const suppliers = useSuppliers();
  const { data: house } = useHouse();
  if (catalogue.isPending || suppliers.isPending || house === undefined) return <Loading />;
  if (catalogue.isLoadingError) return <Failed error={catalogue.error} again={() => void catalogue.refetch()} />;
  if (suppliers.isLoadingError) return <Failed error={suppliers.error} again={() => void suppliers.refetch()} />;
  return (
    <KnownLine
      {...props}
      catalogue={catalogue.data}
      suppliers={suppliers.data.suppliers.filter((x) => !x.retired)}
      currency={house.currency}
    />
  );
}
