'use client';

import { useEffect, useState } from 'react';
import { z } from 'zod';
import type { ListedShared, SharedKind } from '@/core/shell/shared';
import { listedShared } from '@/formats/inputs/shared';
import { SelectField } from '../kit/field';

interface Props {
  readonly kind: SharedKind;
  /** One was chosen: as if its file had been picked on this machine. */
  readonly onFile: (file: { readonly name: string; readonly text: string }) => void;
}

/** What other shops of the server share of a kind, to be taken like a file; nothing where there is none. */
export function FromShops({ kind, onFile }: Props) {
  const [listed, setListed] = useState<readonly ListedShared[]>([]);
  const [chosen, setChosen] = useState('');
  const [fault, setFault] = useState('');
  useEffect(() => {
    let left = false;
    void (async () => {
      const response = await fetch('/api/shared').catch(() => undefined);
      const read = response?.ok ? z.array(listedShared).safeParse(await response.json()) : undefined;
      if (!left && read?.success) setListed(read.data.filter((each) => each.kind === kind));
    })();
    return () => {
      left = true;
    };
  }, [kind]);
  if (listed.length === 0) return null;
  const take = async (id: string) => {
    setChosen(id);
    setFault('');
    const response = id === '' ? undefined : await fetch(`/api/shared/${id}`).catch(() => undefined);
    if (response?.ok) onFile({ name: `${kind}.json`, text: await response.text() });
    else if (id !== '') setFault('it cannot be had now: it is shared no more, or the program does not answer');
  };
  return (
    <div className="max-w-md">
      <SelectField
        label="or what another shop shares"
        options={[['', 'none'], ...listed.map(({ id, name, ofShop }) => [id, `${name}, of ${ofShop}`] as const)]}
        value={chosen}
        {...(fault ? { error: fault } : {})}
        onChange={({ target }) => void take(target.value)}
      />
    </div>
  );
}
