import '@fontsource/atkinson-hyperlegible/latin-400.css';
import '@fontsource/atkinson-hyperlegible/latin-700.css';
import {
  AppBar,
  Autocomplete,
  Box,
  Button,
  CssBaseline,
  FormControlLabel,
  Paper,
  Radio,
  RadioGroup,
  Stack,
  TextField,
  ThemeProvider,
  Toolbar,
  Typography,
  createTheme,
} from '@mui/material';
import { zodResolver } from '@hookform/resolvers/zod';
import { SnackbarProvider } from 'notistack';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { Controller, useForm } from 'react-hook-form';
import { createBrowserRouter, RouterProvider } from 'react-router';
import useSWR from 'swr';
import { z } from 'zod';

/** One form with the libraries of the application and nothing of its own: what any page made of them costs. */
const schema = z.object({ name: z.string().min(1), serial: z.string(), kind: z.string(), note: z.string() });
const KINDS = ['snap', 'screwed', 'hatch'];

function Form() {
  const { data } = useSWR('/api/shop', (path: string) =>
    fetch(path).then((answer) => answer.json() as Promise<{ readonly shop: { readonly name: string } }>),
  );
  const { register, control, handleSubmit } = useForm({
    resolver: zodResolver(schema),
    defaultValues: { name: '', serial: '', kind: '', note: '' },
  });
  if (data === undefined) return null;
  return (
    <Paper component="main" sx={{ p: 2 }}>
      <Stack component="form" spacing={2} onSubmit={(event) => void handleSubmit(() => undefined)(event)}>
        <Typography variant="h1">{data.shop.name}</Typography>
        <TextField label="Name" {...register('name')} />
        <TextField label="Serial" {...register('serial')} />
        <TextField label="Note" {...register('note')} />
        <Controller
          name="kind"
          control={control}
          render={({ field }) => (
            <RadioGroup row {...field}>
              {KINDS.map((kind) => (
                <FormControlLabel key={kind} value={kind} label={kind} control={<Radio />} />
              ))}
            </RadioGroup>
          )}
        />
        <Autocomplete options={KINDS} renderInput={(params) => <TextField {...params} label="Kind" />} />
        <Button type="submit" variant="contained">
          Record
        </Button>
      </Stack>
    </Paper>
  );
}

const router = createBrowserRouter([
  {
    path: '*',
    element: (
      <Box>
        <AppBar position="static">
          <Toolbar>
            <Typography>A bare page</Typography>
          </Toolbar>
        </AppBar>
        <Form />
      </Box>
    ),
  },
]);

const root = document.getElementById('root');
if (root)
  createRoot(root).render(
    <StrictMode>
      <ThemeProvider theme={createTheme()}>
        <CssBaseline />
        <SnackbarProvider>
          <RouterProvider router={router} />
        </SnackbarProvider>
      </ThemeProvider>
    </StrictMode>,
  );
