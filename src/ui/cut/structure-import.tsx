import { useState } from 'react';
import type { CuttingPage } from '@/core/report/pages/cutting';
import { importedStructure } from '@/formats/inputs/cut';
import { Button } from '../kit/button';
import { FormDialog } from '../kit/dialog';
import { Faults } from '../kit/faults';
import { TextArea, TextField } from '../kit/field';
import { useAction } from '../kit/use-action';
import { FromShops } from '../shared/from-shops';
import type { CuttingActions } from './actions';

interface Props {
  readonly page: CuttingPage;
  readonly actions: Pick<CuttingActions, 'importStructure'>;
}

/** A structure that another program or shop made, from a file, its text, or what a shop of the server shares. */
export function StructureImport({ page, actions }: Props) {
  return (
    <FormDialog title="A structure from a file" trigger={<Button>From a file …</Button>}>
      {(close) => <ImportForm {...{ page, actions }} done={close} />}
    </FormDialog>
  );
}

function ImportForm({ page, actions, done }: Props & { done: () => void }) {
  const { run, faults, pending } = useAction(actions.importStructure);
  const [document, setDocument] = useState('');
  const id = useState(() => crypto.randomUUID())[0];
  const take = async () => {
    const outcome = await run(importedStructure.parse({ id, jobId: page.jobId, document }), id);
    if (outcome.ok) done();
  };
  return (
    <div className="flex flex-col gap-3">
      <TextField
        type="file"
        accept=".json,application/json"
        label="File"
        onChange={async ({ target }) => setDocument((await target.files?.[0]?.text()) ?? '')}
      />
      <FromShops kind="structure" onFile={({ text }) => setDocument(text)} />
      <TextArea label="or its text" rows={6} value={document} onChange={({ target }) => setDocument(target.value)} />
      <Faults faults={faults} />
      <Button look="main" className="self-start" disabled={pending || document === ''} onClick={take}>
        Take it in
      </Button>
    </div>
  );
}
