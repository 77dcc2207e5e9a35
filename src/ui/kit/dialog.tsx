'use client';

import { X } from 'lucide-react';
import { Dialog as Radix } from 'radix-ui';
import { useState, type ReactNode } from 'react';
import { Button } from './button';

/**
 * The focus goes back to the trigger a moment after a dialog has closed. A key pressed within that moment (`/` for the
 * page's field) has already put it somewhere, and there it stays.
 */
function leaveFocusWhereItWent(event: Event): void {
  if (document.activeElement !== null && document.activeElement !== document.body) event.preventDefault();
}

/** A sheet laid over the page; Escape and the cross close it. */
export function Dialog({
  title,
  description,
  trigger,
  open,
  onOpenChange,
  wide = false,
  children,
}: {
  title: string;
  description?: string;
  trigger?: ReactNode;
  open?: boolean;
  onOpenChange?: (open: boolean) => void;
  wide?: boolean;
  children: ReactNode;
}) {
  return (
    <Radix.Root open={open} onOpenChange={onOpenChange}>
      {trigger ? <Radix.Trigger asChild>{trigger}</Radix.Trigger> : null}
      <Radix.Portal>
        <Radix.Overlay className="fixed inset-0 z-40 bg-black/45" />
        <Radix.Content
          onCloseAutoFocus={leaveFocusWhereItWent}
          className={`fixed top-1/2 left-1/2 z-50 flex max-h-[92dvh] w-[94vw] -translate-x-1/2 -translate-y-1/2 flex-col gap-4 overflow-auto border-2 border-ink bg-paper p-5 ${wide ? 'max-w-4xl' : 'max-w-xl'}`}
        >
          <div className="flex items-start justify-between gap-4">
            <div>
              <Radix.Title className="text-xl">{title}</Radix.Title>
              <Radix.Description className={description ? 'text-soft' : 'sr-only'}>
                {description ?? title}
              </Radix.Description>
            </div>
            <Radix.Close asChild>
              <Button look="quiet" aria-label="Close" className="w-11">
                <X size={20} aria-hidden />
              </Button>
            </Radix.Close>
          </div>
          {children}
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}

/** A dialog over a form that is made anew at each opening and closes itself when what it says is kept. */
export function FormDialog({
  children,
  ...rest
}: {
  title: string;
  description?: string;
  trigger: ReactNode;
  wide?: boolean;
  children: (close: () => void) => ReactNode;
}) {
  const [open, setOpen] = useState(false);
  return (
    <Dialog open={open} onOpenChange={setOpen} {...rest}>
      {children(() => setOpen(false))}
    </Dialog>
  );
}

/** Asks once before something is done that cannot quietly be taken back, and says what happens. */
export function Confirm({
  title,
  caution,
  yes,
  trigger,
  onYes,
}: {
  title: string;
  caution: ReactNode;
  /** What the deciding button says. */
  yes: string;
  trigger: ReactNode;
  /** What it came to: the dialog stays where it was refused. */
  onYes: () => Promise<{ readonly ok: boolean } | undefined>;
}) {
  return (
    <FormDialog title={title} trigger={trigger}>
      {(close) => (
        <>
          <p>{caution}</p>
          <Button
            look="main"
            className="self-start"
            onClick={async () => {
              const outcome = await onYes();
              if (outcome === undefined || outcome.ok) close();
            }}
          >
            {yes}
          </Button>
        </>
      )}
    </FormDialog>
  );
}
