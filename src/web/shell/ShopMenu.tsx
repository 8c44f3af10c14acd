import { Menu, MenuItem } from '@mui/material';
import { Link } from 'react-router';
import { SHOP_PAGES } from './shopPages';

interface Props {
  /** What it hangs from; null: it is closed. */
  readonly at: HTMLElement | null;
  readonly onClose: () => void;
}

/** The pages behind the counter in a menu; a bundle of its own, wanted only where the head has no room. */
export default function ShopMenu({ at, onClose }: Props) {
  return (
    <Menu anchorEl={at} open={at !== null} onClose={onClose}>
      {SHOP_PAGES.map(([to, words]) => (
        <MenuItem key={to} component={Link} to={to} onClick={onClose}>
          {words}
        </MenuItem>
      ))}
    </Menu>
  );
}
