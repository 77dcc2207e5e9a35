import type { ReactNode } from 'react';

/** A chapter of the record. */
export const Part = ({ title, children }: { title: string; children: ReactNode }) => (
  <section className="break-inside-auto">
    <h2 className="mb-1 text-xl">{title}</h2>
    {children}
  </section>
);
