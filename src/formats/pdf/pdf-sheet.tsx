import { Circle, G, Line, Path, Rect, Svg, Text as SvgText, View, Text } from '@react-pdf/renderer';
import { placeLabels } from '@/core/report/drawing/labels';
import {
  boundsOf,
  layOut,
  project,
  suggestFactor,
  VIEWS,
  whisker,
  type SheetLayout,
  type ViewName,
} from '@/core/report/drawing/sheet';
import { norm } from '@/core/maths/geometry/vector';
import type { SheetPoint } from '@/core/report/drawing/points';
import type { RecordDocument } from '@/core/shell/record-document';
import { figureOfRecord } from '@/core/report/record/record';

const SIZE = { width: 1000, height: 590 };
const INK = '#1c2430';
const TONE = { plus: '#0d4f86', minus: '#96400c' };

/** The drawing sheet of a record, for the PDF: the same geometry as on the screen. */
export function PdfSheet({ record }: { record: RecordDocument }) {
  const figure = figureOfRecord(record);
  if (figure.points.length === 0) return null;
  const layout = layOut(boundsOf(figure.points.map((point) => point.position)), SIZE);
  const factor = suggestFactor(
    figure.points.map((point) => norm(point.movement!)),
    layout,
  );
  return (
    <View wrap={false} style={{ marginBottom: 8 }}>
      <Svg
        viewBox={`0 0 ${SIZE.width} ${SIZE.height}`}
        style={{ width: '100%', height: 300, border: '0.5 solid #b9ae97' }}
      >
        {VIEWS.map((view) => (
          <SheetView key={view} view={view} layout={layout} figure={figure} factor={factor} />
        ))}
      </Svg>
      <Text style={{ color: '#565a5c' }}>
        Plan, side and end views; movements drawn {factor} times as large. Ring: inside; disc: outside; half-filled:
        undecided; square: held as control. Blue: rearward, outward, up; brown: forward, inward, down.
      </Text>
    </View>
  );
}

interface ViewProps {
  readonly view: ViewName;
  readonly layout: SheetLayout;
  readonly figure: ReturnType<typeof figureOfRecord>;
  readonly factor: number;
}

function SheetView({ view, layout, figure, factor }: ViewProps) {
  const at = (point: SheetPoint) => project(layout, view, point.position);
  const labels = placeLabels(
    figure.points.map((point) => ({
      id: point.id,
      at: at(point),
      text: point.code,
      weight: point.verdict === 'outside' ? 2 : 0,
    })),
    { line: 13, character: 7.5 },
    9,
    layout.views[view],
  );
  return (
    <G>
      {figure.lines.map(([from, to], i) => {
        const [[x1, y1], [x2, y2]] = [project(layout, view, from), project(layout, view, to)];
        return <Line key={i} x1={x1} y1={y1} x2={x2} y2={y2} stroke="#b9ae97" strokeWidth={1} />;
      })}
      {figure.points.map((point) => {
        const [x, y] = at(point);
        const { dx, dy, tone } = whisker(layout, view, point.movement!, point.position[1], factor);
        return (
          <G key={point.id}>
            {point.verdict === 'inside' ? null : (
              <Line x1={x} y1={y} x2={x + dx} y2={y + dy} stroke={TONE[tone]} strokeWidth={2.4} />
            )}
            <PdfMark point={point} x={x} y={y} />
          </G>
        );
      })}
      {labels.map((label) => (
        <SvgText key={label.id} x={label.x} y={label.y} style={{ fontSize: 12 }} fill={INK}>
          {label.text}
        </SvgText>
      ))}
    </G>
  );
}

function PdfMark({ point: { verdict, control }, x, y }: { point: SheetPoint; x: number; y: number }) {
  const r = 5;
  const paint = { stroke: INK, strokeWidth: 1.5, fill: verdict === 'outside' ? INK : '#ffffff' };
  const half = control ? `M${x - r} ${y}H${x + r}V${y + r}H${x - r}Z` : `M${x - r} ${y}A${r} ${r} 0 0 0 ${x + r} ${y}Z`;
  return (
    <G>
      {control ? (
        <Rect x={x - r} y={y - r} width={2 * r} height={2 * r} {...paint} />
      ) : (
        <Circle cx={x} cy={y} r={r} {...paint} />
      )}
      {verdict === 'undecided' ? <Path d={half} fill={INK} /> : null}
    </G>
  );
}
