import { Box, Paper, Typography } from '@mui/material';
import { Link } from 'react-router';

/** What a shop does first that has nothing here yet, in its order. */
const FIRST: readonly { readonly to: string; readonly what: string; readonly why: string }[] = [
  {
    to: '/policy',
    what: 'Set up the shop',
    why: 'Enter its name, hours, prices and ways of working.',
  },
  {
    to: '/book',
    what: 'Import a book',
    why: 'Import calibres and cases from a table, or add them one by one.',
  },
  {
    to: '/tools',
    what: 'Enter the tools',
    why: 'Enter openers and dies. The lamp then names the ones you have.',
  },
  { to: '/stock', what: 'Book in the cells', why: 'Book them in by lot, from the first delivery on.' },
  { to: '/new', what: 'Take in the first watch', why: 'You can do this without the other steps.' },
];

/** The first steps of a new shop; a bundle of its own, wanted once. */
export default function BrandNew() {
  return (
    <Paper component="section" aria-label="What to do first" sx={{ p: 2 }}>
      <Typography variant="h2">What to do first</Typography>
      <Box component="ol" sx={{ m: 0, mt: 1, pl: 3, '& li': { py: 0.5 } }}>
        {FIRST.map(({ to, what, why }) => (
          <Typography key={to} component="li">
            <Link to={to}>{what}</Link>: {why}
          </Typography>
        ))}
      </Box>
    </Paper>
  );
}
