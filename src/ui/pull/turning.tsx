import { useState } from 'react';
import type { Vector } from '@/core/maths/geometry/vector';
import { parseLength } from '@/core/maths/units/length';
import { anchorFrom } from '@/core/plan/pulls/anchor';
import type { PullView } from '@/core/report/pages/pulling';
import { ANCHOR_WORD } from '@/core/report/pull-words';
import { typedUnit } from '@/formats/preferences';
import { Button } from '../kit/button';
import { Faults } from '../kit/faults';
import { TextField } from '../kit/field';
import { usePreferences } from '../shell/preferences-context';
import { TurnPanel } from './turn-panel';
import type { Turned } from './use-turning';

interface TurningProps {
  readonly turning: Turned;
  readonly view: PullView;
  readonly direction: Vector;
}

/** The direction and the anchor of the pull in hand, with what the model says of them; kept only when somebody says so. */
export function Turning({ turning, view, direction }: TurningProps) {
  const { pull } = view;
  if (pull.againstPointId) return null;
  const { chain } = turning;
  return (
    <section aria-label="Turn a pull" className="flex flex-col gap-2">
      <TurnPanel code={pull.code} direction={direction} onTurn={(next) => turning.turn(pull.id, next)} />
      {chain === null ? (
        <p className="text-sm text-soft">Say how long its chain is under “Correct”, and its anchor has a place too.</p>
      ) : (
        <AnchorFields
          // Typed anew from where it stands now, whenever a hand has moved it otherwise.
          key={anchorFrom({ direction, chain }).map(Math.round).join()}
          name={pull.anchor ? ANCHOR_WORD[pull.anchor] : 'anchor'}
          anchor={anchorFrom({ direction, chain })}
          onMove={(anchor) => turning.moveAnchor(pull.id, anchor)}
        />
      )}
      {turning.draft ? (
        <>
          <p role="status" className="text-sm text-soft">
            {turning.busy
              ? 'As far as all gives elastically; what yields is being reckoned …'
              : turning.exact?.tried
                ? 'Reckoned with what yields.'
                : 'No pull that way leaves the point moved: the metal there is held, or comes home whole.'}
          </p>
          <span className="flex gap-2">
            <Button look="main" disabled={turning.pending} onClick={turning.keep}>
              Keep this direction
            </Button>
            <Button onClick={turning.drop}>As it was</Button>
          </span>
        </>
      ) : (
        <p className="text-sm text-soft">
          Drag the block at the end of a pull, or turn it here; nothing is kept until you say so.
        </p>
      )}
      <Faults faults={turning.faults} />
    </section>
  );
}

const LABELS = ['Rearward', 'To the right', 'Up'] as const;

interface AnchorProps {
  readonly name: string;
  /** From the point, chart axes, mm. */
  readonly anchor: Vector;
  readonly onMove: (anchor: Vector) => void;
}

/** Where the anchor stands from the point: taken when a field is left. */
function AnchorFields({ name, anchor, onMove }: AnchorProps) {
  const { format, preferences } = usePreferences();
  const shown = anchor.map((value) => format.length(value));
  const [typed, type] = useState(shown);
  const read = typed.map((text) => parseLength(text, typedUnit(preferences)));
  const take = () => {
    if (typed.every((text, k) => text === shown[k])) return;
    const next = read.map((each, k) => (typed[k] === shown[k] ? anchor[k]! : each.ok ? each.mm : NaN));
    if (next.every(Number.isFinite)) onMove(next as unknown as Vector);
  };
  return (
    <fieldset className="grid grid-cols-3 gap-2 border-l-4 border-rule pl-3">
      <legend className="caps">
        The {name} from the point, {format.unit}
      </legend>
      {LABELS.map((label, k) => {
        const each = read[k]!;
        return (
          <TextField
            key={label}
            label={label}
            value={typed[k]!}
            {...(each.ok ? {} : { error: each.reason })}
            onChange={(event) => type(typed.map((text, i) => (i === k ? event.target.value : text)))}
            onBlur={take}
            onKeyDown={(event) => {
              if (event.key === 'Enter') take();
            }}
          />
        );
      })}
    </fieldset>
  );
}
