import { filetypemime } from 'magic-bytes.js';

/** What has to be done with a file before it may be kept. */
export type FileKind =
  | { readonly kind: 'picture'; readonly contentType: string }
  | { readonly kind: 'film'; readonly contentType: string }
  /** A picture or film that nothing here can free of the place it was taken at. */
  | { readonly kind: 'not taken'; readonly contentType: string; readonly what: 'picture' | 'film' }
  | { readonly kind: 'other'; readonly contentType: string };

/** Brands of one picture, or a burst of them, in the container that films use, too. */
const PICTURE_BRANDS =
  /^(hei[cfmsx]|hev[cmsx]|mif[123]|msf1|miaf|mi[ahm][bfe2]|avi[fso]|avci|avcs|jpeg|jpgs|jxl |jxs[ cs]|crx |1pic|vvic|evmi|unif)/i;
const AVIF_BRANDS = /^avi[fs]/;
/** How a film in that container begins, where it names no brand. */
const FILM_BOXES = ['moov', 'mdat', 'wide', 'free', 'skip', 'pnot'];

interface Signature {
  readonly at: number;
  readonly bytes: string;
  readonly contentType: string;
  readonly what: 'picture' | 'film';
}
const picture = (bytes: string, contentType: string, at = 0): Signature => ({
  at,
  bytes,
  contentType,
  what: 'picture',
});
const film = (bytes: string, contentType: string, at = 0): Signature => ({
  at,
  bytes,
  contentType,
  what: 'film',
});

/** Kinds that hold place and camera, and that nothing here can write anew. */
const NOT_TAKEN: readonly Signature[] = [
  picture('\x00\x00\x00\x0cjP  ', 'image/jp2'),
  picture('\xff\x4f\xff\x51', 'image/j2c'),
  picture('\x00\x00\x00\x0cJXL ', 'image/jxl'),
  picture('\xff\x0a', 'image/jxl'),
  picture('II\xbc', 'image/jxr'),
  picture('BM', 'image/bmp'),
  picture('\x00\x00\x01\x00', 'image/x-icon'),
  picture('8BPS', 'image/vnd.adobe.photoshop'),
  picture('IIRO', 'image/x-raw'),
  picture('IIRS', 'image/x-raw'),
  picture('MMOR', 'image/x-raw'),
  picture('IIU\x00', 'image/x-raw'),
  picture('FUJIFILMCCD-RAW', 'image/x-raw'),
  picture('FOVb', 'image/x-raw'),
  picture('\x00MRM', 'image/x-raw'),
  picture('HEAPCCDR', 'image/x-raw', 6),
  picture('ARRI', 'image/x-raw'),
  picture('v/1\x01', 'image/x-exr'),
  picture('gimp xcf', 'image/x-xcf'),
  film('\x1a\x45\xdf\xa3', 'video/x-matroska'),
  film('AVI ', 'video/x-msvideo', 8),
  film('FLV\x01', 'video/x-flv'),
  film('\x30\x26\xb2\x75\x8e\x66\xcf\x11', 'video/x-ms-asf'),
  film('\x00\x00\x01\xba', 'video/mpeg'),
  film('\x00\x00\x01\xb3', 'video/mpeg'),
  film('.RMF', 'application/vnd.rn-realmedia'),
];
/** Packets of a transport stream begin with this, each after so many bytes. */
const PACKET_BEGIN = 0x47;
const PACKET_BYTES = [188, 192] as const;

/** Kinds that are written anew here. */
const PICTURES: readonly Signature[] = [
  picture('\xff\xd8\xff', 'image/jpeg'),
  picture('\x89PNG\r\n\x1a\n', 'image/png'),
  picture('GIF8', 'image/gif'),
  picture('WEBP', 'image/webp', 8),
  picture('II*\x00', 'image/tiff'),
  picture('MM\x00*', 'image/tiff'),
  picture('II+\x00', 'image/tiff'),
  picture('MM\x00+', 'image/tiff'),
];

const isStream = (head: Buffer): boolean =>
  PACKET_BYTES.some((each) => {
    const first = each - 188;
    return [0, 1, 2, 3].every((packet) => head[first + packet * each] === PACKET_BEGIN);
  });

/** What a container of pictures and films says it holds, by its brands; null where it is no such container. */
function inContainer(head: Buffer): FileKind | null {
  const type = head.toString('latin1', 4, 8);
  if (FILM_BOXES.includes(type)) return { kind: 'film', contentType: 'video/quicktime' };
  if (type !== 'ftyp') return null;
  const end = Math.min(head.readUInt32BE(0), head.length);
  const brands: string[] = [head.toString('latin1', 8, 12)];
  for (let at = 16; at + 4 <= end; at += 4) brands.push(head.toString('latin1', at, at + 4));
  if (brands.some((brand) => AVIF_BRANDS.test(brand))) return { kind: 'picture', contentType: 'image/avif' };
  if (brands.some((brand) => PICTURE_BRANDS.test(brand)))
    return { kind: 'not taken', contentType: 'image/heif', what: 'picture' };
  const [major] = brands;
  return { kind: 'film', contentType: major === 'qt  ' ? 'video/quicktime' : 'video/mp4' };
}

/** What no text holds: the words that some formats begin with could begin a note as well. */
// eslint-disable-next-line no-control-regex
const CONTROL = /[\x00-\x08\x0e-\x1f]/;

/** A drawing is a text: its first element says so. */
const DRAWING = /^(?:\xef\xbb\xbf)?\s*(?:<[?!][^>]*>\s*)*<svg[\s>]/i;

/**
 * What a file is, by its first bytes: never by its name. Of films and pictures everything is known or not taken, since
 * what is not recognised could tell where it was taken. Source: the published formats.
 */
export function kindOf(head: Buffer): FileKind {
  const words = head.toString('latin1');
  if (DRAWING.test(words)) return { kind: 'not taken', contentType: 'image/svg+xml', what: 'picture' };
  const [type = 'application/octet-stream'] = filetypemime(head);
  const isShown = /^(image|video)\//.test(type);
  if (!CONTROL.test(words))
    return { kind: 'other', contentType: isShown ? 'application/octet-stream' : type };
  const contained = head.length >= 12 ? inContainer(head) : null;
  if (contained) return contained;
  const is = ({ at, bytes }: Signature): boolean => head.toString('latin1', at, at + bytes.length) === bytes;
  const known = PICTURES.find(is);
  if (known) return { kind: 'picture', contentType: known.contentType };
  const refused = NOT_TAKEN.find(is);
  if (refused) return { kind: 'not taken', contentType: refused.contentType, what: refused.what };
  if (isStream(head)) return { kind: 'not taken', contentType: 'video/mp2t', what: 'film' };
  return isShown
    ? { kind: 'not taken', contentType: type, what: type.startsWith('video/') ? 'film' : 'picture' }
    : { kind: 'other', contentType: type };
}
