import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import PDFDocument from 'pdfkit';

const resolver = createRequire(import.meta.url);

function font(packageName: string, file: string): string {
  return join(dirname(resolver.resolve(`${packageName}/package.json`)), 'files', file);
}

const REGULAR = font('@fontsource/atkinson-hyperlegible', 'atkinson-hyperlegible-latin-400-normal.woff');
const BOLD = font('@fontsource/atkinson-hyperlegible', 'atkinson-hyperlegible-latin-700-normal.woff');
const MONO = font(
  '@fontsource/atkinson-hyperlegible-mono',
  'atkinson-hyperlegible-mono-latin-400-normal.woff',
);

/** Points in a millimetre. */
export const POINTS_PER_MM = 72 / 25.4;

export type Pdf = PDFKit.PDFDocument;

/** Draws a document in the shop's type and gives it as bytes. Sizes in points. */
export async function drawPdf(
  options: {
    readonly widthPt: number;
    readonly heightPt: number;
    readonly marginPt: number;
    readonly title: string;
    readonly atUtc: string;
  },
  draw: (pdf: Pdf) => void | Promise<void>,
): Promise<Buffer> {
  const pdf = new PDFDocument({
    size: [options.widthPt, options.heightPt],
    margin: options.marginPt,
    info: { Title: options.title, Creator: 'Wax Lantern', CreationDate: new Date(options.atUtc) },
    lang: 'en',
  });
  pdf.registerFont('regular', REGULAR).registerFont('bold', BOLD).registerFont('mono', MONO);
  const chunks: Buffer[] = [];
  pdf.on('data', (chunk: Buffer) => chunks.push(chunk));
  const ended = new Promise<void>((resolve, reject) => pdf.on('end', resolve).on('error', reject));
  await draw(pdf);
  pdf.end();
  await ended;
  return Buffer.concat(chunks);
}
