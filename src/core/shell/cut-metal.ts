import type { Job } from './job/job';

/** The points that leave with panels that are to be replaced, each with the panel's name. */
export const pointsThatGo = (job: Job): ReadonlyMap<string, string> => {
  const part = new Map(job.panels.map(({ id, part: name }) => [id, name]));
  return new Map(
    job.rows.panelPoints.flatMap(({ panelId, pointId, fate }) =>
      fate === 'goes' && part.has(panelId) ? [[pointId, part.get(panelId) ?? ''] as const] : [],
    ),
  );
};
