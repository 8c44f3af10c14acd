import type { NextFunction, Request, Response } from 'express';
import type { Logger } from 'pino';
import { z } from 'zod';
import { fieldsOf, type Problem } from '../contract';
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
        'An entry with this id is on record and says something else.',
        'Record it again as a new entry or a correction.',
      );
    case 'refused':
      return problemOf(422, 'refused', 'Not recorded', outcome.reasons.join(' '), {
        whatToDo: outcome.whatToDo,
      });
  }
}

export function tooLarge(detail: string): HttpProblem {
  return problemOf(413, 'too-large', 'Too large', detail, {
    whatToDo: 'Make it smaller, or send less at once.',
  });
}

/** A file of this program that does not hold together any more. */
export function damaged(fields: NonNullable<Problem['fields']>): HttpProblem {
  return problemOf(
    400,
    'damaged',
    'The file is damaged',
    fields.map(({ path, message }) => `${path}: ${message}`).join(' '),
    { fields, whatToDo: 'Save it again where it came from. Nothing of it was taken in.' },
  );
}

export function unreadable(detail: string, whatToDo: string): HttpProblem {
  return problemOf(400, 'unreadable', 'Not readable', detail, { whatToDo });
}

/** What was given contradicts the rest, field by field. */
export function contradicted(fields: NonNullable<Problem['fields']>): HttpProblem {
  return problemOf(
    422,
    'contradicted',
    'It does not fit the rest',
    fields.map((field) => field.message).join(' '),
    { fields, whatToDo: 'Put right what is named and send it again.' },
  );
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
  const fields = fieldsOf(result.error);
  throw problemOf(
    400,
    'invalid',
    'Something is filled in wrongly',
    fields.map((field) => field.message).join(' '),
    {
      fields,
      whatToDo: 'Put right what is named and send it again.',
    },
  );
}

/** The last handler: every failure leaves as a problem document, never as a stack trace. */
export function problemHandler(log: Logger) {
  return (error: unknown, _request: Request, response: Response, next: NextFunction): void => {
    if (response.headersSent) {
      next(error);
      return;
    }
    const { problem } = asProblem(error, log);
    response.status(problem.status).type('application/problem+json').send(JSON.stringify(problem));
  };
}

const bodyError = z.object({ type: z.string(), status: z.int(), expose: z.literal(true) });

function asProblem(error: unknown, log: Logger): HttpProblem {
  if (error instanceof HttpProblem) return error;
  const known = bodyError.safeParse(error);
  if (known.success && known.data.type === 'entity.too.large') {
    return problemOf(413, 'too-large', 'Too large', 'The body is over 1 MB.', {
      whatToDo: 'Send less at once.',
    });
  }
  if (known.success) {
    return problemOf(known.data.status, 'unreadable', 'Not readable', 'The body is not readable as JSON.', {
      whatToDo: 'Send one JSON document in UTF-8 with the content type application/json.',
    });
  }
  if (error instanceof URIError) {
    return problemOf(400, 'unreadable', 'Not readable', 'The address is not readable.', {
      whatToDo: 'Check the address.',
    });
  }
  log.error({ error }, 'request failed');
  return problemOf(
    500,
    'failed',
    'This went wrong here',
    'The server could not do it. Nothing was half written.',
    {
      whatToDo: 'Try again; if it stays so, look at the server’s log.',
    },
  );
}
