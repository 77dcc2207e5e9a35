import { readFileSync, writeFileSync } from 'node:fs';
import { computeAlignment, parseAlignmentRequest } from '@/formats/alignment';
import type { Computed } from '@/formats/computed';
import { computeBracing, parseBracing } from '@/formats/bracing';
import { computeFrame } from '@/formats/frame';
import { computePulling, parsePull } from '@/formats/pulling';
import { parseShellDocument, parseSlack } from '@/formats/shell-file';
import { computeSlack } from '@/formats/slack';
import { computeSeating, parseSeat } from '@/formats/seating';
import { computeStacks, parseStacks } from '@/formats/stacks';
import { computeAdjustment, parseSurvey } from '@/formats/survey';
import { computeWelding, parseWeld } from '@/formats/welding';
import { computeYielding, parseYield } from '@/formats/yielding';
import { faultText, parseJson, type Parsed } from '@/formats/faults';

/** A command: its document in, its document out. */
interface Command {
  readonly parse: (value: unknown) => Parsed<unknown>;
  readonly compute: (document: never) => Computed<unknown> | Promise<Computed<unknown>>;
}

const COMMANDS: Readonly<Record<string, Command>> = {
  adjust: { parse: parseSurvey, compute: computeAdjustment },
  align: { parse: parseAlignmentRequest, compute: computeAlignment },
  frame: { parse: parseShellDocument, compute: computeFrame },
  slack: { parse: parseSlack, compute: computeSlack },
  brace: { parse: parseBracing, compute: computeBracing },
  stack: { parse: parseStacks, compute: computeStacks },
  pull: { parse: parsePull, compute: computePulling },
  yield: { parse: parseYield, compute: computeYielding },
  seat: { parse: parseSeat, compute: computeSeating },
  weld: { parse: parseWeld, compute: computeWelding },
};

const EXIT = { computed: 0, notReadable: 2, notComputable: 3 } as const;

/** Runs `vinkel COMMAND FILE [--out FILE]` and returns its exit code. */
export async function run(
  args: readonly string[],
  output: { readonly out: (text: string) => void; readonly error: (text: string) => void },
): Promise<number> {
  const refuse = (lines: readonly string[], code: number) => {
    output.error(`${lines.join('\n')}\n`);
    return code;
  };
  const [name, file, option, target, ...more] = args;
  const command = name === undefined ? undefined : COMMANDS[name];
  const usage = `usage: vinkel COMMAND FILE [--out FILE]; commands: ${Object.keys(COMMANDS).join(', ')}`;
  if (!command) return refuse([`command: ${name ? `no command "${name}"; ` : ''}${usage}`], EXIT.notReadable);
  if (file === undefined || more.length > 0 || (option !== undefined && (option !== '--out' || !target)))
    return refuse([`arguments: ${usage}`], EXIT.notReadable);

  let text: string;
  try {
    text = readFileSync(file === '-' ? 0 : file, 'utf8');
  } catch (error) {
    return refuse([`file: cannot be read (${(error as NodeJS.ErrnoException).code})`], EXIT.notReadable);
  }
  const json = parseJson(text);
  const document = json.ok ? command.parse(json.value) : json;
  if (!document.ok) return refuse(document.faults.map(faultText), EXIT.notReadable);
  const result = await command.compute(document.value as never);
  if (!result.ok) return refuse([result.reason], EXIT.notComputable);
  const answer = `${JSON.stringify(result.value, null, 2)}\n`;
  if (target === undefined) output.out(answer);
  else
    try {
      writeFileSync(target, answer);
    } catch (error) {
      return refuse([`--out: cannot be written (${(error as NodeJS.ErrnoException).code})`], EXIT.notReadable);
    }
  return EXIT.computed;
}

if (process.argv[1] && /vinkel\.(ts|mjs)$/.test(process.argv[1]))
  process.exitCode = await run(process.argv.slice(2), {
    out: (text) => process.stdout.write(text),
    error: (text) => process.stderr.write(text),
  });
