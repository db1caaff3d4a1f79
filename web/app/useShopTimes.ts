import { dayOfMomentInWords, momentInWords, todayIn } from './dates.ts';
import { useSession } from './useSession.ts';

/** Moments as the shop's own clock and calendar show them, wherever the device is that shows them. */
export function useShopTimes() {
  const zone = useSession()?.shop.zone ?? 'UTC';
  return {
    today: () => todayIn(zone),
    day: (moment: string) => dayOfMomentInWords(moment, zone),
    moment: (moment: string) => momentInWords(moment, zone),
  };
}
