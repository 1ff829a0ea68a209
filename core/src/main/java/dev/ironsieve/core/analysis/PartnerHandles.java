package dev.ironsieve.core.analysis;

import dev.ironsieve.core.analysis.Certificate.PairProof;
import java.util.ArrayList;
import java.util.List;
import java.util.function.IntFunction;

/**
 * All earlier rules with which a rule is correlated, or which it generalises, by handle.
 *
 * @param handles by position
 * @param complete false if the budget left it open for others
 */
record PartnerHandles(List<Integer> handles, boolean complete) {
  /** Budgets of one question about a rule that asking for all of its partners may take. */
  static final int QUESTIONS = 40;

  /** Tests each of some earlier rules. */
  static PartnerHandles of(int[] earlier, IntFunction<PairProof> question) {
    List<Integer> out = new ArrayList<>();
    boolean complete = true;
    for (int other : earlier) {
      switch (question.apply(other)) {
        case PairProof.Found found -> out.add(other);
        case PairProof.Undecided open -> complete = false;
        case PairProof.None none -> {}
      }
    }
    return new PartnerHandles(out, complete);
  }
}
