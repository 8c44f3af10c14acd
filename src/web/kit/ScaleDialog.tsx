import {
  Box,
  Button,
  Dialog,
  DialogActions,
  DialogContent,
  DialogTitle,
  Slider,
  Typography,
} from '@mui/material';
import { useState } from 'react';
import { CARD_MM, NOMINAL_PX_PER_MM, setScreenScale, useScreenScale } from './screenScale';
import { colours } from './theme';

/** Calibrates drawings on this screen by a bank card's long edge, once. */
export function ScaleDialog({
  open,
  onClose,
}: {
  readonly open: boolean;
  readonly onClose: (calibrated: boolean) => void;
}) {
  const kept = useScreenScale();
  const [pxPerMm, setPxPerMm] = useState(kept ?? NOMINAL_PX_PER_MM);
  return (
    <Dialog open={open} onClose={() => onClose(false)} aria-labelledby="scale-title" maxWidth="md">
      <DialogTitle id="scale-title">Drawings to size on this screen</DialogTitle>
      <DialogContent>
        <Typography sx={{ mb: 2 }}>
          Hold the long edge of a bank card against the bar. Change the bar until both have the same length.
          You do this once for each screen.
        </Typography>
        <Box sx={{ overflowX: 'auto' }} tabIndex={0} role="group" aria-label="The bar">
          <Box
            role="img"
            aria-label={`A bar of ${CARD_MM} mm`}
            sx={{
              width: CARD_MM * pxPerMm,
              height: 90,
              bgcolor: colours.thread,
              border: `2px solid ${colours.soot}`,
              borderWidth: '2px 3px',
              borderRadius: 1,
              boxSizing: 'border-box',
            }}
          />
        </Box>
        <Slider
          aria-label="Length of the bar"
          value={pxPerMm}
          min={2}
          max={10}
          step={0.01}
          onChange={(_, value) => setPxPerMm(value)}
          sx={{ mt: 2 }}
        />
        <Typography variant="mark" component="p">
          {pxPerMm.toFixed(2)} pixels per millimetre
        </Typography>
      </DialogContent>
      <DialogActions>
        <Button onClick={() => onClose(false)}>Cancel</Button>
        <Button
          variant="contained"
          onClick={() => {
            setScreenScale(pxPerMm);
            onClose(true);
          }}
        >
          Save scale
        </Button>
      </DialogActions>
    </Dialog>
  );
}
