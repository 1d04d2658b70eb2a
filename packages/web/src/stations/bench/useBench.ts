/** The flow of the bench: which piece is next, what a press of the one big button does, and how a weight is put right. */

import { type Destination, formatMass, shortName } from '@zabrik/core';
import { useEffect, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { useCommand } from '../../app/command.ts';
import { api } from '../../app/endpoints.ts';
import { ownScale } from '../../app/live.ts';
import { weightIn } from '../../kit/readers.ts';
import { trayName } from '../../parts/destinations.ts';
import { sayAloud, useBenchDevice } from './benchDevice.ts';
import { wantedOf } from './benchOrder.ts';
import { adviceWords, expectationOf } from './benchWords.ts';
import { panRefuses } from './panWords.ts';
import type { BenchState } from './useBreakdown.ts';
import { useChoice } from './useChoice.ts';
import { useClosing } from './useClosing.ts';
import { useOddWeight } from './useOddWeight.ts';
import { useRighting } from './useRighting.ts';
import { useSteps } from './useSteps.ts';

/** A load must have stood this long before it is taken by itself. */
const STEADY_MS = 1_000;
/** Less than this on the pan is a crumb, not a piece. */
const CRUMB_MG = 4_000;

export type Typing =
  | { readonly for: 'weight'; readonly text: string }
  | { readonly for: 'split'; readonly text: string };

export function useBench(state: BenchState, may: boolean) {
  const { breakdown, counted, expected } = state;
  const device = useBenchDevice();
  const navigate = useNavigate();
  const [says, setSays] = useState('');
  const [typing, setTyping] = useState<Typing | undefined>(undefined);
  const choice = useChoice(state, setSays);
  const { right, piece, count, name, order, taken, reading, wasTaken } = choice;
  const steps = useSteps(state, choice, setSays);
  const righting = useRighting(state, choice, setSays);
  const closing = useClosing(state, steps.missingPasses.length > 0, setSays);
  const odd = useOddWeight();
  const putBack = useCommand(api.bench.cancel, { onDone: () => void navigate('/bench') });
  const scaleCommand = useCommand(api.bench.scaleCommand, { onFailed: (error) => setSays(error.message) });

  const expectation = expected.get(piece.id);
  const expectedNow =
    right === undefined && expectation !== undefined && piece.accumulates !== true && count > 0
      ? expectationOf(expectation, count)
      : undefined;
  const typedMg = typing === undefined ? undefined : weightIn(typing.text);

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

  const record = (
    massMg: number,
    source: 'scale' | 'typed',
    to: Destination = choice.suggested,
    scale = source === 'scale' ? reading.scale : null,
  ): void => {
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
        animal: choice.animal,
        scale,
        replaces: right?.id ?? null,
      },
      `${name}, ${saidMass}`,
    );
    setTyping(undefined);
    steps.forgetSkipped();
    choice.tookOne();
  };

  const take = (): void => {
    if (typing !== undefined) return;
    const refuses = panRefuses(reading, wasTaken);
    if (reading.state === 'away') setTyping({ for: 'weight', text: '' });
    if (refuses !== undefined) setSays(refuses);
    else if (choice.complete)
      setSays('Every piece of this plan is weighed. Pick the piece this belongs to, or close the stage.');
    else if (mayCount(reading.netMg, 'scale')) {
      choice.tookFromPan();
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
    !choice.complete &&
    right === undefined &&
    typing === undefined &&
    steps.guard === undefined &&
    odd.asked === undefined &&
    !steps.paused;
  /** The rest of the pan that is waiting to be taken; each new one begins the second anew. */
  const resting = ready ? reading.settled : undefined;
  useEffect(() => {
    if (resting === undefined) return undefined;
    const timer = setTimeout(() => hands.current(), STEADY_MS);
    return () => clearTimeout(timer);
  }, [resting]);

  const split = (to: Destination, partMg: number): void => {
    if (!righting.split(to, partMg)) return;
    setTyping(undefined);
    choice.setTray(undefined);
    choice.correct(undefined);
  };

  const toTray = (id: Destination): void => {
    const refusal = choice.refusalOf(id);
    if (refusal !== undefined) setSays(`Not to ${trayName(id).toLowerCase()}: ${refusal}.`);
    else if (right !== undefined && typing?.for === 'split') {
      if (typedMg === undefined) {
        choice.setTray(id);
        setSays(`How much of it goes to ${trayName(id).toLowerCase()}?`);
      } else split(id, typedMg);
    } else if (right !== undefined) {
      if (id !== right.destination) record(right.massMg, right.source ?? 'typed', id, right.scale);
    } else {
      choice.setTray(id);
      setSays(`${name} goes to ${trayName(id).toLowerCase()}.`);
    }
  };
  return {
    ...choice,
    trayChosen: choice.tray !== undefined,
    steps,
    closing,
    expectedNow,
    expectation,
    advice:
      reading.state === 'steady' && !wasTaken && reading.netMg > 0 && right === undefined && !choice.complete
        ? adviceWords(reading.netMg, state, piece, count)
        : undefined,
    typing,
    typedMg,
    setTyping,
    says,
    setSays,
    /** What is asked before it counts, in words. */
    asked: odd.asked,
    putBack,
    putAnimalBack: (): void => putBack.send({ params: { breakdownId: breakdown.id }, body: {} }),
    tellScale: (command: 'tare' | 'untare' | 'zero'): void => {
      const own = ownScale(reading.scale);
      if (own === undefined) scaleCommand.send({ body: { command, scale: reading.scale } });
      else setSays(own.tell(command) ?? '');
    },
    take,
    takeTyped: (): void => {
      if (typedMg === undefined) return;
      if (typing?.for === 'split') split(choice.tray ?? piece.destination, typedMg);
      else if (mayCount(typedMg, 'typed')) record(typedMg, 'typed');
    },
    toTray,
    mergeInto: righting.mergeInto,
    merge: righting.merge,
    takeBack: (w: Parameters<typeof righting.takeBack>[0]): void => {
      righting.takeBack(w);
      odd.forget();
    },
    undo: (): void => {
      righting.undo();
      odd.forget();
    },
    /** Picks the next piece to weigh; while a weight is being put right, says that it was this piece. */
    pick: (id: string): void => {
      if (!righting.wasPiece(id)) choice.turnTo(id);
    },
    correct: (id: string | undefined): void => {
      choice.correct(id);
      setTyping(undefined);
      choice.setTray(undefined);
    },
    /** Passes that were made and not counted one by one are counted now, and a stage that holds is closed. */
    passesMade: (): void => {
      for (const { index, done, wanted } of steps.missingPasses)
        for (let n = done; n < wanted; n += 1) void state.happen({ kind: 'pass', step: index }, 'a pass counted');
      closing.closeIfHolds();
    },
    openNames: order
      .filter((p) => p.occasional !== true && (taken.get(p.id) ?? 0) < wantedOf(p, breakdown.animals))
      .map((p) => shortName(p.name)),
  };
}

export type BenchFlow = ReturnType<typeof useBench>;
