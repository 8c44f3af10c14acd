import type { NextFunction, Request, Response } from 'express';
import type { Logger } from 'pino';
import { z } from 'zod';
import { fieldsOf, MOST_NAMED, type Problem } from '../contract';
import { type BodyTaken, MOST_DEPTH } from './offLoop/bodies';
import { TooMuchToRead } from './offLoop/offLoop';
import { HOW_TO_PUT_BACK } from './store/dataDir';
import { DatabaseLost } from './store/guard';
import type { NotKept } from './store/logbook/outcomes';

/** A refusal on its way to the client. */
export class HttpProblem extends Error {
  constructor(readonly problem: Problem) {
    super(problem.title);
  }
}

function problemOf(
  status: number,
  type: string,
  title: string,
  detail: string,
  more: Partial<Problem> = {},
): HttpProblem {
  return new HttpProblem({ type: `/problems/${type}`, title, status, detail, ...more });
}

export function notFound(what: string): HttpProblem {
  return problemOf(404, 'not-found', 'Not found', `There is no ${what} here.`, {
    whatToDo: 'Check the address or find it again.',
  });
}

/** A file that was kept, and lies there no more as it was. */
export function gone(name: string): HttpProblem {
  return problemOf(
    404,
    'gone',
    'The file is gone',
    `“${name}” is missing from the data folder, or has changed since it was stored.`,
    {
      whatToDo: 'Put it back from the last copy of the folder, or add it again: it takes its old place.',
    },
  );
}

export function conflict(detail: string, whatToDo: string): HttpProblem {
  return problemOf(409, 'conflict', 'Recorded differently already', detail, { whatToDo });
}

export function forbidden(detail: string, whatToDo: string): HttpProblem {
  return problemOf(403, 'forbidden', 'Refused', detail, { whatToDo });
}

export function unauthorised(): HttpProblem {
  return problemOf(
    401,
    'key-wanted',
    'Key wanted',
    'This counter is reached over a network and asks for its key.',
    {
      whatToDo: 'Give the key the shop set as WAX_KEY.',
    },
  );
}

/** What the store would not keep, as the problem a client can act on. */
export function notKept(outcome: NotKept): HttpProblem {
  switch (outcome.outcome) {
    case 'no such job':
      return notFound('such job');
    case 'no such technician':
      return problemOf(
        422,
        'unknown-technician',
        'Nobody signed for this',
        'The technician named is not on the list of this shop.',
        {
          whatToDo: 'Pick who is at the bench, at the top of the screen.',
        },
      );
    case 'other body under this id':
      return conflict(
        'Something else is on record under this id.',
        'Check what is recorded, then record this again or as a correction.',
      );
    case 'refused':
      return problemOf(422, 'refused', 'Not recorded', outcome.reasons.join(' '), {
        whatToDo: outcome.whatToDo,
        ...(outcome.path
          ? { fields: [{ path: `payload.${outcome.path}`, message: outcome.reasons.join(' ') }] }
          : {}),
      });
  }
}

export function tooLarge(detail: string): HttpProblem {
  return problemOf(413, 'too-large', 'Too large', detail, {
    whatToDo: 'Make it smaller, or send less at once.',
  });
}

type Fields = NonNullable<Problem['fields']>;

/** So many are read out in one sentence. */
const MOST_SAID = 20;

/** Wrong fields as a problem names them: the first ones, and how many there are. */
function named(fields: Fields, found = fields.length, words = ({ message }: Fields[number]) => message) {
  const more = found - Math.min(found, MOST_SAID, fields.length);
  return {
    detail: [...fields.slice(0, MOST_SAID).map(words), ...(more > 0 ? [`And ${more} more.`] : [])].join(' '),
    more: {
      fields: fields.slice(0, MOST_NAMED),
      ...(found > MOST_NAMED ? { fieldsFound: found } : {}),
    },
  };
}

/** A file of this program that does not hold together any more. */
export function damaged(fields: Fields, found = fields.length): HttpProblem {
  const { detail, more } = named(fields, found, ({ path, message }) => `${path}: ${message}`);
  return problemOf(400, 'damaged', 'The file is damaged', detail, {
    ...more,
    whatToDo: 'Save it again where it came from. Nothing of it was taken in.',
  });
}

