import { formatMass, PRACTICE_SCALE } from '@zabrik/core';
import { Button } from '../../kit/Button.tsx';
import { setBenchDevice, useBenchDevice } from './benchDevice.ts';
import type { BenchFlow } from './useBench.ts';
import type { BenchState } from './useBreakdown.ts';

interface Props {
  readonly flow: BenchFlow;
  readonly state: BenchState;
  readonly may: boolean;
}

/** Undo, pause, the running balance, and the end of the stage. */
export function BenchFoot({ flow, state, may }: Props) {
  const { breakdown, stage, counted, balance, broughtMg } = state;
  const device = useBenchDevice();
  const practised = counted.filter((w) => w.scale === PRACTICE_SCALE).length;
  const failure = flow.closing.error ?? flow.putBack.error;
  return (
    <footer className="flex items-center gap-3 max-md:flex-wrap border-t border-line bg-sheet px-4 py-2">
      <Button size="bench" hotkey="u" disabled={!may || counted.length === 0} onClick={flow.undo}>
        Undo last weight
      </Button>
      {practised === counted.length && counted.every((w) => !w.waiting) && may && (
        <Button size="bench" disabled={flow.putBack.pending} onClick={flow.putAnimalBack}>
          Put it back
        </Button>
      )}
      {may && (
        <Button size="bench" hotkey="h" onClick={flow.steps.pauseOrGoOn}>
          {flow.steps.paused ? 'Go on' : 'Pause'}
        </Button>
      )}
      {device.whenSteady && (
        <span className="text-[15px] leading-tight text-ink-soft">takes by itself when steady</span>
      )}
      {device.large && (
        <Button size="bench" hotkey="b" onClick={() => setBenchDevice({ large: false })}>
          Steps back
        </Button>
      )}
      <p className="ml-auto text-right leading-tight" data-testid="balance">
        Weighed <strong className="figure">{formatMass(balance.weighedMg)}</strong> of{' '}
        {formatMass(breakdown.startMg + broughtMg)}
        {broughtMg > 0 && `, ${formatMass(broughtMg)} of it joined`}
        <br />
        <span className={balance.verdict === 'gain' ? 'font-semibold text-alarm' : 'text-ink-soft'}>
          {balance.verdict === 'gain'
            ? `${formatMass(-balance.unaccountedMg)} too much`
            : `${formatMass(balance.unaccountedMg)} left, ${formatMass(balance.allowedMg)} may be ${stage.dripIs ?? 'drip'} and scale`}
        </span>
      </p>
      {failure !== null && <span className="max-w-80 text-alarm">{failure.message}</span>}
      <Button
        size="bench"
        variant={balance.verdict === 'balanced' && counted.length > 0 && practised === 0 ? 'strong' : 'plain'}
        hotkey="c"
        disabled={!may || flow.closing.pending || counted.length === 0}
        onClick={flow.closing.ask}
      >
        Close stage
      </Button>
    </footer>
  );
}
