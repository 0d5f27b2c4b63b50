/** Where listening stands, in pieces of the clips. */
export interface Standing {
  /** Piece that is heard. */
  at: number;
  /** First and last piece of the loop. */
  loop: readonly [number, number];
  pieces: number;
}

/**
 * Pieces in the order in which they are needed, at most `room` of them: what is heard next, where the loop begins again, what was heard
 * just now, then on to the end of the loop and round again, then what lies outside of it, nearest first. With room for the first six
 * nothing is waited for as long as one listens.
 */
export function wantedPieces({ at, loop: [first, last], pieces }: Standing, room: number): number[] {
  const wanted = new Set([at, at < last ? at + 1 : first, first, Math.min(first + 1, last), Math.max(first, at - 1)]);
  for (let piece = at + 2; piece <= last && wanted.size < room; piece++) wanted.add(piece);
  for (let piece = first; piece < at && wanted.size < room; piece++) wanted.add(piece);
  for (let away = 1; away < pieces && wanted.size < room; away++) {
    if (last + away < pieces) wanted.add(last + away);
    if (first - away >= 0) wanted.add(first - away);
  }
  return [...wanted].filter((piece) => piece >= 0 && piece < pieces).slice(0, room);
}

/** Pieces that are needed whatever room there is, see {@link wantedPieces}. */
export const LEAST_PIECES = 6;
