package dev.ironsieve.core.space;

import dev.ironsieve.core.sets.IntSet;
import java.util.Arrays;
import java.util.Collection;

/**
 * The coarsest partition of the pieces of a line into classes that no given set tells apart. Built
 * by refinement (Hopcroft's step without the queue, since the sets are given): O(sum of the sets'
 * sizes).
 */
final class Partition {
  private final int[] classOf;
  private final int[] firstPiece;

  /**
   * @param pieces number of pieces, which are 0 to pieces - 1
   * @param sets the sets of pieces that have to be told apart
   */
  Partition(int pieces, Collection<IntSet> sets) {
    int[] of = new int[pieces];
    int[] size = new int[Math.max(1, pieces)];
    size[0] = pieces;
    int count = pieces == 0 ? 0 : 1;
    int[] held = new int[Math.max(1, pieces)];
    int[] splitTo = new int[Math.max(1, pieces)];
    for (IntSet set : sets) {
      if (set.size() == pieces) {
        continue;
      }
      set.forEach(piece -> held[of[piece]]++);
      int before = count;
      int[] fresh = {count};
      set.forEach(
          piece -> {
            int old = of[piece];
            if (old >= before || held[old] == size[old]) {
              return;
            }
            if (splitTo[old] == 0) {
              splitTo[old] = fresh[0]++;
            }
            of[piece] = splitTo[old];
          });
      count = fresh[0];
      for (int c = 0; c < before; c++) {
        if (splitTo[c] != 0) {
          size[splitTo[c]] = held[c];
          size[c] -= held[c];
          splitTo[c] = 0;
        }
        held[c] = 0;
      }
    }
    // Classes are numbered by their first piece, so that runs of pieces stay runs of classes.
    int[] renamed = new int[count];
    Arrays.fill(renamed, -1);
    firstPiece = new int[count];
    classOf = new int[pieces];
    int next = 0;
    for (int piece = 0; piece < pieces; piece++) {
      if (renamed[of[piece]] < 0) {
        firstPiece[next] = piece;
        renamed[of[piece]] = next++;
      }
      classOf[piece] = renamed[of[piece]];
    }
  }

  int classes() {
    return firstPiece.length;
  }

  int classOf(int piece) {
    return classOf[piece];
  }

  /** The lowest piece of class {@code c}. */
  int firstPiece(int c) {
    return firstPiece[c];
  }
}
