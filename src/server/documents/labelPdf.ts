import { localTime } from '../../core/craft/time';
import { watchName } from '../../core/logbook';
import type { Dossier } from './dossier';
import { drawPdf, POINTS_PER_MM } from './pdf';

const WIDTH_MM = 89;
const HEIGHT_MM = 36;

export const LABEL_CODES = ['qr', 'bars'] as const;

/** The ticket as a drawing for the screen: QR or Code 128. */
export async function labelCodeSvg(ticket: string, code: (typeof LABEL_CODES)[number]): Promise<string> {
  const { toSVG } = await import('bwip-js/node');
  return code === 'qr'
    ? toSVG({ bcid: 'qrcode', text: ticket, scale: 3 })
    : toSVG({ bcid: 'code128', text: ticket, scale: 2, height: 12 });
}

/** The envelope label: ticket in large type, as QR and as Code 128, with owner, watch, service and promise. */
export async function labelPdf({ resource, state, context }: Dossier): Promise<Buffer> {
  const { ticket } = resource.job;
  const { toBuffer } = await import('bwip-js/node');
  const [qr, bars] = await Promise.all([
    toBuffer({ bcid: 'qrcode', text: ticket, scale: 4 }),
    toBuffer({ bcid: 'code128', text: ticket, scale: 3, height: 9 }),
  ]);
  const mm = (value: number): number => value * POINTS_PER_MM;
  const { watch, service, promise } = state.facts;
  return drawPdf(
    {
      widthPt: mm(WIDTH_MM),
      heightPt: mm(HEIGHT_MM),
      marginPt: mm(2),
      title: `Label ${ticket}`,
      atUtc: context.nowUtc,
    },
    (pdf) => {
      const line = { width: mm(58), height: mm(4.6), ellipsis: true, lineBreak: false } as const;
      pdf.font('mono').fontSize(20).text(ticket, mm(3), mm(2.5), { lineBreak: false });
      pdf
        .font('bold')
        .fontSize(10)
        .text(resource.customer?.name ?? '', mm(3), mm(10.5), line);
      pdf
        .font('regular')
        .fontSize(9)
        .text(watchName(watch?.payload), mm(3), mm(15), line)
        .text(
          `${service?.payload.service ?? ''}${promise ? `, ${localTime(promise.payload.promisedAt, context.shop.zone)}` : ''}`,
          mm(3),
          mm(19.2),
          line,
        );
      pdf.image(bars, mm(3), mm(24.5), { width: mm(56), height: mm(9) });
      pdf.image(qr, mm(63), mm(5), { width: mm(23) });
    },
  );
}
