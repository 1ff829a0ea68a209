package dev.ironsieve.core.analysis;

import dev.ironsieve.core.analysis.Certificate.Pair;
import java.util.ArrayList;
import java.util.List;
import java.util.function.IntFunction;

/**
 * All earlier rules with which a rule is correlated, or which it generalises.
 *
 * @param handles by position
 * @param complete false if the budget left it open for others
 */
record PartnerHandles(List<Integer> handles, boolean complete) {
  /** Budgets of one question about a rule that asking for all of its partners may take. */
  static final int QUESTIONS = 40;

  /** Asks for each of some earlier rules whether it is one. */
  static PartnerHandles of(int[] earlier, IntFunction<Pair> question) {
    List<Integer> out = new ArrayList<>();
    boolean complete = true;
    for (int other : earlier) {
      switch (question.apply(other)) {
        case Pair.Found found -> out.add(other);
        case Pair.Undecided open -> complete = false;
        case Pair.None none -> {}
      }
    }
    return new PartnerHandles(out, complete);
  }
}
