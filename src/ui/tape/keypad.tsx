'use client';

import { Delete } from 'lucide-react';

/** Rows of five: what is typed, and the keys that do something, by their names. */
const KEYS = ['7', '8', '9', '0', 'erase', '4', '5', '6', '.', ' ', '1', '2', '3', '-', 'take'] as const;
const SIXTEENTHS = [
  '1/16',
  '1/8',
  '3/16',
  '1/4',
  '5/16',
  '3/8',
  '7/16',
  '1/2',
  '9/16',
  '5/8',
  '11/16',
  '3/4',
  '13/16',
  '7/8',
  '15/16',
] as const;

/** Keys of fifteen millimetres, for gloves; fractions when inches are on. */
export function Keypad({
  fractions,
  onType,
  onErase,
  onTake,
}: {
  fractions: boolean;
  onType: (text: string) => void;
  onErase: () => void;
  onTake: () => void;
}) {
  const shape = 'flex min-h-[15mm] min-w-[15mm] items-center justify-center border border-rule font-mono text-xl';
  const key = `${shape} bg-sheet active:bg-faint`;
  return (
    <div className="keypad flex flex-wrap gap-2" role="group" aria-label="Keypad">
      <div className="grid grow grid-cols-5 gap-1">
        {KEYS.map((each) => {
          if (each === 'erase')
            return (
              <button key={each} type="button" className={key} onClick={onErase} aria-label="Erase">
                <Delete aria-hidden />
              </button>
            );
          if (each === 'take')
            return (
              <button key={each} type="button" className={`${shape} bg-ink text-paper`} onClick={onTake}>
                Take
              </button>
            );
          return (
            <button
              key={each}
              type="button"
              className={key}
              onClick={() => onType(each)}
              aria-label={each === ' ' ? 'Space' : undefined}
            >
              {each === ' ' ? '␣' : each}
            </button>
          );
        })}
      </div>
      {fractions ? (
        <div className="grid grow grid-cols-5 gap-1">
          {SIXTEENTHS.map((fraction) => (
            <button
              type="button"
              key={fraction}
              className={`${key} px-1 text-base`}
              onClick={() => onType(` ${fraction}`)}
            >
              {fraction}
            </button>
          ))}
        </div>
      ) : null}
    </div>
  );
}
