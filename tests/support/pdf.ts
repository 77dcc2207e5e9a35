import { execFileSync } from 'node:child_process';

/** The words of a PDF in reading order, its lines joined; throws where the bytes are no PDF. */
export const textOfPdf = (bytes: Buffer): string =>
  execFileSync('/usr/bin/pdftotext', ['-raw', '-', '-'], {
    input: bytes,
    encoding: 'utf8',
  }).replace(/\s+/g, ' ');
