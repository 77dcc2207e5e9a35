import { CHOICE_WORD } from '@/core/report/cut-words';
import type { PanelView } from '@/core/report/pages/cutting';
import type { PlannedPanel } from '@/core/report/pages/cut';
import { useFormat } from '../shell/preferences-context';
import { PanelDialog, type PanelFormProps } from './panel-form';

interface CutPanelsProps extends Omit<PanelFormProps, 'known'> {
  readonly panels: readonly PlannedPanel[];
  /** All that is known of them, where it can be corrected here. */
  readonly views?: readonly PanelView[];
}

/** Panels that are to be replaced: what stands on them cannot carry the shell to the end. */
export function CutPanels({ panels, views, ...form }: CutPanelsProps) {
  const format = useFormat();
  return (
    <section aria-label="Metal to be cut" className="no-print flex flex-col gap-2">
      <div className="flex items-center gap-2">
        <h2 className="caps">Metal to be cut</h2>
        <PanelDialog {...form} />
      </div>
      <ul className="empty:hidden">
        {panels.map(({ id, part, codes }) => {
          const view = views?.find(({ panel }) => panel.id === id);
          return (
            <li key={id} className="border-b border-faint py-1" data-panel={part}>
              <strong>{format.name(part)}</strong>{' '}
              <span className="text-soft">{codes.join(', ') || 'no point goes with it'}</span>
              {view ? <PanelLine view={view} {...form} /> : null}
            </li>
          );
        })}
      </ul>
    </section>
  );
}

const counted = (count: number, one: string, more = `${one}s`) =>
  count === 0 ? '' : `${count} ${count === 1 ? one : more}`;

function PanelLine({ view, ...form }: Omit<CutPanelsProps, 'panels' | 'views'> & { readonly view: PanelView }) {
  const format = useFormat();
  const { panel, parts, joints, lines } = view;
  const said = [
    panel.choice ? CHOICE_WORD[panel.choice] : '',
    panel.joinedAt ? `joined ${panel.joinedAt}` : '',
    parts.length === 0
      ? 'no part of the structure goes with it'
      : counted(parts.length, 'part of the structure', 'parts of the structure'),
    counted(joints.length, 'joint'),
    counted(lines.length, 'cut line'),
    panel.hours === null ? '' : `${panel.hours} h`,
    panel.stressed ? 'stressed metal: it may spring' : '',
  ].filter(Boolean);
  return (
    <span className="flex flex-wrap items-center gap-2 text-sm text-soft">
      {format.name(said.join(', '))}
      {lines.map(({ label, distance, kerf, gap }) =>
        gap === null ? null : (
          <span key={label}>
            {label}: the piece that comes in reaches to {format.length(distance + gap)} {format.unit} of the same edge
            {kerf ? `, its saw line at ${format.length(distance + gap - kerf)} on the waste side` : ''}
          </span>
        ),
      )}
      <PanelDialog {...form} known={view} />
    </span>
  );
}