/** A body that did not come whole, or cannot be unpacked. */
export function notTaken(
  outcome: Exclude<BodyTaken['outcome'], 'taken'>,
  { most }: { readonly most: string },
): HttpProblem {
  switch (outcome) {
    case 'too large':
      return tooLarge(`The file is too large. The limit is ${most}, measured after unpacking.`);
    case 'unknown packing':
      return onTheWay(415, undefined);
    case 'badly packed':
      return unreadable('The file does not unpack.', 'Send it as it is, or pack it again.');
    case 'stopped coming':
      return stoppedComing();
    case 'cut off':
      return unreadable('The file broke off on the way.', 'Send it again. Nothing was stored.');
  }
}

/** A sender that went quiet in the middle. */
export function stoppedComing(): HttpProblem {
  return problemOf(408, 'unreadable', 'Upload stopped', 'The upload stopped before the file was complete.', {
    whatToDo: 'Check the network connection, then send the file again. Nothing was stored.',
  });
}

export function tooDeep(): HttpProblem {
  return problemOf(413, 'too-large', 'Nested too deep', `It is nested deeper than ${MOST_DEPTH} levels.`, {
    whatToDo: 'Nothing this program writes is: send what it wrote.',
  });
}

export function notUtf8(): HttpProblem {
  return problemOf(415, 'unreadable', 'Not readable', 'The data is not encoded in UTF-8.', {
    whatToDo: 'Encode the JSON in UTF-8, and send it with the content type application/json.',
  });
}

export function unreadable(detail: string, whatToDo: string): HttpProblem {
  return problemOf(400, 'unreadable', 'Not readable', detail, { whatToDo });
}

/** What was given contradicts the rest, field by field. */
export function contradicted(fields: Fields): HttpProblem {
  const { detail, more } = named(fields);
  return problemOf(422, 'contradicted', 'It does not fit the rest', detail, {
    ...more,
    whatToDo: 'Put right what is named and send it again.',
  });
}

/** Someone else wrote in between. */
export function movedOn(what: string): HttpProblem {
  return conflict(
    `Someone changed ${what} while you were at it.`,
    'Load it again, and make your change there.',
  );
}

/** Parses a body or query by its schema, or refuses it field by field. */
export function parsed<T>(schema: z.ZodType<T>, value: unknown): T {
  const result = schema.safeParse(value);
  if (result.success) return result.data;
  const { detail, more } = named(fieldsOf(result.error));
  throw problemOf(400, 'invalid', 'Something is filled in wrongly', detail, {
    ...more,
    whatToDo: 'Put right what is named and send it again.',
  });
}

/** The last handler: every failure leaves as a problem document, never as a stack trace. */
export function problemHandler(log: Logger) {
  return (error: unknown, request: Request, response: Response, next: NextFunction): void => {
    if (response.headersSent) {
      next(error);
      return;
    }
    const { problem } = asProblem(error);
    // What the client did wrong is its own to mend; what went wrong here is for whoever reads the log.
    const id = response.getHeader('x-request-id');
    if (problem.status >= 500) {
      const { method, originalUrl } = request;
      log.error({ err: error, request: `${method} ${originalUrl}`, requestId: id }, problem.title);
    }
    const withId: Problem = { ...problem, ...(typeof id === 'string' ? { requestId: id } : {}) };
    response.status(problem.status).type('application/problem+json').send(JSON.stringify(withId));
  };
}

/** What a library between the socket and the routes refuses, with the status it means. */
const refusedOnTheWay = z.object({ type: z.string().optional(), status: z.int().min(400).max(499) });

function asProblem(error: unknown): HttpProblem {
  if (error instanceof HttpProblem) return error;
  if (error instanceof URIError) {
    return problemOf(400, 'unreadable', 'Not readable', 'The address is not readable.', {
      whatToDo: 'Check the address.',
    });
  }
  if (error instanceof TooMuchToRead)
    return tooLarge('Reading it takes more memory than this server gives to one file.');
  const known = refusedOnTheWay.safeParse(error);
  if (known.success) return onTheWay(known.data.status, known.data.type);
  return (
    storageProblem(error) ??
    problemOf(
      500,
      'failed',
      'This went wrong here',
      'The server could not do it. Nothing was half written.',
      {
        whatToDo: 'Try again; if it stays so, look at the server’s log under the id of this request.',
      },
    )
  );
}

