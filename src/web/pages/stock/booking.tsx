import { Alert } from '@mui/material';
import { type ReactNode, useRef, useState } from 'react';
import { mutate } from 'swr';
import { failedInWords } from '../../api/http';

export interface Booking {
  /** Books at the server, loads the stock again and says so; whether it was booked. */
  readonly book: (work: () => Promise<unknown>, words: string) => Promise<boolean>;
  readonly say: (said: { readonly wrong: boolean; readonly text: string } | null) => void;
  /** What came of it last, to be shown beside the button. */
  readonly notice: ReactNode;
}

/** Booking something in the stock, and what came of it. */
export function useBooking(): Booking {
  const [said, say] = useState<{ readonly wrong: boolean; readonly text: string } | null>(null);
  const begun = useRef(0);
  const book: Booking['book'] = async (work, words) => {
    begun.current += 1;
    const mine = begun.current;
    try {
      await work();
      await Promise.all([mutate('/api/stock'), mutate('/api/day')]);
      // What was begun since has the word; what went wrong is told whenever it comes.
      if (mine === begun.current) say({ wrong: false, text: words });
      return true;
    } catch (error) {
      say({ wrong: true, text: failedInWords(error, 'nothing was booked.') });
      return false;
    }
  };
  return {
    book,
    say,
    notice: said && <Alert severity={said.wrong ? 'error' : 'success'}>{said.text}</Alert>,
  };
}
