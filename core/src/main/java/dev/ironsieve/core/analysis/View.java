package dev.ironsieve.core.analysis;

import dev.ironsieve.core.analysis.Certificate.Below;
import dev.ironsieve.core.analysis.Certificate.Pair;
import dev.ironsieve.core.model.ApplicationFact;
import dev.ironsieve.core.model.Breadth;
import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Opening;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.order.Order;
import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.space.Space;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import java.util.stream.Stream;

/**
 * What is told of one rule: its certificates in ids and connections.
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

  /** Uses that a finding names one by one. */
  private static final int MOST_TOLD = 3;

  /** Makes views; asks nothing that is not cheap. */
  record Maker(Order order, Certificates certificates, long steps, Breadth breadth) {

    View of(int slot) {
      Standing standing = standing(slot);
      return new View(standing, findings(slot, standing));
    }

    /** The findings only, which need no example of what the rule decides. */
    List<Finding> findings(int slot) {
      boolean decides = certificates.standing(slot) instanceof Certificate.Standing.Decides;
      return findings(slot, decides ? null : standing(slot));
    }

    /**
     * @param standing may be left out if the rule decides something
     */
    private List<Finding> findings(int slot, Standing standing) {
      List<Finding> findings = new ArrayList<>(2);
      addStanding(findings, slot, standing);
      addBelow(findings, slot);
      addPair(findings, slot, Finding.Kind.CORRELATED, certificates.correlated(slot));
      addPair(findings, slot, Finding.Kind.GENERALISED, certificates.generalised(slot));
      if (Breadths.isTooBroad(slot, order, breadth)) {
        findings.add(
            new Finding(
                Finding.Kind.TOO_BROAD, id(slot), List.of(), Minimality.SMALLEST, null, null, ""));
      }
      EndDates.of(order.rule(slot), order.resolution().day()).ifPresent(findings::add);
      addNeeds(findings, slot);
      addUnseen(findings, slot);
      int next = nextEnabled(slot);
      if (next != Order.NONE && Merging.merged(order.rule(slot), order.rule(next)).isPresent()) {
        findings.add(
            new Finding(
                Finding.Kind.MERGEABLE,
                id(slot),
                List.of(id(next)),
                Minimality.SMALLEST,
                null,
                null,
                ""));
      }
      return List.copyOf(findings);
    }

    private String id(int slot) {
      return slot == Order.NONE ? null : order.rule(slot).id();
    }

    private List<String> ids(int[] slots) {
      return Arrays.stream(slots)
          .mapToLong(slot -> (long) order.position(slot) << 32 | slot)
          .sorted()
          .mapToObj(packed -> id((int) packed))
          .toList();
    }

    /** A connection for a point, which some rules hold, that proves the same. */
    private Connection connection(int[] point, Questions.Wanted proves, int... slots) {
      Questions questions = new Questions(order, steps);
      return order.space().connection(questions.familiar(point, proves, slots));
    }

    private Standing standing(int slot) {
      return switch (certificates.standing(slot)) {
        case Certificate.Standing.Decides s ->
            new Standing.Decides(connection(s.point(), p -> order.first(p) == slot, slot));
        case Certificate.Standing.Covered s -> {
          int by = s.decidedBy();
          yield new Standing.Covered(
              s.shadowed() ? Standing.Kind.SHADOWED : Standing.Kind.REDUNDANT_ABOVE,
              ids(s.causes()),
              s.minimality(),
              connection(s.point(), p -> order.first(p) == by, slot, by),
              id(by));
        }
        case Certificate.Standing.Empty s -> new Standing.Empty();
        case Certificate.Standing.PassedOver s -> new Standing.PassedOver();
        case Certificate.Standing.Undecided s -> new Standing.Undecided(s.question(), steps);
      };
    }

    private void addStanding(List<Finding> out, int slot, Standing standing) {
      switch (standing) {
        case Standing.Covered s ->
            out.add(
                new Finding(
                    s.kind() == Standing.Kind.SHADOWED
                        ? Finding.Kind.SHADOWED
                        : Finding.Kind.REDUNDANT_ABOVE,
                    id(slot),
                    s.causes(),
                    s.minimality(),
                    s.witness(),
                    s.decidedBy(),
                    ""));
        case Standing.Empty s when isOver(slot) -> {} // EXPIRED reports it
        case Standing.Empty s ->
            out.add(
                new Finding(
                    Finding.Kind.EMPTY, id(slot), List.of(), Minimality.SMALLEST, null, null, ""));
        case Standing.Undecided s -> out.add(undecided(slot, s.question()));
        case Standing.Decides s -> {}
        case Standing.PassedOver s -> {}
        case null -> {}
      }
    }

    private boolean isOver(int slot) {
      return order.resolution().day() != null
          && order.rule(slot).validity().isOverBefore(order.resolution().day());
    }

    private Finding undecided(int slot, String question) {
      return new Finding(
          Finding.Kind.UNDECIDED, id(slot), List.of(), Minimality.UNPROVEN, null, null, question);
    }

    private void addBelow(List<Finding> out, int slot) {
      switch (certificates.below(slot)) {
        case Below.Redundant below -> {
          int next = below.next();
          Connection witness =
              connection(
                  below.point(),
                  p ->
                      order.first(p) == slot
                          && order.firstFrom(order.position(slot) + 1, p) == next,
                  slot,
                  next);
          out.add(
              new Finding(
                  Finding.Kind.REDUNDANT_BELOW,
                  id(slot),
                  ids(below.causes()),
                  below.minimality(),
                  witness,
                  id(next),
                  ""));
        }
        case Below.Undecided below ->
            out.add(undecided(slot, "whether the rules below would say the same"));
        case Below.Matters below -> {}
        case Below.NotAsked below -> {}
      }
    }

    private void addPair(List<Finding> out, int slot, Finding.Kind kind, Pair pair) {
      switch (pair) {
        case Pair.Found found -> {
          int other = found.other();
          Connection witness = connection(found.point(), p -> order.first(p) == other, slot, other);
          out.add(
              new Finding(
                  kind, id(slot), List.of(id(other)), Minimality.SMALLEST, witness, id(other), ""));
        }
        case Pair.Undecided open ->
            out.add(undecided(slot, "whether an earlier rule with another verdict overlaps it"));
        case Pair.None none -> {}
      }
    }

    private void addNeeds(List<Finding> out, int slot) {
      Certificate.Needs needs = certificates.needs(slot);
      for (Certificate.Unmet unmet : needs.unmet()) {
        int[] axes = {
          Space.FROM,
          order.space().axis(Coordinate.PERSON),
          order.space().axis(Coordinate.DEVICE),
          order.space().axis(Coordinate.APPLICATION)
        };
        Connection witness =
            connection(
                unmet.point(),
                p -> order.first(p) == slot && isAlike(axes, p, unmet.point()),
                slot);
        String verb = unmet.applications().size() == 1 ? " needs " : " need ";
        String says = String.join(", ", unmet.applications()) + verb + unmet.needed();
        out.add(
            new Finding(
                Finding.Kind.UNMET_NEED,
                id(slot),
                ids(unmet.causes()),
                unmet.minimality(),
                witness,
                id(slot),
                says));
      }
      if (!needs.settled()) {
        out.add(undecided(slot, "whether all that its applications need is allowed"));
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

    /** What the rule tells apart, though it looks alike as long as a connection stays sealed. */
    private void addUnseen(List<Finding> out, int slot) {
      Rule rule = order.rule(slot);
      int axis = order.space().axis(Coordinate.APPLICATION) - Space.TERMS;
      boolean asksForFiles = !rule.term(Coordinate.FILE_KIND).isAny();
      boolean asks = asksForFiles || !rule.term(Coordinate.APPLICATION).isAny();
      if (!rule.isInForce() || rule.opening() == Opening.OPENED) {
        return;
      }
      if (Paths.areUnseen(slot, order)) {
        out.add(
            new Finding(
                Finding.Kind.UNSEEN_FEATURE,
                id(slot),
                List.of(),
                Minimality.SMALLEST,
                null,
                null,
                "the path of a site"));
      }
      if (axis < 0 || !asks) {
        return;
      }
      IntSet wanted = order.match(slot).terms().get(axis);
      List<String> values = order.resolution().vocabularies().get(axis).values();
      List<String> unseen = new ArrayList<>();
      boolean anySealed = false;
      for (ApplicationFact fact : order.resolution().applications()) {
        IntSet hidden = fact.openedOnly();
        boolean sealed = wanted.intersects(hidden);
        anySealed |= sealed;
        if (sealed && !wanted.containsAll(hidden)) {
          wanted.intersect(hidden).forEach(value -> unseen.add(values.get(value)));
        }
      }
      List<String> told = new ArrayList<>(unseen.subList(0, Math.min(MOST_TOLD, unseen.size())));
      if (unseen.size() > MOST_TOLD) {
        told.add(unseen.size() - MOST_TOLD + " more");
      }
      if (asksForFiles && anySealed) {
        told.add("the kind of file");
      }
      if (!told.isEmpty()) {
        String last = told.removeLast();
        String says = told.isEmpty() ? last : String.join(", ", told) + " and " + last;
        out.add(
            new Finding(
                Finding.Kind.UNSEEN_FEATURE,
                id(slot),
                List.of(),
                Minimality.SMALLEST,
                null,
                null,
                says));
      }
    }

    private int nextEnabled(int slot) {
      if (!order.rule(slot).isInForce()) {
        return Order.NONE;
      }
      int position = order.position(slot) + 1;
      while (position < order.size() && !order.rule(order.slotAt(position)).isInForce()) {
        position++;
      }
      return position < order.size() ? order.slotAt(position) : Order.NONE;
    }
  }
}
