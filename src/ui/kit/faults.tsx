import type { Fault } from '@/formats/faults';

/** What was refused, and where; nothing where nothing was. */
export function Faults({ faults, title = 'Not saved' }: { faults: readonly Fault[]; title?: string }) {
  if (faults.length === 0) return null;
  return (
    <div role="alert" className="border-l-4 border-minus bg-sheet px-3 py-2">
      <p className="font-medium">{title}</p>
      <ul className="list-disc pl-5 text-sm">
        {faults.slice(0, 30).map(({ path, message }, i) => (
          <li key={i}>
            <span className="text-soft">{path}:</span> {message}
          </li>
        ))}
      </ul>
      {faults.length > 30 ? <p className="text-sm">and {faults.length - 30} more</p> : null}
    </div>
  );
}

/** A designed empty state: what is not here yet, and the way to it. */
export function Empty({ title, children }: { title: string; children?: React.ReactNode }) {
  return (
    <div className="border border-dashed border-rule px-5 py-8 text-center">
      <p className="font-cond text-lg">{title}</p>
      {children ? <div className="mt-2 text-soft">{children}</div> : null}
    </div>
  );
}
