import { useLayoutEffect, useState, type ReactNode } from 'react';

type Part<Props> = (props: Props) => ReactNode;

/** A part of a page whose code is fetched when it is first shown. */
interface Source {
  /** what came of it; undefined as long as it has not come */
  part?: Part<never>;
  readonly fetch: () => Promise<void>;
}

const sources = new WeakMap<object, Source>();

/**
 * Makes a component whose code is fetched when it is first shown. It stands in place of React's `lazy`, which shows nothing of what has
 * come for up to 300 ms after a fallback was drawn, so that fallbacks do not flicker: on a page of three such parts a person waited that
 * long three times for what was there in ten. What cannot be fetched breaks the page it stands on, and is fetched again the next time.
 *
 * @param meanwhile stands in its place until it comes
 * @example const CheckChart = onDemand(async () => (await import('./CheckChart.tsx')).CheckChart);
 */
export function onDemand<Props extends object>(
  load: () => Promise<Part<Props>>,
  meanwhile: ReactNode = null,
): Part<Props> {
  const source: Source = { fetch: fetchOnce };
  let asked: Promise<void> | null = null;
  function fetchOnce(): Promise<void> {
    asked ??= load().then(
      (part) => void (source.part = part),
      (error: unknown) => {
        asked = null;
        throw error;
      },
    );
    return asked;
  }
  function OnDemand(props: Props) {
    const Shown = usePart(source) as Part<Props> | undefined;
    return Shown ? <Shown {...props} /> : meanwhile;
  }
  sources.set(OnDemand, source);
  return OnDemand;
}

/** What comes with every page. */
const HERE: Source = { part: () => null, fetch: () => Promise.resolve() };

/** Says whether a part's code is here, and has it fetched if not: for what must not move as the part comes in beside it. */
export function useFetched(part: object | undefined): boolean {
  return usePart((part && sources.get(part)) ?? HERE) !== undefined;
}

function usePart(source: Source): Part<never> | undefined {
  const [, come] = useState<Part<never>>();
  const [failed, setFailed] = useState<{ readonly error: unknown } | null>(null);
  const { part } = source;
  useLayoutEffect(() => {
    // by what was drawn: it may have come between the drawing and here
    if (part) return undefined;
    let isShown = true;
    source.fetch().then(
      () => void (isShown && come(() => source.part)),
      (error: unknown) => void (isShown && setFailed({ error })),
    );
    return () => void (isShown = false);
  }, [source]);
  if (failed) throw failed.error;
  return part;
}
