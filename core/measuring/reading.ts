/** What one blade did in the gap. */
export type TryResult = 'goes' | 'drags' | 'wont';

/** One blade, or stack of blades, tried in the gap; thickness in mm. */
export interface Try {
  readonly thickness: number;
  readonly result: TryResult;
}

/** What was found at a lash point, by any school of feel. Lengths in mm. */
export type Reading =
  | { readonly kind: 'tries'; readonly tries: readonly Try[]; readonly repeatability?: number }
  | { readonly kind: 'bracket'; readonly go: number; readonly noGo: number }
  | { readonly kind: 'drag'; readonly blade: number; readonly repeatability?: number }
  | { readonly kind: 'value'; readonly value: number; readonly uncertainty: number }
  | { readonly kind: 'go-only'; readonly go: number }
  | { readonly kind: 'no-go-only'; readonly noGo: number };
