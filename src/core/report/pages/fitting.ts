import { packBody, type PackPlan } from '../../plan/panels/body-packers';
import { openingByPoints, type OpeningByPoints } from '../../plan/panels/opening-points';
import { hidden, type Hidden } from '../../plan/panels/hidden';
import { hangPanel, stationsAlong, type HangResult } from '../../plan/panels/hang';
import { closeOut, heldPanels, type HeldPanel } from '../../plan/panels/holding';
import { judgedChecks, type JudgedCheck } from '../../plan/panels/fit-checks';
import { spotIndex, trimAdvice, type SpotIndex, type TrimAdvice } from '../../plan/panels/trims';
import { fittingOrder, type Before, type FittingOrder } from '../../plan/panels/fitting-order';
import { edgesOf } from '../../plan/panels/panel-frame';
import { panelOrOpening, type Separation } from '../../plan/panels/panel-or-opening';
import { seamsAsLastRead } from '../../round/judge/last-read';
import { SIGHT_WEIGHT } from '../../round/judge/sight';
import type { SeamJudgement } from '../../round/judge/seams';
import type {
  CalledPanel,
  Fixing,
  HungPanel,
  Joint,
  OpeningCorner,
  PanelEdge,
  PanelMeasure,
  PanelSeam,
  PanelSetting,
  Trim,
} from '../../shell/job/entities';
import type { Job } from '../../shell/job/job';
import { stationKey } from '../../shell/references/chosen';

/** One panel on its place: how it hangs, where it would sit best, and whose fault is left. */
export interface HungView {
  readonly panel: CalledPanel;
  readonly itemVersion: number;
  readonly edges: readonly PanelEdge[];
  readonly seams: readonly (PanelSeam & { readonly code: string })[];
  readonly settings: readonly PanelSetting[];
  readonly measures: readonly PanelMeasure[];
  readonly hang: HangResult;
  readonly separation?: Separation;
  readonly byPoints?: OpeningByPoints;
  readonly corners: readonly OpeningCorner[];
  readonly trims: readonly (Trim & { readonly advice: TrimAdvice })[];
  readonly spots?: SpotIndex;
  /** The opening is wrong and its gaps look right, or would. */
  readonly hidden?: Hidden;
}

/** What the place for fitting shows of panels. */
export interface FittingPage {
  readonly panels: readonly HungView[];
  readonly held: readonly HeldPanel[];
  readonly checks: readonly JudgedCheck[];
  readonly packed?: PackPlan;
  readonly points: readonly { readonly id: string; readonly code: string }[];
  /** Joints of the cut plan, which a joint of a panel may be. */
  readonly joints: readonly (Pick<Joint, 'id' | 'beside'> & { readonly code: string; readonly panel: string })[];
  readonly closeOut: readonly { readonly panel: string; readonly fixing: Fixing }[];
  readonly order?: FittingOrder;
  readonly seams: readonly { readonly id: string; readonly code: string; readonly name: string }[];
}

/** How far a length of a panel or of an opening may be off, mm. */
const SHAPE_LIMIT = 1;

export function fittingPage(job: Job): FittingPage {
  const { seams } = seamsAsLastRead(job);
  const order = job.hungPanels.length > 1 ? orderOf(job, seams) : undefined;
  const packed = packBody(job, seams);
  const place = ({ id }: CalledPanel) => (order?.steps.findIndex((step) => step.id === id) ?? -1) + 1 || Infinity;
  return {
    panels: job.hungPanels.toSorted((a, b) => place(a) - place(b) || 0).map((panel) => hungView(job, panel, seams)),
    held: heldPanels(job),
    checks: judgedChecks(job),
    ...(packed ? { packed } : {}),
    points: job.rows.points.map(({ id, code }) => ({ id, code })),
    joints: job.rows.joints.map(({ id, beside, panelId }) => ({
      ...{ id, beside, code: job.item(id).code },
      panel: job.item(panelId).name,
    })),
    closeOut: closeOut(job),
    ...(order ? { order } : {}),
    seams: job.seams.map(({ id, code, name }) => ({ id, code, name })),
  };
}

