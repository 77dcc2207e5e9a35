import type { JobRows } from '@/core/shell/job/job-rows';
import type { TaskOptions } from './pool';
import type { TaskInput, TaskName, TaskResult } from './tasks';

type Run = <Name extends TaskName>(
  task: Name,
  rows: JobRows,
  input: TaskInput<Name>,
  options: TaskOptions,
) => Promise<TaskResult<Name>>;

interface Asked {
  readonly rows: JobRows;
  /** The input as JSON. */
  readonly input: string;
  readonly control: AbortController;
  readonly answer: Promise<unknown>;
}

/**
 * Questions that a page is going to ask as soon as it is drawn with new rows, asked before it is, so that a worker is at them
 * while the page is drawn. Of each task the last one waits to be taken up.
 */
export class AskedAhead {
  private readonly last = new Map<TaskName, Asked>();

  constructor(private readonly run: Run) {}

  /** Asks; what was so asked before and nobody took up is given up. */
  ask<Name extends TaskName>(task: Name, rows: JobRows, input: TaskInput<Name>): void {
    this.last.get(task)?.control.abort();
    const control = new AbortController();
    const answer = this.run(task, rows, input, { signal: control.signal });
    // Whoever takes it up is told; nobody may.
    answer.catch(() => undefined);
    this.last.set(task, { rows, input: JSON.stringify(input), control, answer });
  }

  /** The answer to come, where the very question was asked; it is given up when the signal says so. */
  takeUp<Name extends TaskName>(
    task: Name,
    rows: JobRows,
    input: TaskInput<Name>,
    signal: AbortSignal,
  ): Promise<TaskResult<Name>> | undefined {
    const asked = this.last.get(task);
    if (asked?.rows !== rows || asked.input !== JSON.stringify(input)) return undefined;
    this.last.delete(task);
    signal.addEventListener('abort', () => asked.control.abort());
    return asked.answer as Promise<TaskResult<Name>>;
  }
}
