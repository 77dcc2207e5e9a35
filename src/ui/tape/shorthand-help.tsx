import { useFormat } from '../shell/preferences-context';

/** The shorthand of the field, learnt in a minute. */
const LINES = (length: (mm: number) => string, unit: string): readonly (readonly [line: string, meaning: string])[] => [
  [length(1011.5), `the pair shown above, in ${unit}`],
  [`F1L S2L ${length(1011.5)}`, 'the distance between two points, in either order'],
  ['F1L S2L 39 13/16"', 'lengths in any form: 64", 5\' 4 1/2", 92.2 cm, 1.284 m'],
  [`F1L S2L ${length(1005)} level`, 'pointers set to the two heights, bar level; tip for tip to tip'],
  [
    `F1L S2L ${length(1005)} p ${length(120)} ${length(300)}`,
    'tram gauge with unequal pointers, at the first and second point',
  ],
  [`F1L S2L ${length(996)} & ${length(1027)}`, 'unequal holes: inner edges and outer edges, as one reading'],
  [`F1L h ${length(215)}`, 'height; l is length, w is width'],
  [`F1L ${length(120)} -${length(410)} ${length(215)}`, 'length, width and height at once'],
  [`F2L head tight ${length(0.5)}`, 'a fixture head enters free, tight or no, with its clearance'],
  [
    `S2L axle.1 ${length(4)} rear`,
    'hole 1 of a part bolted up as a gauge: the point lies so far to its rear; or centred, or no',
  ],
  [`DL.3 ${length(5.2)} ${length(0.5)}`, 'gap and flush at station 3 of seam DL'],
];

const KEYS: readonly (readonly [key: string, meaning: string])[] = [
  ['Enter', 'takes the line'],
  ['Tab', 'completes the point'],
  ['↑', 'corrects the last line'],
  ['F2', 'skips'],
  ['F3', 'comes back to the one skipped'],
  ['F4', 'repeats the last reading'],
  ['F8', 'strikes the last line'],
  ['F6 F7 F9 F10', 'the point is buried, behind the suspension, gone, worn'],
];

export function ShorthandHelp() {
  const format = useFormat();
  return (
    <div className="flex flex-col gap-3">
      <table className="ruled">
        <caption className="caps text-left">What to type</caption>
        <tbody>
          {LINES(format.length, format.unit).map(([line, meaning]) => (
            <tr key={line}>
              <td className="font-mono whitespace-nowrap">{line}</td>
              <td className="text-sm text-soft">{meaning}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <table className="ruled self-start">
        <caption className="caps text-left">Keys</caption>
        <tbody>
          {KEYS.map(([key, meaning]) => (
            <tr key={key}>
              <td className="font-mono whitespace-nowrap">{key}</td>
              <td className="text-sm text-soft">{meaning}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
