import { Autocomplete, Box, TextField } from '@mui/material';
import { useRef, useState } from 'react';
import { isSearchedFor } from '../../core/craft/find';
import { KeyCap } from '../kit/KeyCap';
import { useKey } from '../kit/keys/KeysProvider';
import { useRecordedLines } from './recordedLines';

const KEY = 'o';

/** What else may be recorded in this stage, found by typing; its form opens with the first field in focus. */
export function AlsoToRecord() {
  const { offered } = useRecordedLines();
  const [typed, setTyped] = useState('');
  const input = useRef<HTMLInputElement>(null);
  useKey(KEY, 'Record something else in this stage', () => input.current?.focus());
  if (offered.length === 0) return null;
  return (
    <Autocomplete
      options={[...offered]}
      value={null}
      inputValue={typed}
      openOnFocus
      autoHighlight
      blurOnSelect
      getOptionLabel={({ title }) => title}
      filterOptions={(facts, { inputValue }) => facts.filter(({ title }) => isSearchedFor(title, inputValue))}
      getOptionKey={({ title }) => title}
      onInputChange={(_, text, reason) => setTyped(reason === 'input' ? text : '')}
      onChange={(_, fact) => fact?.open()}
      noOptionsText="This stage has no record of that name."
      renderInput={(params) => (
        <TextField
          {...params}
          inputRef={input}
          label="More to record"
          placeholder={offered.map(({ title }) => title).join(', ')}
          slotProps={{
            ...params.slotProps,
            inputLabel: { shrink: true },
            input: {
              ...params.slotProps.input,
              startAdornment: (
                <Box component="span" sx={{ pl: 0.5, pr: 0.5 }}>
                  <KeyCap>{KEY}</KeyCap>
                </Box>
              ),
            },
          }}
        />
      )}
    />
  );
}
