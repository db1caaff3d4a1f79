import { copyWithStructuralSharing } from '@reduxjs/toolkit/query';
import { useState } from 'react';

/**
 * Keeps every part of what is worked out again that says what it said before: what is drawn from it is drawn again only
 * where it says something else. For plain values, such as rows and figures.
 *
 * @example const shown = useShared(headPoints(points, round));
 */
export function useShared<Value>(value: Value): Value {
  const [share] = useState(sharing<Value>);
  return share(value);
}

function sharing<Value>(): (value: Value) => Value {
  let before: { readonly from: Value; readonly kept: Value } | undefined;
  return (value) => {
    if (before === undefined || before.from !== value)
      before = { from: value, kept: before ? copyWithStructuralSharing(before.kept, value) : value };
    return before.kept;
  };
}