function hungView(job: Job, panel: CalledPanel, seams: readonly SeamJudgement[]): HungView {
  const ownOf = <Row extends { readonly hungId: string }>(rows: readonly Row[]) =>
    rows.filter(({ hungId }) => hungId === panel.id);
  const own = ownOf(job.rows.panelSeams);
  const measures = ownOf(job.rows.panelMeasures);
  const trims = ownOf(job.rows.trims);
  const spots = spotIndex(trims);
  const hang = hangPanel(job, panel, seams);
  const byPoints = openingByPoints(job, panel, lastReadIn(job, own));
  const told = [...measures, ...(byPoints?.lengths ?? [])];
  const stations = stationsAlong(job, panel, seams);
  const separation =
    stations.length > 0 && told.length > 0 ? panelOrOpening(panel, stations, told, SHAPE_LIMIT) : undefined;
  const hides = separation?.opening.verdict === 'outside' ? hidden(job, panel, stations, hang) : undefined;
  return {
    panel,
    itemVersion: job.item(panel.id).version,
    edges: edgesOf(panel),
    seams: own.flatMap((of) => {
      const seam = job.seams.find(({ id }) => id === of.seamId);
      return seam ? [{ ...of, code: seam.code }] : [];
    }),
    settings: ownOf(job.rows.panelSettings),
    ...{ measures, hang },
    trims: trims.map((each) => ({ ...each, advice: trimAdvice(each) })),
    ...(spots ? { spots } : {}),
    ...(separation ? { separation } : {}),
    corners: ownOf(job.rows.openingCorners),
    ...(byPoints ? { byPoints } : {}),
    ...(hides ? { hidden: hides } : {}),
  };
}

/** The last round that read a gap along a panel. */
function lastReadIn(job: Job, seams: readonly PanelSeam[]): string | undefined {
  const { readIn } = seamsAsLastRead(job);
  const rounds = new Set(seams.flatMap(({ seamId }) => readIn[seamId]?.id ?? []));
  return job.ownRounds.findLast(({ id }) => rounds.has(id))?.id;
}

/** A panel stays where it is set so well, mm: one standard deviation. */
const SET_TO = 0.3;
/** A gap that was not read yet will be read so well, mm: one standard deviation. */
const READ_TO = 0.25;
/** The limit of a gap where nothing says another, mm. */
const LIMIT = 1;
/** Doors come before what is set by them. */
const FIRST: Readonly<Record<HungPanel['kind'], number>> = {
  ...{ door: 0, skin: 1, wing: 1 },
  ...{ bonnet: 2, bootLid: 2, tailgate: 2 },
};
/** What is no panel of its own is the shell. */
const SHELL = 'shell';

function orderOf(job: Job, read: readonly SeamJudgement[]): FittingOrder {
  const shell = job.seams.flatMap((seam) => {
    const [a, b] = panelsAt(job, seam.id);
    return a ? [{ a: a.id, b: b?.id ?? SHELL, code: seam.code, sight: seam.sight, stations: job.stations(seam) }] : [];
  });
  const parts = [
    ...job.hungPanels.map(({ id, sure }) => ({ id, sure })),
    ...(shell.some(({ b }) => b === SHELL) ? [{ id: SHELL, sure: true }] : []),
  ];
  const before = job.hungPanels.flatMap((a) =>
    job.hungPanels.flatMap((b): Before[] => (comesBefore(job, a, b) ? [[a.id, b.id]] : [])),
  );
  const seams = shell.map(({ sight, stations, ...seam }) => {
    const limits = stations.flatMap(
      ({ id }) => job.references.stations.get(stationKey(id, 'gap'))?.row.tolerance ?? [],
    );
    return {
      ...seam,
      sd: Math.hypot(SET_TO, readTo(read.find(({ seam: { code } }) => code === seam.code))),
      limit: Math.min(LIMIT, ...limits),
      weight: SIGHT_WEIGHT[sight],
    };
  });
  return fittingOrder(parts, seams, before);
}

/** How well the gaps of a seam are read, mm: one standard deviation, the coarsest of its stations. */
function readTo(seam: SeamJudgement | undefined): number {
  const sds = (seam?.stations ?? []).flatMap(({ quantity, measured }) =>
    quantity === 'gap' && measured ? measured.sd : [],
  );
  return sds.length > 0 ? Math.max(...sds) : READ_TO;
}

const panelsAt = (job: Job, seamId: string): readonly CalledPanel[] =>
  job.rows.panelSeams.flatMap((of) =>
    of.seamId === seamId ? job.hungPanels.filter(({ id }) => id === of.hungId) : [],
  );

/** Where two panels meet the kinds say which comes first; of two doors the rear one. */
function comesBefore(job: Job, a: CalledPanel, b: CalledPanel): boolean {
  if (a.id === b.id || a.side !== b.side) return FIRST[a.kind] < FIRST[b.kind] && meet(job, a, b);
  if (!meet(job, a, b)) return false;
  if (a.kind === 'door' && b.kind === 'door')
    return job.rows.panelSeams.some(
      ({ hungId, seamId, edge }) =>
        hungId === a.id && edge === 'front' && panelsAt(job, seamId).some(({ id }) => id === b.id),
    );
  return FIRST[a.kind] < FIRST[b.kind];
}

const meet = (job: Job, a: CalledPanel, b: CalledPanel): boolean =>
  job.rows.panelSeams.some(
    ({ hungId, seamId }) => hungId === a.id && panelsAt(job, seamId).some(({ id }) => id === b.id),
  );
