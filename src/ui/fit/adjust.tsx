import { useState } from 'react';
import { costOf, figuresAt } from '@/core/plan/panels/fewest-settings';
import { judgedAt, type HangPlan, type HangSetting } from '@/core/plan/panels/hang';
import { hangText, inOrder, instruction, wayWords } from '@/core/report/fitting-words';
import type { CalledPanel, Shim } from '@/core/shell/job/entities';
import { SeamRibbon } from '../gaps/seam-ribbon';
import { Button } from '../kit/button';
import { useFormat } from '../shell/preferences-context';
import { PanelFace } from './panel-face';

interface AdjustProps {
  readonly panel: CalledPanel;
  readonly plan: HangPlan;
  readonly shims: readonly Shim[];
}

/** Where a panel sits best, what to do for it, and each setting in one's own hand with its gaps following. */
export function Adjust({ panel, plan, shims }: AdjustProps) {
  const format = useFormat();
  const advised = plan.settings.map((each) => each.advised);
  const [values, setValues] = useState<readonly number[]>(advised);
  const figures = figuresAt(plan, values);
  const words = { length: (mm: number) => `${format.thin(mm)} ${format.unit}` };
  const steps = inOrder(plan.settings).flatMap((each) => instruction(each, each.advised, shims, words) ?? []);
  const set = (i: number, value: number) => setValues(values.map((each, k) => (k === i ? value : each)));
  const seams = judgedAt(plan, figures);
  return (
    <div className="grid gap-x-6 gap-y-4 lg:grid-cols-[3fr_2fr]">
      <div className="flex flex-col gap-2">
        <PanelFace {...{ panel, plan, figures, values }} />
        <p className="text-sm text-soft">
          Seen from outside. Away from the panel is wider. Dotted as wanted, thin as read, strong as set here.
        </p>
        <div className="grid gap-2 sm:grid-cols-2">
          {seams.map((seam) => (
            <SeamRibbon key={seam.seam.id} sides={[seam]} />
          ))}
        </div>
      </div>
      <div className="flex flex-col gap-3">
        <p data-hang={panel.code}>{hangText(plan)}</p>
        {steps.length > 0 ? (
          <ol className="list-inside list-decimal" aria-label="What to do">
            {steps.map((step) => (
              <li key={step}>{step}</li>
            ))}
          </ol>
        ) : null}
        <div className="flex flex-wrap gap-2">
          <Button look="quiet" onClick={() => setValues(advised)}>
            As advised
          </Button>
          <Button look="quiet" onClick={() => setValues(advised.map(() => 0))}>
            As it hangs
          </Button>
        </div>
        {plan.settings.map((setting, i) => (
          <Slider key={setting.id} {...{ setting }} value={values[i]!} onValue={(value) => set(i, value)} />
        ))}
        <p className="text-sm text-soft" data-cost={costOf(plan.stations, figures).toFixed(2)}>
          Gaps and flush together, over their limits and by how much they are seen: {plan.cost.before.toFixed(1)} as it
          hangs, {costOf(plan.stations, figures).toFixed(1)} as set here, {plan.cost.free.toFixed(1)} where no hinge
          held it back.
        </p>
      </div>
    </div>
  );
}

interface SliderProps {
  readonly setting: HangSetting;
  readonly value: number;
  readonly onValue: (value: number) => void;
}

/** One setting: from its least to its most, in its own steps. */
function Slider({ setting, value, onValue }: SliderProps) {
  const format = useFormat();
  const { name, least, most, step, values, along } = setting;
  const [up, down] = wayWords(setting);
  const said = along ? `${format.thin(Math.abs(value))} ${format.unit} ${value < 0 ? down : up}` : value.toFixed(2);
  const range = values
    ? { min: 0, max: values.length - 1, step: 1, value: nearestOf(values, value) }
    : { min: least, max: most, step: step ?? 0.1, value };
  return (
    <label className="flex flex-col gap-0.5">
      <span className="flex justify-between gap-3">
        <span>
          {name} <span className="text-sm text-soft">{along ? `${down} – ${up}` : 'as one trial was read'}</span>
        </span>
        <span className="num">{Math.abs(value) < 0.005 ? 'as it is' : said}</span>
      </span>
      <input
        type="range"
        className="min-h-11 w-full accent-ink"
        {...range}
        aria-valuetext={said}
        onChange={({ target }) => onValue(values ? values[Number(target.value)]! : Number(target.value))}
      />
    </label>
  );
}

const nearestOf = (values: readonly number[], value: number): number =>
  values.reduce((best, each, i) => (Math.abs(each - value) < Math.abs(values[best]! - value) ? i : best), 0);
