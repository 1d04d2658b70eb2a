import type { Answer } from '@zabrik/contract';
import { destinations, type PlanPiece, type PlanStage } from '@zabrik/core';
import type { api } from '../../../app/endpoints.ts';
import { named, Select } from '../../../kit/Select.tsx';
import { trayName } from '../../../parts/destinations.ts';
import { changed } from '../../../parts/rows.ts';
import { Chips, NumberBox, PerCent, TextBox, toggled } from './editorParts.tsx';
import { withText } from './planDraft.ts';

export type Categories = Answer<typeof api.house.catalogue>['categories'];

const TRAYS = destinations.map((d) => ({ value: d, name: trayName(d) }));
const KINDS = ['main cut', 'picked bit by bit'] as const;

interface Props {
  readonly piece: PlanPiece;
  /** Stages it can go on to. */
  readonly later: readonly PlanStage[];
  readonly categories: Categories;
  readonly onChange: (piece: PlanPiece) => void;
}

/** One piece of a stage: its usual share, where it goes, where it must not go and why. */
export function PieceFields({ piece, later, categories, onChange }: Props) {
  const refused = piece.refused.map((r) => r.destination);
  const { units: _named, ...unnamed } = piece;
  const { accumulates: _bits, ...inOne } = piece;
  return (
    <div className="grid gap-2">
      <div className="flex flex-wrap items-end gap-2">
        <TextBox
          label="Piece"
          className="min-w-48 flex-1"
          maxLength={60}
          value={piece.name}
          onValue={(name) => onChange({ ...piece, name })}
        />
        <NumberBox
          label="how many"
          className="w-20"
          min={1}
          max={1000}
          value={piece.count}
          onValue={(n) => onChange({ ...unnamed, count: Math.max(1, Math.round(n) || 1) })}
        />
        <PerCent
          label="share, %"
          value={piece.share.mean}
          onValue={(mean) =>
            onChange({ ...piece, share: { ...piece.share, mean, provenance: 'estimate', source: 'This house' } })
          }
        />
        <PerCent
          label="± sd, %"
          value={piece.share.sd}
          onValue={(sd) => onChange({ ...piece, share: { ...piece.share, sd: Math.min(0.49, sd) } })}
        />
        <Select
          dense
          label="goes to"
          className="w-32"
          options={TRAYS}
          value={piece.destination}
          onValue={(destination) =>
            onChange({
              ...piece,
              destination,
              alternatives: piece.alternatives.filter((a) => a !== destination),
              refused: piece.refused.filter((r) => r.destination !== destination),
            })
          }
        />
        <Select
          dense
          label="kind"
          className="w-56"
          options={categories.map((c) => ({ value: c.id, name: c.label }))}
          value={piece.category}
          onValue={(category) =>
            onChange({
              ...piece,
              category,
              edible: categories.find((c) => c.id === category)?.edible ?? piece.edible,
            })
          }
        />
        {later.length > 0 && (
          <Select
            dense
            label="goes on to"
            className="w-36"
            none="nothing"
            options={named(later)}
            value={piece.next ?? ''}
            onValue={(next) => onChange(withText(piece, 'next', next))}
          />
        )}
      </div>
      <div className="flex flex-wrap items-start gap-5">
        <Chips
          legend="May also go to"
          all={destinations.filter((d) => d !== piece.destination && !refused.includes(d))}
          chosen={piece.alternatives}
          nameOf={trayName}
          onToggle={(d) => onChange({ ...piece, alternatives: toggled(piece.alternatives, d) })}
        />
        <Chips
          legend="Must not go to"
          all={destinations.filter((d) => d !== piece.destination && !piece.alternatives.includes(d))}
          chosen={refused}
          nameOf={trayName}
          onToggle={(d) =>
            onChange({
              ...piece,
              refused: refused.includes(d)
                ? piece.refused.filter((r) => r.destination !== d)
                : [...piece.refused, { destination: d, reason: 'This house does not' }],
            })
          }
        />
        <Chips
          legend="It is"
          all={KINDS}
          chosen={KINDS.filter((k) => (k === 'main cut' ? piece.main : piece.accumulates === true))}
          nameOf={(x) => x}
          onToggle={(kind) => {
            if (kind === 'main cut') onChange({ ...piece, main: !piece.main });
            else onChange(piece.accumulates === true ? inOne : { ...piece, accumulates: true });
          }}
        />
      </div>
      {piece.refused.length > 0 && (
        <div className="grid grid-cols-2 gap-2">
          {piece.refused.map((r, i) => (
            <TextBox
              key={r.destination}
              label={`Why not to ${trayName(r.destination).toLowerCase()}`}
              maxLength={200}
              value={r.reason}
              onValue={(reason) => onChange({ ...piece, refused: changed(piece.refused, i, { ...r, reason }) })}
            />
          ))}
        </div>
      )}
    </div>
  );
}
