import { useEffect, useState } from 'react';
import { shopNow, useShop } from './resources';

/** The shop's clock, as often as it is looked at: every second, or oftener where a hand waits for it. Null: not known yet. */
export function useShopClock(everyMs = 1000): string | null {
  const { data: shop } = useShop();
  const [nowUtc, setNow] = useState(() => (shop ? shopNow(shop) : null));
  useEffect(() => {
    if (!shop) return undefined;
    const timer = setInterval(() => setNow(shopNow(shop)), everyMs);
    return () => clearInterval(timer);
  }, [shop, everyMs]);
  return nowUtc;
}
