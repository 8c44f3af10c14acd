import { money } from '../../core/craft/money';
import { priceOf } from '../../core/advice/price';
import { localTime } from '../../core/craft/time';
import { watchNameWithSerial } from '../../core/logbook';
import type { Dossier } from './dossier';
import { drawPdf } from './pdf';
const A6 = { widthPt: 297.64, heightPt: 419.53, marginPt: 28 };

/** The owner's receipt for one visit: every watch left, its ticket, service, estimate and promise. */
export async function receiptPdf(dossiers: readonly Dossier[]): Promise<Buffer> {
  const [first] = dossiers;
  if (!first) throw new RangeError('A receipt needs at least one watch.');
  const { shop, policy, nowUtc } = first.context;
  return drawPdf({ ...A6, title: `Receipt ${first.resource.job.ticket}`, atUtc: nowUtc }, (pdf) => {
    pdf.font('bold').fontSize(14).text(shop.name);
    pdf.font('regular').fontSize(9).text(shop.place);
    pdf
      .moveDown(0.6)
      .font('bold')
      .fontSize(11)
      .text(`Received ${dossiers.length === 1 ? 'one watch' : `${dossiers.length} watches`}`);
    pdf
      .font('regular')
      .fontSize(10)
      .text(first.resource.customer?.name ?? '');
    let totalMinor = 0;
    for (const { resource, state } of dossiers) {
      const { watch, service, promise, complaint } = state.facts;
      const { priceMinor } = priceOf(state, policy.currency);
      totalMinor += priceMinor;
      pdf.moveDown(0.6).font('mono').fontSize(13).text(resource.job.ticket);
      pdf
        .font('regular')
        .fontSize(10)
        .text(watchNameWithSerial(watch?.payload))
        .text(
          [
            service?.payload.service,
            service && money(priceMinor, policy.currency),
            promise && `promised ${localTime(promise.payload.promisedAt, shop.zone)}`,
          ]
            .filter(Boolean)
            .join(', '),
        );
      const sees = [...(complaint?.payload.picked ?? []), complaint?.payload.words]
        .filter(Boolean)
        .join(', ');
      if (sees) pdf.text(`Seen by the owner: ${sees}`);
    }
    if (dossiers.length > 1)
      pdf
        .moveDown(0.6)
        .font('bold')
        .text(`Total ${money(totalMinor, policy.currency)}`);
    pdf
      .moveDown(0.8)
      .font('regular')
      .fontSize(9)
      .text('Bring this slip to collect. You pay no more than we agree with you first.');
  });
}
