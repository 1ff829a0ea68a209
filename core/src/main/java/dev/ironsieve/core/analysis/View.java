package dev.ironsieve.core.analysis;

import dev.ironsieve.core.analysis.Certificate.PairProof;
import dev.ironsieve.core.analysis.Certificate.RedundancyProof;
import dev.ironsieve.core.model.Breadth;
import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.ruleindex.RuleIndex;
import dev.ironsieve.core.space.Space;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import java.util.stream.Stream;

/**
 * The standing and the findings of one rule, with ids and connections in place of the handles and
 * points of its certificates.
 *
 * @param standing where it stands
 * @param findings in the order of their kinds
 */
record View(Standing standing, List<Finding> findings) {

  /** Every connection that is given as an example. */
  Stream<Connection> witnesses() {
    Connection standing =
        switch (this.standing) {
          case Standing.Decides s -> s.witness();
          case Standing.Covered s -> s.witness();
          case Standing.Empty s -> null;
          case Standing.PassedOver s -> null;
          case Standing.Undecided s -> null;
        };
    return Stream.concat(Stream.ofNullable(standing), findings.stream().map(Finding::witness))
        .filter(Objects::nonNull);
  }

  /** Makes views of certificates that are there already. */
  record Maker(RuleIndex index, Certificates certificates, long steps, Breadth breadth) {

    View of(int handle) {
      Standing standing = standing(handle);
      return new View(standing, findings(handle, standing));
    }

    /** The findings only, which do not need a witness of the rule's own reach. */
    List<Finding> findings(int handle) {
      boolean decides = certificates.standing(handle) instanceof Certificate.StandingProof.Decides;
      return findings(handle, decides ? null : standing(handle));
    }

    /**
     * @param standing may be left out if the rule decides something
     */
    private List<Finding> findings(int handle, Standing standing) {
      List<Finding> findings = new ArrayList<>(2);
      addStanding(findings, handle, standing);
      addBelow(findings, handle);
      addPair(findings, handle, Finding.Kind.CORRELATED, certificates.correlated(handle));
      addPair(findings, handle, Finding.Kind.GENERALISED, certificates.generalised(handle));
      TooBroad.of(handle, index, breadth).ifPresent(findings::add);
      Expired.of(index.rule(handle), index.resolution().day()).ifPresent(findings::add);
      addNeeds(findings, handle);
      findings.addAll(UnseenFeature.of(handle, index));
      Mergeable.of(handle, index).ifPresent(findings::add);
      return List.copyOf(findings);
    }

    private String id(int handle) {
      return handle == RuleIndex.NONE ? null : index.rule(handle).id();
    }

    private List<String> ids(int[] handles) {
      return Arrays.stream(handles)
          .mapToLong(handle -> (long) index.position(handle) << 32 | handle)
          .sorted()
          .mapToObj(packed -> id((int) packed))
          .toList();
    }

    /** A connection for a point, which some rules hold, that proves the same. */
    private Connection connection(int[] point, Questions.Wanted proves, int... handles) {
      Questions questions = new Questions(index, steps);
      return index.space().connection(questions.familiar(point, proves, handles));
    }

    private Standing standing(int handle) {
      return switch (certificates.standing(handle)) {
        case Certificate.StandingProof.Decides s ->
            new Standing.Decides(connection(s.point(), p -> index.first(p) == handle, handle));
        case Certificate.StandingProof.Covered s -> {
          int by = s.decidedBy();
          yield new Standing.Covered(
              s.shadowed() ? Standing.Kind.SHADOWED : Standing.Kind.REDUNDANT_ABOVE,
              ids(s.causes()),
              s.minimality(),
              connection(s.point(), p -> index.first(p) == by, handle, by),
              id(by));
        }
        case Certificate.StandingProof.Empty s -> new Standing.Empty();
        case Certificate.StandingProof.PassedOver s -> new Standing.PassedOver();
        case Certificate.StandingProof.Undecided s -> new Standing.Undecided(s.question(), steps);
      };
    }

    private void addStanding(List<Finding> out, int handle, Standing standing) {
      switch (standing) {
        case Standing.Covered s ->
            out.add(
                Finding.of(
                    s.kind() == Standing.Kind.SHADOWED
                        ? Finding.Kind.SHADOWED
                        : Finding.Kind.REDUNDANT_ABOVE,
                    id(handle),
                    s.causes(),
                    s.minimality(),
                    s.witness(),
                    s.decidedBy()));
        case Standing.Empty s -> Empty.of(handle, index).ifPresent(out::add);
        case Standing.Undecided s -> out.add(Finding.undecided(id(handle), s.question()));
        case Standing.Decides s -> {}
        case Standing.PassedOver s -> {}
        case null -> {}
      }
    }

    private void addBelow(List<Finding> out, int handle) {
      switch (certificates.below(handle)) {
        case RedundancyProof.Redundant below -> {
          int next = below.next();
          Connection witness =
              connection(
                  below.point(),
                  p ->
                      index.first(p) == handle
                          && index.firstFrom(index.position(handle) + 1, p) == next,
                  handle,
                  next);
          out.add(
              Finding.of(
                  Finding.Kind.REDUNDANT_BELOW,
                  id(handle),
                  ids(below.causes()),
                  below.minimality(),
                  witness,
                  id(next)));
        }
        case RedundancyProof.Undecided below ->
            out.add(Finding.undecided(id(handle), "whether the rules below would say the same"));
        case RedundancyProof.Matters below -> {}
        case RedundancyProof.NotAsked below -> {}
      }
    }

    private void addPair(List<Finding> out, int handle, Finding.Kind kind, PairProof pair) {
      switch (pair) {
        case PairProof.Found found -> {
          int other = found.other();
          Connection witness =
              connection(found.point(), p -> index.first(p) == other, handle, other);
          out.add(
              Finding.of(
                  kind, id(handle), List.of(id(other)), Minimality.SMALLEST, witness, id(other)));
        }
        case PairProof.Undecided open ->
            out.add(
                Finding.undecided(
                    id(handle), "whether an earlier rule with another verdict overlaps it"));
        case PairProof.None none -> {}
      }
    }

    private void addNeeds(List<Finding> out, int handle) {
      Certificate.NeedsProof needs = certificates.needs(handle);
      for (Certificate.Unmet unmet : needs.unmet()) {
        int[] axes = {
          Space.FROM,
          index.space().axis(Coordinate.PERSON),
          index.space().axis(Coordinate.DEVICE),
          index.space().axis(Coordinate.APPLICATION)
        };
        Connection witness =
            connection(
                unmet.point(),
                p -> index.first(p) == handle && isAlike(axes, p, unmet.point()),
                handle);
        out.add(
            new Finding(
                Finding.Kind.UNMET_NEED,
                id(handle),
                ids(unmet.causes()),
                unmet.minimality(),
                witness,
                id(handle),
                "",
                new Finding.Need(unmet.applications(), unmet.needed())));
      }
      if (!needs.settled()) {
        out.add(Finding.undecided(id(handle), "whether all that its applications need is allowed"));
      }
    }

    private static boolean isAlike(int[] axes, int[] one, int[] other) {
      for (int axis : axes) {
        if (axis >= 0 && one[axis] != other[axis]) {
          return false;
        }
      }
      return true;
    }
  }
}
