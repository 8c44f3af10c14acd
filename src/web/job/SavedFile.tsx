import { Button, Typography } from '@mui/material';
import type { SavedSize } from '../../contract';
import { figure } from '../../core/craft/judgement';
import { useResource } from '../api/resource';

const MB = 1024 * 1024;

/** Saves a job or a visit as a file, and says beforehand where another counter cannot take it. */
export function SavedFile({
  href,
  label,
  outlined = false,
}: {
  readonly href: string;
  readonly label: string;
  readonly outlined?: boolean;
}) {
  const { data: size } = useResource<SavedSize>(`${href}/size`);
  return (
    <>
      <Button href={href} {...(outlined ? { variant: 'outlined' } : {})}>
        {label}
      </Button>
      {size?.isTakenElsewhere === false && (
        <Typography variant="body2" role="note">
          This file has {figure(size.bytes / MB, 0)} MB. Another counter accepts at most{' '}
          {figure(size.mostElsewhereBytes / MB, 0)} MB. Keep this file as a copy. Send its videos as separate
          files.
        </Typography>
      )}
    </>
  );
}
