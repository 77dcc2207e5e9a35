import type { Vector } from '../maths/geometry/vector';
import type { Section } from '../shell/sections';
import type { SurveyReading } from '../survey/survey';

/** A point as the chart has it. */
export interface WalkPoint {
  readonly id: string;
  readonly side: 'left' | 'right' | 'centre';
  /** Chart axes, mm. */
  readonly position: Vector;
  /** The point on the other side, where there is one. */
  readonly opposite?: string;
}

export interface WalkStep {
  readonly section: Section;
  readonly reading: SurveyReading;
  readonly why: 'diagonal' | 'width' | 'length' | 'height' | 'charted' | 'again';
}
