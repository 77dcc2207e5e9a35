import { Document, G, Line, Page, Path, renderToBuffer, Svg, Text, Text as SvgText } from '@react-pdf/renderer';
import type { TemplateView } from '@/core/report/pages/cutting';
import { SOURCE_WORD } from '@/core/report/cut-words';
import type { Formatter } from '../formatter';
import { registerFonts, style } from './page-parts';

/** Points of the PDF to a millimetre. */
const POINTS = 72 / 25.4;
/** Of an A4 sheet that is drawn on, mm; its head is left for words. */
const WIDE = 190;
const HIGH = 250;
const MARGIN = 10;
const HEAD = 26;
/** Sheets are laid over each other by so much, mm. */
const OVER = 10;
/** A bar to measure the print by, mm. */
const BAR = 100;

interface TemplatePdfInput {
  readonly view: TemplateView;
  readonly format: Formatter;
}

/** A template at true scale, on as many sheets of A4 as it takes; each says which it is, and has a bar to measure it by. */
export function renderTemplatePdf(input: TemplatePdfInput): Promise<Buffer> {
  registerFonts();
  return renderToBuffer(<TemplatePdf {...input} />);
}

/** Where each sheet begins over the shape, mm. */
export function sheetsOver(width: number, height: number): { readonly x: number; readonly y: number }[] {
  const starts = (size: number, sheet: number) =>
    Array.from({ length: Math.max(1, Math.ceil((size - OVER) / (sheet - OVER))) }, (_, i) => i * (sheet - OVER));
  return starts(height, HIGH).flatMap((y) => starts(width, WIDE).map((x) => ({ x, y })));
}

function TemplatePdf({ view: { template, corners, panel }, format }: TemplatePdfInput) {
  const turned = corners.map(({ x, y }) => ({ x: template.mirrored ? -x : x, y }));
  const [left, low] = [Math.min(...turned.map(({ x }) => x)), Math.min(...turned.map(({ y }) => y))];
  const [right, high] = [Math.max(...turned.map(({ x }) => x)), Math.max(...turned.map(({ y }) => y))];
  const sheets = sheetsOver(right - left, high - low);
  const said = [
    SOURCE_WORD[template.source],
    template.takenFrom ? `from ${template.takenFrom}` : '',
    `this face out: ${template.face}`,
    template.mirrored ? 'turned over for the other side' : '',
    panel ? `for ${panel}` : '',
  ].filter(Boolean);
  return (
    <Document title={template.name} language="en">
      {sheets.map((sheet, i) => {
        const at = ({ x, y }: { x: number; y: number }) => [x - left - sheet.x, HIGH - (y - low - sheet.y)] as const;
        const path = turned.map((corner) =>
          at(corner)
            .map((mm) => (mm * POINTS).toFixed(2))
            .join(' '),
        );
        return (
          <Page
            key={`${sheet.x} ${sheet.y}`}
            size="A4"
            style={{ padding: MARGIN * POINTS, fontFamily: style.page.fontFamily }}
          >
            <Text style={style.title}>{format.name(template.name)}</Text>
            <Text style={style.soft}>
              {format.name(said.join(', '))}. Sheet {i + 1} of {sheets.length}; lay them over each other by{' '}
              {format.length(OVER)} {format.unit}. Print at 100 %: the bar is {format.length(BAR)} {format.unit} long.
            </Text>
            <Svg
              width={WIDE * POINTS}
              height={HIGH * POINTS}
              style={{
                position: 'absolute',
                left: MARGIN * POINTS,
                top: (MARGIN + HEAD) * POINTS - HEAD * 0.4 * POINTS,
              }}
            >
              <Path d={`M${path.join(' L')} Z`} stroke="#1c2430" strokeWidth={0.8} fill="none" />
              <G>
                <Line x1={0} y1={6} x2={BAR * POINTS} y2={6} stroke="#1c2430" strokeWidth={1.2} />
                {[0, BAR].map((mm) => (
                  <Line key={mm} x1={mm * POINTS} y1={1} x2={mm * POINTS} y2={11} stroke="#1c2430" strokeWidth={1} />
                ))}
                <SvgText x={BAR * POINTS + 6} y={9} style={{ fontSize: 8 }}>
                  {`${format.length(BAR)} ${format.unit}`}
                </SvgText>
              </G>
            </Svg>
          </Page>
        );
      })}
    </Document>
  );
}
