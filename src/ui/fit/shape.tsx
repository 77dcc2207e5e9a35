import { byPointsText, hiddenText, lengthWord, separationText, THING_WORD } from '@/core/report/fitting-words';
import { MEASURED_THINGS, SHAPE_LENGTHS } from '@/core/shell/job/entities';
import { Button } from '../kit/button';
import { FormDialog } from '../kit/dialog';
import { useFormat } from '../shell/preferences-context';
import { VerdictMark } from '../sheet/mark';
import { MeasuresForm, type ShapeProps } from './measures-form';

/** Whether what is left is the panel's or its opening's, with what says so. */
export function Shape(props: ShapeProps) {
  const { view } = props;
  const format = useFormat();
  const { separation, edges, panel } = view;
  const words = { length: (mm: number) => `${format.thin(mm)} ${format.unit}` };
  return (
    <section aria-label={`${panel.code} or its opening`} className="flex flex-col gap-2">
      <div className="flex flex-wrap items-center gap-3">
        <h4 className="caps">Panel or opening?</h4>
        <FormDialog
          wide
          title={`Shape of ${panel.code} and of its opening`}
          description="The same lengths of both, between corners: what they should be, and what they are. Twist: three corners on a flat floor, what the fourth stands off by."
          trigger={<Button look="quiet">Measure them</Button>}
        >
          {(close) => <MeasuresForm {...props} done={close} />}
        </FormDialog>
      </div>
      {separation ? (
        <>
          <p
            data-says={separation.says}
            className={separation.says === 'opening' ? 'border-l-4 border-minus pl-3' : ''}
          >
            {separationText(separation, edges, words)}
            {separation.certain || separation.says === 'cannotTell'
              ? ''
              : ' Two standard deviations could still change this.'}
          </p>
          {view.hidden ? (
            <p role="alert" className="border-l-4 border-minus pl-3">
              {format.name(hiddenText(view.hidden))}
            </p>
          ) : null}
          {view.byPoints ? (
            <p className="text-sm text-soft">{format.name(byPointsText(view.byPoints, edges, words))}</p>
          ) : null}
          <div className="overflow-x-auto">
            <table className="ruled self-start" aria-label={`What ${panel.code} and its opening are off`}>
              <thead>
                <tr>
                  <th>{format.unit}</th>
                  {MEASURED_THINGS.map((thing) => (
                    <th key={thing} className="num">
                      {THING_WORD[thing]}
                    </th>
                  ))}
                </tr>
              </thead>
              <tbody>
                {SHAPE_LENGTHS.map((what) => (
                  <tr key={what}>
                    <td>{lengthWord(what, edges)}</td>
                    {MEASURED_THINGS.map((thing) => {
                      const figure = separation[thing].lengths.find((each) => each.what === what)!;
                      return (
                        <td key={thing} className="num">
                          {format.thin(figure.value, true)} ±{format.thin(figure.plusMinus)}{' '}
                          <VerdictMark verdict={figure.verdict} />
                        </td>
                      );
                    })}
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
        </>
      ) : (
        <p className="text-soft">
          Gaps alone cannot tell a panel that is wrong from an opening that is: measure the same lengths of both.
        </p>
      )}
    </section>
  );
}
