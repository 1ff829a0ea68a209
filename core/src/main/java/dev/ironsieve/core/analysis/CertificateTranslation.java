package dev.ironsieve.core.analysis;

import dev.ironsieve.core.analysis.Certificate.NeedsProof;
import dev.ironsieve.core.analysis.Certificate.PairProof;
import dev.ironsieve.core.analysis.Certificate.RedundancyProof;
import dev.ironsieve.core.analysis.Certificate.StandingProof;
import dev.ironsieve.core.analysis.Certificate.Unmet;
import dev.ironsieve.core.ruleindex.RuleIndex;
import java.util.Arrays;

/**
 * Translates certificates when the same rules are laid out anew: what a point proves of rules, any
 * connection of its class proves, and so does the point that holds that one in the other space.
 *
 * @param from the rules as they were laid out
 * @param relayout the same rules, in the same order
 */
record CertificateTranslation(RuleIndex from, RuleIndex.Relayout relayout) {
  RuleIndex to() {
    return relayout.index();
  }

  int handle(int handle) {
    return handle == RuleIndex.NONE ? RuleIndex.NONE : to().handleAt(from.position(handle));
  }

  private int[] handles(int[] handles) {
    return Arrays.stream(handles).map(this::handle).sorted().toArray();
  }

  private int[] point(int[] point) {
    return relayout.points().apply(point);
  }

  StandingProof of(StandingProof standing) {
    return switch (standing) {
      case StandingProof.Decides s -> new StandingProof.Decides(point(s.point()));
      case StandingProof.Covered s ->
          new StandingProof.Covered(
              s.shadowed(),
              handles(s.causes()),
              s.minimality(),
              point(s.point()),
              handle(s.decidedBy()));
      case StandingProof.Empty s -> s;
      case StandingProof.PassedOver s -> s;
      case StandingProof.Undecided s -> s;
    };
  }

  RedundancyProof of(RedundancyProof below) {
    return switch (below) {
      case RedundancyProof.Matters b ->
          new RedundancyProof.Matters(point(b.point()), handle(b.next()));
      case RedundancyProof.Redundant b ->
          new RedundancyProof.Redundant(
              handles(b.causes()), b.minimality(), point(b.point()), handle(b.next()));
      case RedundancyProof.NotAsked b -> b;
      case RedundancyProof.Undecided b -> b;
    };
  }

  PairProof of(PairProof pair) {
    return switch (pair) {
      case PairProof.Found p -> new PairProof.Found(handle(p.other()), point(p.point()));
      case PairProof.None p -> p;
      case PairProof.Undecided p -> p;
    };
  }

  NeedsProof of(NeedsProof needs) {
    return needs.unmet().isEmpty()
        ? needs
        : new NeedsProof(needs.unmet().stream().map(this::of).toList(), needs.settled());
  }

  private Unmet of(Unmet unmet) {
    return new Unmet(
        unmet.applications(),
        unmet.needed(),
        point(unmet.point()),
        handles(unmet.causes()),
        unmet.minimality());
  }
}
