import type { BuildRoom, BuildRowChange } from '@zero-lash/contract/builds';
import type { OutboxItem } from '../app/outboxItem.ts';
import type { BuildView } from './buildView.ts';
import { applyRow, roomOf, writeOf } from './rooms.ts';

/** A build with what the server does not have yet applied to it, in the order it was done. */
export function withPending(build: BuildView, items: readonly OutboxItem[]): BuildView {
  return items
    .filter((item) => item.buildId === build.id && item.refused === null)
    .reduce((view, item) => {
      const write = writeOf(item.kind);
      const row = write?.pending(item, view);
      if (!write || !row) return view;
      const room = roomOf(write.brings) as Exclude<BuildRoom, 'head'>;
      const change = { kind: write.brings, row } as BuildRowChange;
      return { ...view, [room]: applyRow(view[room] as never, change) };
    }, build);
}
