/** A hand move that is shown: of a bake, or of a kitchen's freezer. */
interface Placed {
  bake_id: number;
  leaf: string;
  freezer?: number | null;
}

/** Where a hand move is made: a bake's leaf, or the freezer of a kitchen. */
export const stepPath = (s: Placed): string =>
  s.freezer != null ? `/k/${s.freezer}/freezer` : `/b/${s.bake_id}/${s.leaf}`;

/** The kind of a move, without the number that tells it from others of its kind. */
export const stepKind = (key: string): string => key.replace(/\d+$/, "");
