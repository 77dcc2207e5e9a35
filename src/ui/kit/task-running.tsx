import { Button } from './button';
import type { TaskState } from './use-task';

interface RunningProps {
  readonly task: TaskState<unknown>;
  readonly asked: boolean;
  /** What asks for it, and what is said while it runs. */
  readonly ask: string;
  readonly doing: string;
  readonly onCancel: () => void;
  readonly onAsk: () => void;
}

/** How far something that takes long is, with what stops it; stopped, with what asks for it again. */
export function TaskRunning({ task, asked, ask, doing, onCancel, onAsk }: RunningProps) {
  if (!asked)
    return (
      <Button className="self-start" onClick={onAsk}>
        {ask}
      </Button>
    );
  if (task.failure) return <p role="alert">{task.failure}</p>;
  if (!task.busy) return null;
  return (
    <p className="no-print flex items-center gap-3" role="status">
      {doing}
      {task.progress === undefined ? '' : `: ${Math.round(100 * task.progress)} %`} …
      <Button onClick={onCancel}>Cancel</Button>
    </p>
  );
}