function onTheWay(status: number, type: string | undefined): HttpProblem {
  switch (status) {
    case 404:
      return notFound('such file');
    case 413:
      return tooLarge(
        type === 'entity.too.large' ? 'The body is over 1 MB.' : 'There is more in it than is taken at once.',
      );
    case 415:
      return problemOf(
        415,
        'unreadable',
        'Not readable',
        'The body is packed in a way that is not known here.',
        {
          whatToDo: 'Send it as it is, or packed with gzip.',
        },
      );
    default:
      return problemOf(status, 'unreadable', 'Not readable', 'The body is not readable as JSON.', {
        whatToDo: 'Send one JSON document in UTF-8 with the content type application/json.',
      });
  }
}

const coded = z.object({ code: z.string(), syscall: z.string().optional() });
/** What the file system is asked to do here. */
const ON_FILES: readonly string[] = [
  'open',
  'mkdir',
  'rename',
  'write',
  'fsync',
  'stat',
  'scandir',
  'unlink',
  'copyfile',
];

/** What ails the place where everything is kept, by the codes of SQLite and of the file system. */
const STORAGE: readonly (readonly [codes: RegExp, detail: string, whatToDo: string])[] = [
  [
    /^(SQLITE_FULL|ENOSPC|EDQUOT)/,
    'The disk of the server is full: nothing more can be stored.',
    'Make room on it; what was recorded is safe. The bench keeps what you record until then.',
  ],
  [
    /^(SQLITE_READONLY|SQLITE_CANTOPEN|EROFS|EACCES|EPERM)/,
    'The folder of the data cannot be written to.',
    'Give the server the right to write there, or mount it writable.',
  ],
  [
    /^(SQLITE_CORRUPT|SQLITE_NOTADB)/,
    'The database is damaged.',
    'Stop the server and go back to the last copy of the data folder. Write nothing more into this one.',
  ],
  [
    /^(SQLITE_IOERR|EIO)/,
    'The disk of the server does not read or write.',
    'Look at the disk and its cable, and copy the data folder away while it still reads.',
  ],
  [
    /^SQLITE_BUSY/,
    'Another program holds the database.',
    'Close what else has the data folder open, a backup or a second server, and try again.',
  ],
];

const CHECK_DISK = 'Look at its disk, its rights and the server’s log.';

function storageFault(detail: string, whatToDo: string): HttpProblem {
  return problemOf(503, 'not-ready', 'The server cannot keep anything now', detail, { whatToDo });
}

/** The file at the path of the database is not the one that is open. */
function databaseLost({ presence }: DatabaseLost): HttpProblem {
  return presence === 'gone'
    ? storageFault(
        'The database file was moved or deleted while the server was running.',
        'Put wax-lantern.db and wax-lantern.db-wal back where they were. Until then the server records nothing. This browser keeps what you record and sends it afterwards.',
      )
    : storageFault(
        'The database file was replaced, or another program changed it, while the server was running.',
        `Stop the server and start it again. The records made since the last start are kept in the folder “kept”: add them on the first page. ${HOW_TO_PUT_BACK}`,
      );
}

/** Why nothing can be kept now, whatever it is that failed. */
export function notReady(error: unknown): Problem {
  const problem = (storageProblem(error) ?? storageFault('It cannot write to its data folder.', CHECK_DISK))
    .problem;
  return { ...problem, title: 'Not ready' };
}

function storageProblem(error: unknown): HttpProblem | null {
  if (error instanceof DatabaseLost) return databaseLost(error);
  const { code, syscall } = coded.safeParse(error).data ?? {};
  if (code === undefined) return null;
  const found = STORAGE.find(([codes]) => codes.test(code));
  // Whatever else the file system says no to is a matter of the folder, not of what was sent.
  if (!found && syscall !== undefined && ON_FILES.includes(syscall))
    return storageFault(`The folder of the data cannot be used: ${syscall} says ${code}.`, CHECK_DISK);
  if (!found) return null;
  const [, detail, whatToDo] = found;
  return storageFault(detail, whatToDo);
}
