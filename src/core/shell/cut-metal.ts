import type { Job } from './job/job';

/** The points that leave with panels that are to be replaced, each with the panel's name. */
export const pointsThatGo = ({ rows }: Job): ReadonlyMap<string, string> => {
  const part = new Map(rows.panels.map(({ id, part: name }) => [id, name]));
  return new Map(
    rows.panelPoints.flatMap(({ panelId, pointId, fate }) =>
      fate === 'goes' ? [[pointId, part.get(panelId) ?? ''] as const] : [],
    ),
  );
};
