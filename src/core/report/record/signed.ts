import type { RecordConformity, RecordDocument, RecordOpen } from '../../shell/record-document';

/** What is said of a shell whose figures came out so, with nothing in the way of saying it. */
export const saidOf = ({
  outside,
  undecided,
  exceptions,
}: Pick<RecordConformity, 'outside' | 'undecided' | 'exceptions'>): RecordConformity['verdict'] =>
  outside > 0 ? 'doesNot' : undecided > 0 ? 'undecided' : exceptions.length > 0 ? 'except' : 'conforms';

/**
 * The record as it is signed: what is open with the reason why it is signed all the same. What was put in for a while may stay
 * where somebody says why; what holds the shell may not.
 *
 * @param reasonOf empty where there is none
 */
export function signedWith(record: RecordDocument, reasonOf: (open: RecordOpen) => string): RecordDocument {
  const open = (record.open ?? []).map((each) => ({ ...each, reason: reasonOf(each) }));
  const { conformity } = record;
  if (!conformity) return { ...record, open };
  const isAccepted = open.filter(({ kind }) => kind === 'closeOut').every(({ reason }) => reason !== '');
  const still = conformity.still.filter(({ kind }) => !(kind === 'closeOut' && isAccepted));
  return {
    ...record,
    open,
    conformity: { ...conformity, still, verdict: still.length > 0 ? 'notGiven' : saidOf(conformity) },
  };
}
