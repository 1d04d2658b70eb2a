/** The flow of the bench: which piece is next, what a press of the one big button does, and how a weight is put right. */

import {
  type Destination,
  formatMass,
  type Guarded,
  guardsBefore,
  type PlanPiece,
  parseMass,
  shortName,
} from '@zabrik/core';
import { useEffect, useMemo, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { v7 as uuidv7 } from 'uuid';
import { useCommand } from '../../app/command.ts';
import { api } from '../../app/endpoints.ts';
import { useScaleAtRest } from '../../app/live.ts';
import { trayName, trays } from '../../parts/destinations.ts';
import { sayAloud, useBenchDevice } from './benchDevice.ts';
import { animalFor, animalNow, countNow, nextOpen, piecesInOrder, stepAt, takenOf, wantedOf } from './benchOrder.ts';
import { adviceWords, expectationOf, unitName } from './benchWords.ts';
import { panRefuses } from './panWords.ts';
import type { BenchState, Counted } from './useBreakdown.ts';
import { useClosing } from './useClosing.ts';
import { useMarks } from './useMarks.ts';
import { useOddWeight } from './useOddWeight.ts';

/** A load must have stood this long before it is taken by itself. */
const STEADY_MS = 1_000;
/** Less than this on the pan is a crumb, not a piece. */
const CRUMB_MG = 4_000;

export type Typing =
  | { readonly for: 'weight'; readonly text: string }
  | { readonly for: 'split'; readonly text: string };

export function useBench(state: BenchState, may: boolean) {
  const { breakdown, stage, counted, expected } = state;
  const { animals, way } = breakdown;
  const { marks, timers, paused, passes, missingPasses, trayNotes, minutes, workedBetween } = useMarks(state);
  const device = useBenchDevice();
  const reading = useScaleAtRest();
  const navigate = useNavigate();
  const [picked, setPicked] = useState<string | undefined>(undefined);
  const [tray, setTray] = useState<Destination | undefined>(undefined);
  const [correcting, setCorrecting] = useState<string | undefined>(undefined);
  const [typing, setTyping] = useState<Typing | undefined>(undefined);
  const [wantedCount, setWantedCount] = useState<number | undefined>(undefined);
  const [nextAnimal, setNextAnimal] = useState(1);
  /** A step somebody went to, and how many weights stood then: one that is behind is looked at until the next weight. */
  const [goneTo, setGoneTo] = useState<{ readonly step: number; readonly weights: number }>();
  const [takenAt, setTakenAt] = useState<number | undefined>(undefined);
  const [says, setSays] = useState('');
  const closing = useClosing(state, missingPasses.length > 0, setSays);
  /** The step just skipped: a note to it may follow until the next weight. */
  const [skipped, setSkipped] = useState<Guarded | undefined>(undefined);

  const order = useMemo(() => piecesInOrder(stage), [stage]);
  const taken = useMemo(() => takenOf(counted), [counted]);
  const weighedIds = useMemo(() => new Set(counted.map((w) => w.piece.id)), [counted]);
  const right: Counted | undefined = counted.find((w) => w.id === correcting);
  const turn = way === 'by-animal' ? (right?.animal ?? Math.max(nextAnimal, animalNow(order, counted, animals))) : null;
  const pickedByHand = order.find((p) => p.id === picked);
  // a third fillet is not the first fish's: a piece picked by hand comes from the next animal that lacks it
  const animal =
    turn === null || right !== undefined || pickedByHand === undefined
      ? turn
      : animalFor(pickedByHand, turn, counted, animals);
  const takenHere = animal === null ? taken : takenOf(counted.filter((w) => w.animal === animal));
  const animalsHere = animal === null ? animals : 1;
  const piece = right?.piece ?? pickedByHand ?? nextOpen(order, takenHere, undefined, animalsHere) ?? order.at(-1);
  if (piece === undefined) throw new Error(`plan ${breakdown.planId} has no pieces`);

  const come = stepAt(stage, taken, animals);
  const at = goneTo !== undefined && (goneTo.step > come || goneTo.weights === counted.length) ? goneTo.step : come;
  const unit = right?.unit ?? taken.get(piece.id) ?? 0;
  const usualCount = countNow(piece, way, animal === null ? animals : 1, takenHere.get(piece.id) ?? 0);
  const count = right?.count ?? wantedCount ?? usualCount;
  const complete = right === undefined && nextOpen(order, taken, undefined, animals) === undefined;
  // a piece picked by hand may go on growing: more meat, one more leg than the plan knows
  const beyond = complete && picked === undefined;
  const suggested = right?.destination ?? tray ?? piece.destination;
  const refusalOf = (id: Destination): string | undefined => piece.refused.find((r) => r.destination === id)?.reason;
  const wasTaken = takenAt === reading.settled && reading.state === 'steady';
  const expectation = expected.get(piece.id);
  const expectedNow =
    right === undefined && expectation !== undefined && piece.accumulates !== true && count > 0
      ? expectationOf(expectation, count)
      : undefined;
  const guards: readonly Guarded[] = right === undefined ? guardsBefore(stage, piece.id, marks, weighedIds) : [];
  const guard = guards[0];
  const putBack = useCommand(api.bench.cancel, { onDone: () => void navigate('/bench') });
  const scaleCommand = useCommand(api.bench.scaleCommand, { onFailed: (error) => setSays(error.message) });

  const nameOf = (p: PlanPiece, u: number, n: number): string => unitName(p, u, n, animals, animal);
  const name = nameOf(piece, unit, count);

  const odd = useOddWeight();
  /** Asks about a weight far from anything expected; answers whether it may be counted now. */
  const mayCount = (massMg: number, source: 'scale' | 'typed'): boolean => {
    const leftMg =
      breakdown.startMg + state.broughtMg - counted.reduce((sum, w) => sum + (w.id === right?.id ? 0 : w.massMg), 0);
    const words = odd.asks(massMg, source, { leftMg, mostMg: expectedNow?.high95Mg, what: name });
    if (words === undefined) return true;
    setSays(words);
    if (device.aloud) sayAloud(words);
    return false;
  };

  const record = (massMg: number, source: 'scale' | 'typed', to: Destination = suggested): void => {
    odd.took(massMg, source);
    const saidMass = formatMass(massMg);
    const advice = right === undefined ? adviceWords(massMg, state, piece, count) : undefined;
    const said = `${name}: ${saidMass} to ${trayName(to).toLowerCase()}.`;
    setSays(`${said}${advice === undefined ? '' : ` ${advice}`}`);
    if (device.aloud) sayAloud(`${name}, ${saidMass}. ${advice ?? ''}`);
    void state.takeNew(
      {
        pieceId: piece.id,
        destination: to,
        massMg,
        source,
        count,
        animal,
        scale: source === 'scale' ? reading.scale : null,
        replaces: right?.id ?? null,
      },
      `${name}, ${saidMass}`,
    );
    setTyping(undefined);
    setTray(undefined);
    setCorrecting(undefined);
    setWantedCount(undefined);
    setSkipped(undefined);
    if (right !== undefined) return;
    if (piece.accumulates === true) {
      setPicked(piece.id); // goes on until the cook picks another
      return;
    }
    const after = new Map(takenHere).set(piece.id, (takenHere.get(piece.id) ?? 0) + count);
    setPicked(nextOpen(order, after, piece.id, animalsHere)?.id);
  };

  const take = (): void => {
    if (typing !== undefined) return;
    const refuses = panRefuses(reading, wasTaken);
    if (reading.state === 'away') setTyping({ for: 'weight', text: '' });
    if (refuses !== undefined) setSays(refuses);
    else if (beyond)
      setSays('Every piece of this plan is weighed. Pick the piece this belongs to, or close the stage.');
    else {
      if (!mayCount(reading.netMg, 'scale')) return;
      setTakenAt(reading.settled);
      record(reading.netMg, 'scale');
    }
  };

  // take by itself: only what is new on the pan, no crumb, nothing being put right or typed, no warning unanswered
  const hands = useRef(take);
  hands.current = take;
  const ready =
    may &&
    device.whenSteady &&
    reading.state === 'steady' &&
    reading.netMg >= CRUMB_MG &&
    !wasTaken &&
    !beyond &&
    right === undefined &&
    typing === undefined &&
    guard === undefined &&
    odd.asked === undefined &&
    !paused;
  /** The rest of the pan that is waiting to be taken; each new one begins the second anew. */
  const resting = ready ? reading.settled : undefined;
  useEffect(() => {
    if (resting === undefined) return undefined;
    const timer = setTimeout(() => hands.current(), STEADY_MS);
    return () => clearTimeout(timer);
  }, [resting]);

  const typedMg = ((): number | undefined => {
    try {
      const mg = typing === undefined ? undefined : parseMass(typing.text);
      return mg !== undefined && mg > 0 ? mg : undefined;
    } catch {
      return undefined;
    }
  })();

  /** Parts a weight in two: what is typed goes to the chosen tray, the rest stays where it was. Both are written or neither. */
  const split = async (to: Destination, partMg: number): Promise<void> => {
    if (right === undefined || right.destination === null) return;
    if (partMg >= right.massMg) {
      setSays(`A part of ${formatMass(right.massMg)} is less than all of it.`);
      return;
    }
    const common = {
      pieceId: right.piece.id,
      source: right.source ?? 'typed',
      animal: right.animal,
      scale: right.scale,
    } as const;
    setSays(`${formatMass(partMg)} of it to ${trayName(to).toLowerCase()}.`);
    setTyping(undefined);
    setTray(undefined);
    setCorrecting(undefined);
    await state.takeNew(
      {
        ...common,
        destination: right.destination,
        massMg: right.massMg - partMg,
        count: right.count,
        replaces: right.id,
        also: { kind: 'take', id: uuidv7(), destination: to, massMg: partMg, count: 0 },
      },
      `${right.piece.name}, ${formatMass(partMg)} split off, ${formatMass(right.massMg - partMg)} stay`,
    );
  };

  /** The weight of the same piece that another one can be joined to. */
  const mergeInto =
    right === undefined
      ? undefined
      : counted.find((w) => w.id !== right.id && w.piece.id === right.piece.id && w.destination === right.destination);
  const merge = async (): Promise<void> => {
    if (right === undefined || mergeInto === undefined || mergeInto.destination === null) return;
    setCorrecting(undefined);
    const sum = right.massMg + mergeInto.massMg;
    setSays(`${right.piece.name}: two weights are one of ${formatMass(sum)}.`);
    await state.takeNew(
      {
        pieceId: right.piece.id,
        destination: mergeInto.destination,
        massMg: sum,
        source: mergeInto.source ?? 'typed',
        count: right.count + mergeInto.count,
        animal: mergeInto.animal,
        scale: mergeInto.scale,
        replaces: mergeInto.id,
        also: { kind: 'undo', id: uuidv7(), replaces: right.id },
      },
      `${right.piece.name}, joined, ${formatMass(sum)}`,
    );
  };

  const takeTyped = (): void => {
    if (typedMg === undefined) return;
    if (typing?.for === 'split') void split(tray ?? piece.destination, typedMg);
    else if (mayCount(typedMg, 'typed')) record(typedMg, 'typed');
  };

  const toTray = (id: Destination): void => {
    const refusal = refusalOf(id);
    if (refusal !== undefined) setSays(`Not to ${trayName(id).toLowerCase()}: ${refusal}.`);
    else if (right !== undefined && typing?.for === 'split') {
      if (typedMg === undefined) {
        setTray(id);
        setSays(`How much of it goes to ${trayName(id).toLowerCase()}?`);
      } else void split(id, typedMg);
    } else if (right !== undefined) {
      if (id !== right.destination) record(right.massMg, right.source ?? 'typed', id);
    } else {
      setTray(id);
      setSays(`${name} goes to ${trayName(id).toLowerCase()}.`);
    }
  };

  /** Picks the next piece to weigh; while a weight is being put right, says that it was this piece. */
  const pick = (id: string): void => {
    const chosen = order.find((p) => p.id === id);
    if (right !== undefined && chosen !== undefined && chosen.id !== right.piece.id) {
      setSays(`It was ${chosen.name}, ${formatMass(right.massMg)}.`);
      setCorrecting(undefined);
      void state.takeNew(
        {
          pieceId: chosen.id,
          destination: chosen.destination,
          massMg: right.massMg,
          source: right.source ?? 'typed',
          count: right.count,
          animal: right.animal,
          scale: right.scale,
          replaces: right.id,
        },
        `${chosen.name}, ${formatMass(right.massMg)}`,
      );
      return;
    }
    setCorrecting(undefined);
    setTray(undefined);
    setWantedCount(undefined);
    setPicked(id);
  };

  const takeBack = (w: Counted | undefined): void => {
    if (w === undefined) {
      setSays('There is nothing to undo.');
      return;
    }
    void state.takeBack(w.id, `${w.piece.name}, ${formatMass(w.massMg)}, taken back`);
    setSays(`${w.piece.name}, ${formatMass(w.massMg)}: taken back.`);
    setCorrecting(undefined);
    setPicked(w.piece.id);
    setTakenAt(undefined);
    odd.forget();
  };

  /** Undoes the last thing done with a weight: one put right stands again as it was, one taken is taken back. */
  const undo = (): void => {
    const w = right ?? counted.at(-1);
    const before = w === undefined ? undefined : state.beforeRight(w.id);
    if (w === undefined || before === undefined) {
      takeBack(w);
      return;
    }
    setCorrecting(undefined);
    setTakenAt(undefined);
    odd.forget();
    setSays(`${before.piece.name}: ${formatMass(before.massMg)} again.`);
    void state.takeNew(
      {
        pieceId: before.piece.id,
        destination: before.destination ?? before.piece.destination,
        massMg: before.massMg,
        source: before.source ?? 'typed',
        count: before.count,
        animal: before.animal,
        scale: before.scale,
        replaces: w.id,
      },
      `${before.piece.name}, ${formatMass(before.massMg)} again`,
    );
  };

  const answerGuard = (mark: 'done' | 'skipped', note: string | null): void => {
    if (guard === undefined) return;
    if (mark === 'skipped') setSkipped(guard); // the note to it may come once every warning is answered
    setSays(mark === 'done' ? `${guard.step.title}: done.` : `${guard.step.title}: skipped.`);
    void state.happen(
      { kind: 'step', step: guard.index, mark, note },
      `${guard.step.title}, ${mark === 'done' ? 'done' : 'skipped'}`,
    );
  };

  /** Marks a step by hand: done, also when it was skipped before, or open again. */
  const markStep = (step: number, mark: 'done' | 'late' | 'open'): void => {
    const title = stage.steps[step]?.title ?? '';
    setSays(mark === 'open' ? `${title}: open again.` : `${title}: ${mark === 'late' ? 'done late' : 'done'}.`);
    void state.happen({ kind: 'step', step, mark, note: null }, `${title}, ${mark}`);
  };

  const noteSkipped = (note: string): void => {
    if (skipped === undefined || note === '') return;
    void state.happen({ kind: 'step', step: skipped.index, mark: 'skipped', note }, `${skipped.step.title}, why`);
    setSays(`${skipped.step.title}: ${note}`);
    setSkipped(undefined);
  };

  const pauseOrGoOn = (): void => {
    setSays(paused ? 'On again.' : 'Paused. The clock stands.');
    void state.happen({ kind: paused ? 'resume' : 'pause' }, paused ? 'on again' : 'paused');
  };

  return {
    order,
    taken,
    right,
    piece,
    unit,
    count,
    usualCount,
    animal,
    name,
    at,
    complete: beyond,
    suggested,
    trayChosen: tray !== undefined,
    refusalOf,
    wasTaken,
    takenAt,
    expectedNow,
    expectation,
    guard,
    guardsLeft: guards.length,
    skipped,
    noteSkipped,
    advice:
      reading.state === 'steady' && !wasTaken && reading.netMg > 0 && right === undefined && !beyond
        ? adviceWords(reading.netMg, state, piece, count)
        : undefined,
    reading,
    paused,
    minutes,
    workedBetween,
    passes,
    missingPasses,
    trayNotes,
    typing,
    typedMg,
    setTyping,
    says,
    setSays,
    /** What is asked before it counts, in words. */
    asked: odd.asked,
    closing,
    putBack,
    putAnimalBack: (): void => putBack.send({ params: { breakdownId: breakdown.id }, body: {} }),
    tellScale: (command: 'tare' | 'untare' | 'zero'): void =>
      scaleCommand.send({ body: { command, scale: reading.scale } }),
    take,
    takeTyped,
    toTray,
    pick,
    takeBack,
    undo,
    mergeInto,
    merge,
    correct: (id: string | undefined): void => {
      setCorrecting(id);
      setTyping(undefined);
      setTray(undefined);
    },
    /** On to the next animal, whatever this one did not have. */
    toNextAnimal: (): void => {
      if (animal === null || animal >= animals) return;
      setNextAnimal(animal + 1);
      setPicked(undefined);
      setSays(`No. ${animal + 1} of ${animals}.`);
    },
    setCount: (n: number): void => setWantedCount(Math.max(usualCount === 0 ? 0 : 1, n)),
    goTo: (i: number): void =>
      setGoneTo({ step: Math.min(stage.steps.length - 1, Math.max(0, i)), weights: counted.length }),
    step: (by: number): void => {
      const i = order.findIndex((p) => p.id === piece.id);
      pickNext(order[(i + by + order.length) % order.length]?.id);
    },
    answerGuard,
    marks,
    markStep,
    timers,
    setTimer: (step: number, dueAt: string, replaces?: string): void => {
      const label = (stage.steps[step]?.title ?? '').slice(0, 120);
      const moved = replaces !== undefined;
      void state.happen(
        { kind: 'timer', step, label, dueAt, ...(moved ? { replaces } : {}) },
        `timer${moved ? ' moved' : ''}, ${label}`,
      );
      setSays(moved ? `Timer moved: ${label}.` : `Timer: ${label}.`);
    },
    stopTimer: (timerId: string): void => {
      void state.happen({ kind: 'timer-off', timerId }, 'timer stopped');
      setSays('Timer stopped.');
    },
    pauseOrGoOn,
    countPass: (step: number): void => {
      void state.happen({ kind: 'pass', step }, 'a pass counted');
      setSays(`Pass ${(passes.get(step) ?? 0) + 1} counted.`);
    },
    /** Passes that were made and not counted one by one are counted now, and a stage that holds is closed. */
    passesMade: (): void => {
      for (const { index, done, wanted } of missingPasses)
        for (let n = done; n < wanted; n += 1) void state.happen({ kind: 'pass', step: index }, 'a pass counted');
      closing.closeIfHolds();
    },
    openNames: order
      .filter((p) => p.occasional !== true && (taken.get(p.id) ?? 0) < wantedOf(p, animals))
      .map((p) => shortName(p.name)),
    trays,
  };

  function pickNext(id: string | undefined): void {
    setCorrecting(undefined);
    setTray(undefined);
    setWantedCount(undefined);
    setPicked(id);
  }
}

export type BenchFlow = ReturnType<typeof useBench>;
