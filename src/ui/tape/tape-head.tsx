import { Presentation, Volume2, VolumeX, type LucideIcon } from 'lucide-react';
import type { Round } from '@/core/shell/job/entities';
import type { JobRows } from '@/core/shell/job/job-rows';
import { Button } from '../kit/button';
import { useFormat } from '../shell/preferences-context';
import type { Speech } from './screen-helpers';
import { subjectText } from './tape';
import type { TapeLine } from './use-tape';

/** Above the tape: the last number, and what helps to hear, type and show it. */
export function TapeHead({
  rows,
  round,
  lastLine,
  speech,
}: {
  rows: JobRows;
  round: Round;
  lastLine?: TapeLine;
  speech: Speech;
}) {
  const board = () => window.open(`/board/${round.jobId}/${round.id}`, `board-${round.id}`);
  return (
    <div className="tape-head flex items-end justify-between gap-2 border-b border-rule">
      <LastHeard line={lastLine} rows={rows} />
      <div className="flex">
        {speech.can ? (
          <Tool name="Speak each number" icon={speech.on ? Volume2 : VolumeX} on={speech.on} onClick={speech.toggle} />
        ) : null}
        <Tool name="Board" title="Board, to read across the shop" icon={Presentation} onClick={board} />
      </div>
    </div>
  );
}

export function Tool({
  name,
  title = name,
  icon: Icon,
  on,
  onClick,
}: {
  name: string;
  title?: string;
  icon: LucideIcon;
  on?: boolean;
  onClick: () => void;
}) {
  return (
    <Button
      look="quiet"
      className="px-2"
      aria-pressed={on}
      title={title}
      onClick={onClick}
      // A tap does not take the keyboard from the field: the next number is typed straight on.
      onMouseDown={(event) => event.preventDefault()}
    >
      <Icon size={20} aria-hidden />
      <span className="sr-only">{name}</span>
    </Button>
  );
}

/** The last number, read back huge. */
function LastHeard({ line, rows }: { line?: TapeLine; rows: JobRows }) {
  const format = useFormat();
  return (
    <p className="flex flex-wrap items-baseline gap-x-3" data-last-heard>
      <span className="font-mono text-4xl font-semibold">
        {line ? line.readings.map((reading) => format.length(reading.value)).join('  ') : '–'}
      </span>
      <span className="text-sm text-soft">{line ? subjectText(rows, line.readings[0]!) : ''}</span>
    </p>
  );
}
