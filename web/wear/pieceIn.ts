/** A piece that was found in at a point, as it is written down; mm. */
export const pieceIn = (point: string, mm: number, asTyped: string, doubtKept = false) => ({
  kind: 'wear' as const,
  about: `Piece at ${point}`,
  body: {
    lines: [
      {
        ...{ kind: 'figure' as const, item: 'piece-in', place: point, field: 'value', values: [mm] },
        ...{ asTyped, how: 'measured' as const, set: 'found' as const, doubtKept },
      },
    ],
  },
});
