import type { JointView } from '@/core/report/pages/welding';
import { heldText } from '@/core/report/weld-words';
import { useFormat } from '../shell/preferences-context';

/** That what is welded here is not clamped, or not tacked. */
export function NotHeld({ view: { held } }: { readonly view: JointView }) {
  const format = useFormat();
  const text = held && heldText(held);
  return text ? <p className="border-l-4 border-minus pl-3">{format.name(text)}</p> : null;
}
