import { Button } from '@mui/material';
import { type ReactNode, useRef } from 'react';

interface Props {
  /** What the file is, for those who do not see the button. */
  readonly label: string;
  readonly accept?: string;
  readonly several?: boolean;
  readonly disabled?: boolean;
  readonly onFiles: (files: readonly File[]) => void;
  readonly children: ReactNode;
}

/** A button that asks for a file. */
export function FileButton({ label, accept, several = false, disabled = false, onFiles, children }: Props) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <Button variant="outlined" disabled={disabled} onClick={() => input.current?.click()}>
        {children}
      </Button>
      <input
        ref={input}
        type="file"
        hidden
        accept={accept}
        multiple={several}
        aria-label={label}
        onChange={(event) => {
          const files = [...(event.target.files ?? [])];
          event.target.value = '';
          if (files.length > 0) onFiles(files);
        }}
      />
    </>
  );
}
