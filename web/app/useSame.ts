import { useState } from 'react';
import { shallowEqual } from 'react-redux';

/**
 * Keeps an object put together at every render for as long as each of its parts is the very same: what goes by it is drawn
 * again only where something of it is another.
 *
 * @example const work = useSame({ build, select });
 */
export function useSame<Value extends object>(value: Value): Value {
  const [keep] = useState(keeping<Value>);
  return keep(value);
}

function keeping<Value extends object>(): (value: Value) => Value {
  let kept: Value | undefined;
  return (value) => {
    if (kept === undefined || !shallowEqual(kept, value)) kept = value;
    return kept;
  };
}
