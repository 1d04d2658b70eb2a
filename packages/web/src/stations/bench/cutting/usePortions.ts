import { useQuery } from '@tanstack/react-query';
import { formOfPiece, templateById, templatesFor, usualSizes } from '@zabrik/catalogue/portioning';
import type { Cutting } from '@zabrik/contract';
import {
  betterForm,
  type CutsForWeight,
  type CutWeight,
  type CutWish,
  type Destination,
  formatMass,
  type HouseShape,
  type MixOption,
  offSize,
  type PieceMeasures,
  type PieceTemplate,
  type PlannedPortion,
  type PortionSize,
  type PortionsSetup,
  profileAfter,
  readMarks,
  sizeOf,
  usualLength,
} from '@zabrik/core';
import { useMemo, useState } from 'react';
import { call } from '../../../app/api.ts';
import { api } from '../../../app/endpoints.ts';
import { useCatalogue } from '../../../app/queries.ts';
import { type PlanRequest, planPiece } from './planner.ts';
import { sizeFrom } from './SizesTab.tsx';
import type { AtBoard } from './useCutting.ts';
import { usePlanner } from './usePlanner.ts';
import { useTake } from './useTake.ts';

/** What the knife gives next: a portion or an end, between two places. */
export type NextCut =
  | (PlannedPortion & { readonly kind: 'portion'; readonly size: PortionSize })
  | { readonly kind: 'end'; readonly fromMm: number; readonly toMm: number; readonly massMg: number };

/** The form that the plan's piece has; else the first of its kind. */
const usualTemplate = (cutting: Cutting, group: string | null): PieceTemplate => {
  const known = formOfPiece(cutting.pieceId, cutting.species, group);
  if (known !== undefined) return known;
  const [first] = templatesFor(cutting.category);
  if (first === undefined) throw new Error('the catalogue has no forms of pieces');
  return first;
};

function usualSetup(cutting: Cutting, template: PieceTemplate): PortionsSetup {
  const [main, starter] = usualSizes(cutting.category).map(sizeFrom);
  return {
    kind: 'portions',
    templateId: template.id,
    sizes: [main, starter].filter((s): s is PortionSize => s !== undefined).slice(0, 1),
    angleDeg: 0,
    squareMm: [0, 0],
    kerfMm: 0,
    clingMg: 0,
    tail: 'end',
    endMinorPerKg: 600,
    endTo: 'filling',
  };
}

/** A piece nobody measured yet: what it weighed when it came off, else its share of what is left; as long as such pieces usually are. */
function guessed(board: AtBoard, no: number, template: PieceTemplate): PieceMeasures {
  const { cutting, state } = board;
  const known = [...state.pieces].filter(([n]) => n !== no);
  const left = cutting.startMg - known.reduce((sum, [, m]) => sum + m.massMg, 0);
  const cameOff = cutting.inputs.flatMap((i) => (i.pieceMg.length === 0 ? [null] : [...i.pieceMg]));
  const own = cutting.inputs.every((i) => i.pieceMg.length > 0) ? cameOff[no - 1] : undefined;
  const massMg = own ?? Math.max(5_000, Math.round(left / Math.max(1, cutting.pieces - known.length) / 1_000) * 1_000);
  return { massMg, lengthMm: Math.max(20, 5 * Math.round(usualLength(template, massMg) / 5)) };
}

const sortedCuts = (plan: CutsForWeight, sizes: readonly PortionSize[]): NextCut[] =>
  [
    ...plan.portions.flatMap((p): NextCut[] => {
      const size = sizes.find((s) => s.id === p.sizeId);
      return size === undefined ? [] : [{ ...p, kind: 'portion', size }];
    }),
    ...plan.ends.map((e): NextCut => ({ ...e, kind: 'end' })),
  ].sort((a, b) => a.fromMm - b.fromMm);

