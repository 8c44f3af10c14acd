import { z } from 'zod';
import { CATALOGUE_KINDS, type CatalogueKind, type RecordBodies } from '../../core/craft/book';
import { id, number, oneOf, optionalText, text } from '../fields';
import { calibreFields, makerFields, widthOfMovement } from './calibre';
import { caseTypeFields, gasketFields } from './caseType';
import { cellFields } from './cell';
import { type AnyFields, chosenMaker, type Fields, schemaOf, withLater } from '../describe';
import { toolFields } from './tools';

interface Description<T> {
  /** The CSV file that holds the records, a line each. */
  readonly table: string;
  readonly fields: Fields<T>;
  /** The shape of a record, for its form and for the server. */
  readonly schema: z.ZodType<T, T>;
}

function record<T>(table: string, fields: Fields<T>): Description<T> {
  return { table, fields, schema: schemaOf(fields) };
}

/** Every kind of record of the book: all that form, server, files and older records go by. */
export const RECORDS: { readonly [K in CatalogueKind]: Description<RecordBodies[K]> } = {
  cell: record('cells', cellFields),
  maker: record('makers', makerFields),
  calibre: record('calibres', calibreFields),
  caseType: record('case-types', caseTypeFields),
  gasket: record('gaskets', gasketFields),
  wrench: record('wrenches', toolFields.wrench),
  openerDie: record('opener-dies', toolFields.openerDie),
  holder: record('holders', toolFields.holder),
  pressDie: record('press-dies', toolFields.pressDie),
  driver: record('drivers', toolFields.driver),
  blade: record('blades', toolFields.blade),
  ball: record('friction-balls', toolFields.ball),
  lightPlace: record('light-places', toolFields.lightPlace),
};

/** The fields of a kind, where which kind it is does not matter. */
export function fieldsOfKind(kind: CatalogueKind): AnyFields {
  return RECORDS[kind].fields;
}

/** A stored record with what an older version of the program did not know of it yet. */
export function asToday<K extends CatalogueKind>(kind: K, stored: RecordBodies[K]): RecordBodies[K] {
  return withLater(fieldsOfKind(kind), stored);
}

/** A movement that goes into the book from the bench, with what is known. */
export const unknownCalibreForm = z.strictObject({
  code: text({ words: 'Code', max: 40, example: 'PL 9942' }),
  makerId: chosenMaker,
  cellCode: optionalText({ words: 'Cell', max: 20, example: 'SR621SW' }),
  widthMm: widthOfMovement.schema,
  currentUA: number({ words: 'Current', min: 0, max: 5000, unit: 'µA', example: 1.1 }).nullable(),
});

/** A record to be written, resting on the revision its writer saw; null for a new one. */
export const recordWrite = z.strictObject({
  kind: oneOf('Kind', CATALOGUE_KINDS),
  id: z.string().min(1).max(80),
  body: z.unknown(),
  removed: z.boolean().default(false),
  basedOn: z.int().min(1).nullable(),
  technicianId: id,
});
