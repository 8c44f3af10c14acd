import { Box, Paper, Typography } from '@mui/material';
import { Link } from 'react-router';

/** What a shop does first that has nothing here yet, in its order. */
const FIRST: readonly { readonly to: string; readonly what: string; readonly why: string }[] = [
  {
    to: '/policy',
    what: 'Say how this shop works',
    why: 'its name, hours, prices, and the ways it was taught.',
  },
  { to: '/book', what: 'Take a book in', why: 'calibres and cases from a table, or written one by one.' },
  { to: '/tools', what: 'Write down the tools', why: 'openers and dies: then the lamp names yours.' },
  { to: '/stock', what: 'Book the cells in', why: 'by lot, from the first delivery on.' },
  { to: '/new', what: 'Take the first watch in', why: 'it goes without the others, too.' },
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
