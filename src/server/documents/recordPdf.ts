import { money } from '../../core/craft/money';
import { localMoment } from '../../core/craft/time';
import { watchNameWithSerial } from '../../core/logbook';
import type { Dossier } from './dossier';
import { drawPdf, type Pdf } from './pdf';
const A5 = { widthPt: 419.53, heightPt: 595.28, marginPt: 36 };

const HEAD_WIDTH_PT = 78;

/** A heading on the left, its text beside it; the next one starts under the longer of the two. */
function section(pdf: Pdf, title: string, lines: readonly string[]): void {
  if (lines.length === 0) return;
  const left = pdf.page.margins.left;
  const width = pdf.page.width - left - pdf.page.margins.right - HEAD_WIDTH_PT;
  const text = lines.join(' ');
  pdf.font('regular').fontSize(10);
  if (pdf.y + pdf.heightOfString(text, { width }) > pdf.page.height - pdf.page.margins.bottom) pdf.addPage();
  const top = pdf.y + 7;
  pdf.font('bold').text(title, left, top, { width: HEAD_WIDTH_PT });
  pdf.font('regular').text(text, left + HEAD_WIDTH_PT, top, { width, lineGap: 1.5 });
  pdf.x = left;
}

/** The record the customer takes away: what was signed, or plainly a draft. */
export async function recordPdf({ resource, state, context, statement, signedBy }: Dossier): Promise<Buffer> {
  const { shop, policy } = context;
  const { ticket } = resource.job;
  return drawPdf({ ...A5, title: `Record ${ticket}`, atUtc: signedBy?.atUtc ?? context.nowUtc }, (pdf) => {
    pdf.font('bold').fontSize(16).text(shop.name);
    pdf.font('regular').fontSize(9).text(shop.place);
    pdf.moveDown(0.5).font('mono').fontSize(14).text(ticket);
    const watch = state.facts.watch?.payload;
    pdf
      .font('regular')
      .fontSize(10)
      .text(watchNameWithSerial(watch))
      .text(resource.customer?.name ?? '');
    if (!signedBy) pdf.moveDown(0.5).font('bold').fontSize(12).text('Draft: not signed yet');
    section(pdf, 'Found', statement.found);
    section(pdf, 'Done', statement.done);
    section(pdf, 'Fitted', statement.fitted);
    section(pdf, 'Tested', statement.tested);
    section(pdf, 'Not done', statement.notDone);
    section(pdf, 'Water', [statement.water]);
    section(pdf, 'Next visit', [statement.nextVisit]);
    section(pdf, 'Warranty', [statement.warranty]);
    section(pdf, 'Price', [money(statement.priceMinor, policy.currency)]);
    if (signedBy) {
      pdf
        .moveDown(0.8)
        .font('bold')
        .fontSize(10)
        .text(
          [
            `Signed ${signedBy.initials}`,
            signedBy.name,
            signedBy.where,
            localMoment(signedBy.atUtc, shop.zone),
          ]
            .filter(Boolean)
            .join(', '),
        );
      if (state.signature.state === 'reopened') {
        pdf.font('regular').fontSize(9).text('The job was reopened after this record was given.');
      }
    }
  });
}
