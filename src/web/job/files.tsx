import AttachFileIcon from '@mui/icons-material/AttachFile';
import { Box, Button, Stack, Typography } from '@mui/material';
import { useSnackbar } from 'notistack';
import { type ClipboardEvent, useState } from 'react';
import type { Attachment } from '../../contract';
import { askDevice, faultWords, keepFile, useConnected } from '../api/devices';
import { failedInWords } from '../api/http';
import { colours } from '../kit/theme';
import { FileButton } from '../kit/FileButton';
import { useJob } from './JobContext';

const THUMB_PX = 88;

/** One file: a picture as itself, anything else by name. */
export function FileThumb({
  hash,
  attachment,
}: {
  readonly hash: string;
  readonly attachment: Attachment | undefined;
}) {
  const path = `/api/attachments/${hash}`;
  const name = attachment?.name ?? 'file';
  return (
    <Box
      component="a"
      href={path}
      target="_blank"
      rel="noreferrer"
      sx={{ display: 'inline-flex', alignItems: 'center', minHeight: 44, color: 'inherit' }}
    >
      {attachment?.contentType.startsWith('image/') ? (
        <Box
          component="img"
          src={`${path}/thumb`}
          alt={name}
          sx={{
            width: THUMB_PX,
            height: THUMB_PX * 0.75,
            objectFit: 'cover',
            borderRadius: 1,
            border: `1px solid ${colours.smoke}`,
          }}
        />
      ) : (
        <>
          <AttachFileIcon fontSize="small" aria-hidden />
          {name}
        </>
      )}
    </Box>
  );
}

export interface KeptFiles {
  readonly hashes: readonly string[];
  readonly add: (attachment: Attachment) => void;
  readonly remove: (hash: string) => void;
  readonly known: (hash: string) => Attachment | undefined;
}

/** The files of one form, until it is recorded. */
export function useKeptFiles(start: readonly string[]): KeptFiles {
  const { resource } = useJob();
  const [hashes, setHashes] = useState<readonly string[]>(start);
  const [fresh, setFresh] = useState<readonly Attachment[]>([]);
  return {
    hashes,
    add: (attachment) => {
      setFresh((before) => [...before, attachment]);
      setHashes((before) => (before.includes(attachment.hash) ? before : [...before, attachment.hash]));
    },
    remove: (hash) => setHashes((before) => before.filter((each) => each !== hash)),
    known: (hash) => [...resource.attachments, ...fresh].find((each) => each.hash === hash),
  };
}

/** Adds files to a fact: chosen, pasted, or taken by the camera. They are kept before the fact names them. */
export function FilesField({ files }: { readonly files: KeptFiles }) {
  const { technician } = useJob();
  const camera = useConnected('camera', 'picture');
  const [busy, setBusy] = useState(false);
  const { enqueueSnackbar } = useSnackbar();
  const say = (words: string): void => void enqueueSnackbar(words, { variant: 'error' });
  const keep = async (chosen: readonly File[]): Promise<void> => {
    if (!technician) return;
    setBusy(true);
    for (const file of chosen) {
      try {
        files.add(await keepFile(file, technician.id));
      } catch (error) {
        say(`${file.name}: ${failedInWords(error, 'the file cannot be stored now.')}`);
      }
    }
    setBusy(false);
  };
  const photograph = async (): Promise<void> => {
    if (!technician) return;
    const said = await askDevice('camera', { ask: 'picture', technicianId: technician.id });
    if (said.says === 'picture') files.add(said.attachment);
    else say(faultWords(said) ?? 'The camera sent no picture.');
  };
  return (
    <Stack
      direction="row"
      role="group"
      aria-label="Photos and files"
      sx={{ alignItems: 'center', flexWrap: 'wrap', gap: 1 }}
      onPaste={(event: ClipboardEvent) => void keep([...event.clipboardData.files])}
    >
      <FileButton
        label="Photo or file"
        several
        disabled={technician === null || busy}
        onFiles={(chosen) => void keep(chosen)}
      >
        {busy ? 'Storing the file …' : 'Photo or file'}
      </FileButton>
      {camera && (
        <Button variant="outlined" onClick={() => void photograph()} disabled={technician === null}>
          Take a photo
        </Button>
      )}
      {files.hashes.map((hash) => (
        <Stack key={hash} direction="row" sx={{ alignItems: 'center' }}>
          <FileThumb hash={hash} attachment={files.known(hash)} />
          <Button
            onClick={() => files.remove(hash)}
            aria-label={`Remove ${files.known(hash)?.name ?? 'file'}`}
          >
            Remove
          </Button>
        </Stack>
      ))}
      {files.hashes.length === 0 && (
        <Typography variant="body2" color="text.secondary">
          You can also paste a picture here.
        </Typography>
      )}
    </Stack>
  );
}
