import { useShopTimes } from './useShopTimes.ts';

/** A moment by the shop's own clock, or only the day it lies on there. */
export function ShopTime({ at, day = false }: { readonly at: string; readonly day?: boolean }) {
  const times = useShopTimes();
  return <time dateTime={at}>{day ? times.day(at) : times.moment(at)}</time>;
}
