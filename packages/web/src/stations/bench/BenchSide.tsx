import { lazy, Suspense, useEffect } from 'react';
import { Loading } from '../../kit/Notice.tsx';
import { TabList, TabPanel, Tabs } from '../../kit/Tabs.tsx';
import { BodyMap } from '../../parts/BodyMap.tsx';
import { Steps } from './Steps.tsx';
import type { BenchFlow } from './useBench.ts';
import type { BenchState } from './useBreakdown.ts';
import { Weights } from './Weights.tsx';

// what is not needed to weigh comes after the bench stands, and is there when the network is not
const tools = () => import('./Tools.tsx').then((m) => ({ default: m.Tools }));
const Tools = lazy(tools);

export type SideTab = 'steps' | 'weights' | 'tools';

interface Props {
  readonly flow: BenchFlow;
  readonly state: BenchState;
  readonly may: boolean;
  readonly tab: SideTab;
  readonly onTab: (tab: SideTab) => void;
  readonly onWipe: () => void;
}

/** The left column: steps with the drawing, the weights taken, or tools. */
export function BenchSide({ flow, state, may, tab, onTab, onWipe }: Props) {
  const { breakdown, stage, counted } = state;
  const { piece, right } = flow;
  useEffect(() => {
    const soon = setTimeout(() => void tools().catch(() => undefined), 1_500);
    return () => clearTimeout(soon);
  }, []);
  const lit = new Set(counted.map((w) => w.piece.id));
  const known = new Set(stage.pieces.map((p) => p.id));
  return (
    <Tabs
      value={tab}
      onValueChange={(next) => onTab(next === 'weights' || next === 'tools' ? next : 'steps')}
      className="flex min-h-0 flex-col border-r border-line bg-sheet-soft max-md:hidden"
    >
      <TabList
        column
        label="Steps, weights or tools"
        tabs={[
          {
            value: 'steps',
            name: `Steps, ${Math.min(flow.steps.at + 1, stage.steps.length)} of ${stage.steps.length}`,
          },
          { value: 'weights', name: `Weights, ${counted.length}`, hotkey: 'w' },
          { value: 'tools', name: 'Tools', hotkey: 'o' },
        ]}
      />
      <TabPanel value="steps" tabIndex={-1} className="flex min-h-0 flex-1 flex-col">
        <div className="min-h-0 flex-1 overflow-y-auto">
          <Steps
            stage={stage}
            animalMg={breakdown.startMg / breakdown.animals}
            ownTimes={breakdown.ownTimes}
            at={flow.steps.at}
            onGo={flow.steps.goTo}
            marks={flow.steps.marks}
            onMark={may ? flow.steps.markStep : undefined}
            passes={flow.steps.passes}
            onPass={may ? flow.steps.countPass : undefined}
            timers={flow.steps.timers}
            onTimer={may ? flow.steps.setTimer : undefined}
            onTimerOff={may ? flow.steps.stopTimer : undefined}
          />
        </div>
        <BodyMap
          body={stage.body ?? breakdown.plan.body}
          lit={lit}
          known={known}
          current={piece.id}
          onPick={flow.pick}
          className="mx-auto block h-[124px] shrink-0 border-t border-line py-1.5"
        />
      </TabPanel>
      <TabPanel value="weights" tabIndex={-1} className="min-h-0 flex-1 overflow-y-auto">
        <Weights state={state} selected={right?.id} onSelect={may ? flow.correct : () => undefined} />
      </TabPanel>
      <TabPanel value="tools" tabIndex={-1} className="min-h-0 flex-1 overflow-y-auto">
        <Suspense fallback={<Loading />}>
          <Tools flow={flow} state={state} may={may} onWipe={onWipe} />
        </Suspense>
      </TabPanel>
    </Tabs>
  );
}
