import { FileDown } from 'lucide-react';
import { useState, type ReactNode } from 'react';
import { Button } from './button';

/** Where the file's name stands in what the server says of it. */
const NAME = /filename\*=UTF-8''([^;]+)/;

/** A file that takes a moment to be made: the page says so meanwhile, and stays where it is. */
export function FetchedDownload({ href, children }: { href: string; children: ReactNode }) {
  const [state, setState] = useState<'ready' | 'making' | 'failed'>('ready');
  const take = async () => {
    if (state === 'making') return;
    setState('making');
    const response = await fetch(href).catch(() => undefined);
    if (!response?.ok) return setState('failed');
    const name = NAME.exec(response.headers.get('content-disposition') ?? '')?.[1];
    const url = URL.createObjectURL(await response.blob());
    const link = document.createElement('a');
    link.href = url;
    link.download = name ? decodeURIComponent(name) : '';
    link.click();
    // The browser reads it a moment later.
    setTimeout(() => URL.revokeObjectURL(url), 60_000);
    setState('ready');
  };
  return (
    <Button onClick={take} aria-busy={state === 'making'}>
      <FileDown size={18} aria-hidden />
      {state === 'making' ? 'Making it …' : children}
      {state === 'failed' ? <span role="alert">: it could not be made, try again</span> : null}
    </Button>
  );
}
