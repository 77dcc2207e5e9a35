import { Tabs as Radix } from 'radix-ui';
import type { ComponentProps } from 'react';

/** Panels of which one is shown; the keys left and right go from tab to tab. */
export const Tabs = Radix.Root;

/** The tabs, on the rule that the panel hangs from. */
export function TabList({ label, className = '', ...rest }: ComponentProps<typeof Radix.List> & { label: string }) {
  return (
    <Radix.List aria-label={label} className={`flex flex-wrap gap-1 border-b-2 border-ink ${className}`} {...rest} />
  );
}

export function Tab({ className = '', ...rest }: ComponentProps<typeof Radix.Trigger>) {
  return (
    <Radix.Trigger
      className={`min-h-11 px-2.5 font-cond data-[state=active]:bg-ink data-[state=active]:text-paper ${className}`}
      {...rest}
    />
  );
}

/** What a tab shows. */
export const TabPanel = Radix.Content;