/** Cutting portions from pieces one after another: where the knife goes, what is on the pan, and what was got. */
export function usePortions(board: AtBoard) {
  const { cutting, state, record } = board;
  const { weights } = state;
  const [chosen, setChosen] = useState<number | undefined>(undefined);
  const [option, setOption] = useState(0);
  const [byHand, setByHand] = useState<readonly number[] | undefined>(undefined);
  const [locked, setLocked] = useState<ReadonlySet<number>>(new Set());
  const [selected, setSelected] = useState(0);
  const [right, setRight] = useState<string | undefined>(undefined);
  const [draft, setDraft] = useState<PortionsSetup | undefined>(undefined);

  const { data: catalogue } = useCatalogue();
  const usual = usualTemplate(cutting, catalogue?.species.find((s) => s.id === cutting.species)?.group ?? null);
  const saved = state.setup?.kind === 'portions' ? state.setup : undefined;
  const learntFor = (draft ?? saved)?.templateId ?? usual.id;
  const learnt = useQuery({
    queryKey: ['cuttings', 'learnt', learntFor, cutting.category, cutting.species],
    queryFn: () =>
      call(api.cutting.learnt, {
        query: {
          templateId: learntFor,
          category: cutting.category ?? undefined,
          species: cutting.species ?? undefined,
        },
      }),
    staleTime: 60_000,
  });
  const last = learnt.data?.last?.kind === 'portions' ? (learnt.data.last as PortionsSetup) : undefined;
  // the sizes cut last, of the form that this piece has
  const setup: PortionsSetup =
    draft ??
    saved ??
    (last === undefined
      ? usualSetup(cutting, usual)
      : { ...last, templateId: cutting.pieceId === null ? last.templateId : usual.id });
  const template = templateById.get(setup.templateId) ?? usual;
  const shape = (learnt.data?.shape ?? undefined) as HouseShape | undefined;

  const lastWeight = weights.at(-1);
  // an end squared off before the first portion, or between two, does not end the piece
  const doneWith = (w: CutWeight): boolean => {
    const length = state.pieces.get(w.piece)?.lengthMm ?? Number.POSITIVE_INFINITY;
    return w.toMm === null ? w.line === 'end' : w.toMm >= length - 0.5;
  };
  const auto =
    lastWeight === undefined
      ? 1
      : doneWith(lastWeight)
        ? Math.min(cutting.pieces, lastWeight.piece + 1)
        : lastWeight.piece;
  const no = Math.min(cutting.pieces, chosen ?? auto);
  const measured = state.pieces.get(no);
  const measures = measured ?? guessed(board, no, template);
  const own = weights.filter((w) => w.piece === no);
  const got = own.flatMap((w) =>
    w.fromMm !== null && w.toMm !== null && w.toMm > w.fromMm
      ? [{ fromMm: w.fromMm, toMm: w.toMm, massMg: w.massMg }]
      : [],
  );
  const fromMm = Math.min(Math.round(measures.lengthMm), Math.max(0, ...got.map((g) => g.toMm)));
  // trimmed afterwards, a portion no longer says what lay between its marks
  const teaches = own.flatMap((w) =>
    w.replaces === null && w.count === 1 && w.line !== 'end' && w.fromMm !== null && w.toMm !== null
      ? [{ fromMm: w.fromMm, toMm: w.toMm, massMg: w.massMg }]
      : [],
  );
  const finished = own.some(doneWith) || fromMm >= measures.lengthMm - 0.5;
  const locks = [...locked].filter((mm) => mm > fromMm && mm < measures.lengthMm);
  const { kind: _, templateId: __, endTo, ...wanted } = setup;
  const wish: CutWish = { ...wanted, fromMm, locked: locks };
  const request = finished ? undefined : { template, measures, shape, cut: teaches, wish };
  // the profile is a millisecond's work: marks follow the finger without asking the worker. Compared as text, as the worker does
  const piece = JSON.stringify({ template, measures, shape, cut: teaches });
  const profile = useMemo(() => {
    const asked = JSON.parse(piece) as Omit<PlanRequest, 'wish'>;
    return profileAfter(asked.template, asked.measures, asked.shape, asked.cut);
  }, [piece]);
  const { answer: planned, late } = usePlanner(request);
  const options: readonly MixOption[] = planned?.options ?? [];
  const picked = options[Math.min(option, Math.max(0, options.length - 1))];
  const doubted = useMemo(() => {
    const asked = JSON.parse(piece) as Omit<PlanRequest, 'wish'>;
    return betterForm(asked.template, templatesFor(cutting.category), asked.measures, asked.cut);
  }, [piece, cutting.category]);
  const plan: CutsForWeight =
    byHand !== undefined
      ? readMarks(
          profile,
          wish,
          byHand.filter((mm) => mm > fromMm),
        )
      : (picked ?? readMarks(profile, wish, []));
  const cuts = finished ? [] : sortedCuts(plan, setup.sizes);
  const marks = finished
    ? []
    : [...new Set(cuts.flatMap((c) => [c.fromMm, c.toMm]))]
        .filter((mm) => mm > fromMm && mm < profile.lengthMm)
        .sort((a, b) => a - b);
  const next = cuts[0];
  /**
   * What the knife gives next by what is known at this moment. A weight may come before the worker has answered to the one before it: what
   * stands on the screen then is the plan of a cut that is made already, perhaps of the piece before, so it is worked out here and now.
   */
  const nextNow = (): NextCut | undefined => {
    if (!late || request === undefined || byHand !== undefined) return next;
    const { options: now } = planPiece(request);
    const chosenNow = now[Math.min(option, Math.max(0, now.length - 1))];
    return sortedCuts(chosenNow ?? readMarks(profile, wish, []), setup.sizes)[0];
  };

  const measure = (m: PieceMeasures): void => {
    setByHand(undefined);
    record({ kind: 'piece', no, measures: m }, `measures of piece ${no}`);
  };
  const change = (next: PortionsSetup): void => {
    setByHand(undefined);
    setOption(0);
    setDraft(next);
  };
  /**
   * What was only assumed so far is written down before the first weight stands on it. A size that weighs something else from now on
   * is another size: what was cut before is not judged by it.
   */
  const settle = (): { readonly sizes: readonly PortionSize[]; readonly idNow: (id: string) => string } => {
    const ids = new Map<string, string>();
    for (const size of setup.sizes) {
      const before = saved?.sizes.find((s) => s.id === size.id);
      if (before === undefined || before.targetMg === size.targetMg || !weights.some((w) => w.line === size.id))
        continue;
      let n = 2;
      while ([...setup.sizes, ...(saved?.sizes ?? [])].some((s) => s.id === `${size.id}-${n}`)) n += 1;
      ids.set(size.id, `${size.id}-${n}`);
    }
    const idNow = (id: string): string => ids.get(id) ?? id;
    const settled = { ...setup, sizes: setup.sizes.map((s) => ({ ...s, id: idNow(s.id) })) };
    if (measured === undefined) record({ kind: 'piece', no, measures }, `measures of piece ${no}`);
    if (saved === undefined || (draft !== undefined && JSON.stringify(settled) !== JSON.stringify(saved)))
      record({ kind: 'setup', setup: settled }, 'sizes wanted');
    setDraft(undefined);
    return { sizes: settled.sizes, idNow };
  };
  const nameOf = (size: PortionSize): string => `${size.name} ${formatMass(size.targetMg)}`;

  const recordWeight = (massMg: number): string => {
    const before = weights.find((w) => w.id === right);
    const next = nextNow();
    const { sizes, idNow } = settle();
    if (before !== undefined) {
      const size = sizeOf(sizes, massMg) ?? sizes.find((s) => s.id === before.line);
      const { id: _id, at: _at, by: _by, ...same } = before;
      const line = before.line === 'end' || size === undefined ? before.line : size.id;
      record(
        {
          ...same,
          massMg,
          line,
          name: line === before.line || size === undefined ? before.name : nameOf(size),
          replaces: before.id,
        },
        `${before.name}, ${formatMass(massMg)}`,
      );
      setRight(undefined);
      return `${before.name}: ${formatMass(massMg)} now.`;
    }
    const place = { piece: no, count: 1, replaces: null, fromMm: next?.fromMm ?? null, toMm: next?.toMm ?? null };
    const size =
      next?.kind === 'portion' ? (sizeOf(sizes, massMg) ?? { ...next.size, id: idNow(next.size.id) }) : undefined;
    const predictedMg = next === undefined ? null : Math.max(0, Math.round(next.massMg));
    if (byHand !== undefined) setByHand(byHand.filter((mm) => mm > (next?.toMm ?? 0)));
    setSelected(0);
    if (size === undefined) {
      record(
        { kind: 'weigh', ...place, line: 'end', name: 'ends', destination: endTo, massMg, predictedMg },
        `ends, ${formatMass(massMg)}`,
      );
      const last = next === undefined || next.toMm >= measures.lengthMm - 0.5;
      return `Ends: ${formatMass(massMg)}.${last && no < cutting.pieces ? ` Lay piece ${no + 1} along the ruler.` : ''}`;
    }
    record(
      { kind: 'weigh', ...place, line: size.id, name: nameOf(size), destination: 'portion', massMg, predictedMg },
      `${nameOf(size)}, ${formatMass(massMg)}`,
    );
    const off = offSize({ line: size.id, massMg, count: 1 }, sizes);
    return off === undefined
      ? `${nameOf(size)}: ${formatMass(massMg)}. The other marks have moved to fit.`
      : `${formatMass(massMg)} is too ${off} for ${nameOf(size)}. ${off === 'heavy' ? 'Trim it and weigh it again, or leave it.' : 'Move it to another tray, or leave it.'}`;
  };
  const before = weights.find((w) => w.id === right);
  const taking = useTake(recordWeight, () => {
    const next = nextNow();
    return {
      leftMg: cutting.startMg - weights.reduce((sum, w) => sum + (w.id === right ? 0 : w.massMg), 0),
      mostMg:
        before !== undefined || next === undefined
          ? undefined
          : next.kind === 'portion'
            ? Math.max(...setup.sizes.map((s) => s.targetMg * (1 + s.toleranceShare)))
            : Math.max(next.massMg * 2, 20_000),
      what: next?.kind === 'portion' ? `a portion of ${formatMass(next.size.targetMg)}` : 'an end',
    };
  });

  const move = (index: number, mm: number): void => {
    const from = marks[index];
    if (from === undefined || locked.has(from)) return;
    const low = (marks[index - 1] ?? fromMm) + 1;
    const high = (marks[index + 1] ?? profile.lengthMm) - 1;
    setByHand(marks.map((m, i) => (i === index ? Math.min(high, Math.max(low, mm)) : m)));
  };
  return {
    no,
    setPiece: (n: number): void => {
      setChosen(n);
      setByHand(undefined);
      setLocked(new Set());
    },
    /** Goes with what was weighed last again. */
    follow: (): void => setChosen(undefined),
    chosen,
    setup,
    change,
    template,
    measures,
    measured: measured !== undefined,
    measure,
    profile,
    plan,
    options,
    option: byHand === undefined ? Math.min(option, Math.max(0, options.length - 1)) : undefined,
    setOption: (i: number): void => {
      setByHand(undefined);
      setOption(i);
    },
    faults: planned?.faults ?? [],
    /** The form does not fit what was measured and weighed; and one that does. */
    doubted,
    late,
    marks,
    move,
    byHand: byHand !== undefined,
    compute: (): void => setByHand(undefined),
    selected: Math.min(selected, Math.max(0, marks.length - 1)),
    setSelected,
    locked: new Set(locks),
    toggleLock: (mm: number | undefined): void => {
      if (mm === undefined) return;
      setLocked((before) => {
        const after = new Set(before);
        if (!after.delete(mm)) after.add(mm);
        return after;
      });
    },
    got,
    fromMm,
    next,
    finished,
    right: weights.find((w) => w.id === right),
    setRight,
    taking,
    learnt: learnt.data,
    /** Puts a weight on another tray, or counts it as another size. */
    put: (w: CutWeight, to: Destination | PortionSize): void => {
      const { id: _id, at: _at, by: _by, ...same } = w;
      const body =
        typeof to === 'string'
          ? { ...same, destination: to, replaces: w.id }
          : { ...same, line: to.id, name: nameOf(to), destination: 'portion' as const, replaces: w.id };
      record(body, `${body.name}, ${formatMass(w.massMg)}`);
      setRight(undefined);
      taking.setSays(typeof to === 'string' ? 'Moved.' : `Counted as ${nameOf(to)}.`);
    },
    back: (w: CutWeight | undefined): void => {
      if (w === undefined) return;
      record({ kind: 'back', eventId: w.id }, `${w.name}, ${formatMass(w.massMg)} taken back`);
      setRight(undefined);
      taking.forget();
      taking.setSays(`${w.name}, ${formatMass(w.massMg)}: taken back.`);
    },
  };
}
export type Portions = ReturnType<typeof usePortions>;
