import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';

const resolver = createRequire(import.meta.url);

/** Paper needs whole fonts: the web's are cut into subsets, and one name may need letters of two. */
function font(packageName: string, ...file: readonly string[]): string {
  return join(dirname(resolver.resolve(`${packageName}/package.json`)), ...file);
}

const WHOLE = '@expo-google-fonts/atkinson-hyperlegible';
const REGULAR = font(WHOLE, '400Regular', 'AtkinsonHyperlegible_400Regular.ttf');
const BOLD = font(WHOLE, '700Bold', 'AtkinsonHyperlegible_700Bold.ttf');
const MONO = font(
  '@fontsource/atkinson-hyperlegible-mono',
  'files',
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
  // Loaded with the first document: a server that starts needs none.
  const { default: PDFDocument } = await import('pdfkit');
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
