package dev.ironsieve.core.analysis;

import dev.ironsieve.core.analysis.Certificate.Below;
import dev.ironsieve.core.analysis.Certificate.Pair;
import dev.ironsieve.core.analysis.Certificate.Standing;
import dev.ironsieve.core.order.Around;
import dev.ironsieve.core.order.Order;
import dev.ironsieve.core.parallel.Tasks;
import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.space.Box;
import dev.ironsieve.core.space.Space;
import java.util.Arrays;
import java.util.BitSet;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.function.IntConsumer;
import java.util.stream.IntStream;

/**
 * The certificates of all rules of an {@link Order}. All at once first, on several threads; after
 * an update of the order only those that the update touches are made again.
 */
final class Certificates {
  /** The rules are cut into so many parts, with counts of their own for the guesses. */
  private static final int PARTS = 16;

  /** And into so many portions that are worked on in one go. */
  private static final int PORTIONS = 64;

  /** Segments of an end, to tell which rules lie near each other. */
  private static final int SEGMENTS = 256;

  /** A rule is taken to have a whole end if it spans more than one in so many of its labels. */
  private static final int WIDE = 8;

  /** From so many rules on an update asks about them on several threads. */
  static final int MANY = 64;

  private final Order order;
  private final Questions questions;
  private final Covering covering;
  private final Redundancy redundancy;
  private final Pairs pairs;
  private final Needs asksNeeds;
  private Corners corners; // of the whole order
  private Standing[] standings; // all by slot
  private Below[] belows;
  private Pair[] correlated;
  private Pair[] generalised;
  private Certificate.Needs[] needs;

  Certificates(Order order, long steps) {
    this.order = order;
    questions = new Questions(order, steps);
    covering = new Covering(questions);
    redundancy = new Redundancy(questions);
    pairs = new Pairs(questions, slot -> standings[slot]);
    asksNeeds = new Needs(questions);
    grow();
    Corners[] counted = Corners.upTo(order, PARTS);
    corners = counted[PARTS - 1];
    each(counted, (slot, c) -> standings[slot] = covering.of(slot, c));
    pairs.use(new Witnesses(order, standings));
    each(
        counted,
        (slot, c) -> {
          Around around = around(slot);
          askBelow(slot, around, c);
          askCorrelated(slot, around, c);
          askGeneralised(slot, around);
          needs[slot] = asksNeeds.of(slot);
        });
    pairs.use(null);
  }

  /** The same certificates for the same rules, which were laid out anew. */
  Certificates(Certificates known, Move move, long steps) {
    order = move.to();
    questions = new Questions(order, steps);
    covering = new Covering(questions);
    redundancy = new Redundancy(questions);
    pairs = new Pairs(questions, slot -> standings[slot]);
    asksNeeds = new Needs(questions);
    corners = known.corners.with(order, move.anew().axes());
    grow();
    IntStream.range(0, order.size())
        .parallel()
        .forEach(
            position -> {
              int was = move.from().slotAt(position);
              int slot = order.slotAt(position);
              standings[slot] = move.of(known.standings[was]);
              belows[slot] = move.of(known.belows[was]);
              correlated[slot] = move.of(known.correlated[was]);
              generalised[slot] = move.of(known.generalised[was]);
              needs[slot] = move.of(known.needs[was]);
            });
  }

  /**
   * Asks again what can hang on which hosts are told apart, whatever the rules say.
   *
   * @return slots of the rules about which it was asked
   */
  BitSet askNeeds() {
    BitSet asked = new BitSet();
    for (int i = 0; i < order.size(); i++) {
      int slot = order.slotAt(i);
      if (asksNeeds.asks(slot)) {
        needs[slot] = asksNeeds.of(slot);
        asked.set(slot);
      }
    }
    return asked;
  }

  private interface Ask {
    void about(int slot, Corners corners);
  }

  /** Asks about every rule; those that lie near each other one after the other. */
  private void each(Corners[] counted, Ask ask) {
    int[] positions =
        IntStream.range(0, order.size())
            .mapToLong(position -> place(order.slotAt(position)) << 32 | position)
            .sorted()
            .mapToInt(packed -> (int) packed)
            .toArray();
    Tasks.each(
        PORTIONS,
        portion -> {
          int end = (int) ((long) positions.length * (portion + 1) / PORTIONS);
          for (int i = (int) ((long) positions.length * portion / PORTIONS); i < end; i++) {
            int part = (int) ((long) positions[i] * counted.length / positions.length);
            ask.about(order.slotAt(positions[i]), counted[part]);
          }
        });
  }

  /**
   * Where a rule lies, in segments of both ends: what is read for rules of the same place is near
   * then. The rules of a whole end come first, since they take the longest.
   */
  private long place(int slot) {
    List<Box> region = order.region(slot);
    return region.isEmpty()
        ? 0
        : segment(region.getFirst(), Space.FROM) << Integer.SIZE / 2
            | segment(region.getFirst(), Space.TO);
  }

  private static long segment(Box box, int end) {
    IntSet side = box.side(end);
    boolean wide = side.max() - side.min() > Space.LABELS / WIDE;
    return wide ? 0 : 1 + side.min() / (Space.LABELS / SEGMENTS);
  }

  /** Asks about some rules, on several threads if they are many. */
  private void each(BitSet slots, Ask ask) {
    int[] all = slots.stream().toArray();
    if (all.length < MANY) {
      for (int slot : all) {
        ask.about(slot, corners);
      }
      return;
    }
    Tasks.each(
        PARTS,
        part -> {
          for (int i = part; i < all.length; i += PARTS) {
            ask.about(all[i], corners);
          }
        });
  }

  private void grow() {
    int slots = order.slots();
    standings = standings == null ? new Standing[slots] : Arrays.copyOf(standings, slots);
    belows = belows == null ? new Below[slots] : Arrays.copyOf(belows, slots);
    correlated = correlated == null ? new Pair[slots] : Arrays.copyOf(correlated, slots);
    generalised = generalised == null ? new Pair[slots] : Arrays.copyOf(generalised, slots);
    needs = needs == null ? new Certificate.Needs[slots] : Arrays.copyOf(needs, slots);
  }

  private void askBelow(int slot, Around around, Corners c) {
    belows[slot] =
        standings[slot] instanceof Standing.Decides decides
            ? redundancy.of(slot, decides.point(), around, c)
            : Certificate.NOT_ASKED;
  }

  private boolean matches(int slot) {
    return order.rule(slot).isInForce() && !order.region(slot).isEmpty();
  }

  private Around around(int slot) {
    return order.around(matches(slot) ? order.region(slot) : List.of());
  }

  private void askCorrelated(int slot, Around around, Corners c) {
    correlated[slot] = matches(slot) ? pairs.correlated(slot, around, c) : Certificate.NONE;
  }

  private void askGeneralised(int slot, Around around) {
    generalised[slot] = matches(slot) ? pairs.generalised(slot, around) : Certificate.NONE;
  }

  Standing standing(int slot) {
    return standings[slot];
  }

  Below below(int slot) {
    return belows[slot];
  }

  Pair correlated(int slot) {
    return correlated[slot];
  }

  Pair generalised(int slot) {
    return generalised[slot];
  }

  Certificate.Needs needs(int slot) {
    return needs[slot];
  }

  Pairs.Partners partners(int slot, boolean generalised) {
    return matches(slot)
        ? pairs.all(slot, generalised, corners)
        : new Pairs.Partners(List.of(), true);
  }

  Slots slots(int slot) {
    return new Moving(questions, corners).of(slot);
  }

  /**
   * Makes the certificates again that an update of the order can have touched.
   *
   * @param events what the change did
   * @return slots of the rules about which something was asked again
   */
  BitSet update(Order.Change change, List<Event> events) {
    grow();
    BitSet fresh = new BitSet();
    change.fresh().forEach(fresh::set);
    BitSet restood = (BitSet) fresh.clone();
    for (Event event : events) {
      below(fresh, event, slot -> restood.set(slot, restood.get(slot) || shaken(slot, event)));
    }
    Set<Integer> turned = new HashSet<>(change.fresh());
    inOrder(
        restood,
        slot -> {
          Standing before = standings[slot];
          standings[slot] = covering.of(slot, corners);
          if ((before instanceof Standing.Decides) != (standings[slot] instanceof Standing.Decides)
              || (before instanceof Standing.Covered)
                  != (standings[slot] instanceof Standing.Covered)) {
            turned.add(slot);
          }
        });
    BitSet belowAgain = (BitSet) restood.clone();
    BitSet correlatedAgain = (BitSet) fresh.clone();
    BitSet generalisedAgain = (BitSet) fresh.clone();
    for (Event event : events) {
      for (int slot : event.meeting()) {
        belowAgain.set(slot, belowAgain.get(slot) || matters(slot, event));
      }
      below(
          fresh,
          event,
          slot -> {
            correlatedAgain.set(slot, correlatedAgain.get(slot) || correlates(slot, event));
            generalisedAgain.set(slot, generalisedAgain.get(slot) || generalises(slot, event));
          });
    }
    for (int slot : turned) {
      for (int other : order.meeting(order.region(slot), order.position(slot) + 1, order.size())) {
        generalisedAgain.set(other, generalisedAgain.get(other) || concerns(other, slot));
      }
    }
    each(belowAgain, (slot, own) -> askBelow(slot, around(slot), own));
    each(correlatedAgain, (slot, own) -> askCorrelated(slot, around(slot), own));
    each(generalisedAgain, (slot, own) -> askGeneralised(slot, around(slot)));
    BitSet needsAgain = needsAgain(fresh, events);
    each(needsAgain, (slot, own) -> needs[slot] = asksNeeds.of(slot));
    BitSet asked = belowAgain; // which has all whose standing was asked again
    asked.or(correlatedAgain);
    asked.or(generalisedAgain);
    asked.or(needsAgain);
    return asked;
  }

  private BitSet needsAgain(BitSet fresh, List<Event> events) {
    BitSet again = (BitSet) fresh.clone();
    for (int i = 0; i < order.size(); i++) {
      int slot = order.slotAt(i);
      if (!again.get(slot) && asksNeeds.asks(slot)) {
        for (Event event : events) {
          boolean above = event.place() <= i;
          if (asksNeeds.concerns(slot, needs[slot], event.slot(), event.fresh(), above)) {
            again.set(slot);
          }
        }
      }
    }
    return again;
  }

  private void inOrder(BitSet slots, IntConsumer ask) {
    slots.stream()
        .mapToLong(slot -> (long) order.position(slot) << 32 | slot)
        .sorted()
        .forEach(packed -> ask.accept((int) packed));
  }

  /** The rules, of those that stayed or are new, that stand below the event and meet it. */
  private void below(BitSet fresh, Event event, IntConsumer action) {
    for (int slot : event.meeting()) {
      int position = order.position(slot);
      boolean isBelow =
          event.fresh() ? position > event.place() : position >= event.place() && !fresh.get(slot);
      if (isBelow) {
        action.accept(slot);
      }
    }
  }

  /** Whether the certificate of where a rule stands, which is below the event, may be void. */
  private boolean shaken(int slot, Event event) {
    return switch (standings[slot]) {
      case null -> true;
      case Standing.Decides decides -> event.fresh() && order.holds(event.slot(), decides.point());
      case Standing.Covered covered ->
          event.fresh() ? outdone(slot, covered, event) : missed(covered, event);
      case Standing.Undecided open -> true;
      case Standing.Empty empty -> false;
      case Standing.PassedOver off -> false;
    };
  }

  private boolean missed(Standing.Covered covered, Event gone) {
    return Arrays.binarySearch(covered.causes(), gone.slot()) >= 0
        || covered.decidedBy() == gone.slot()
        || !covered.shadowed();
  }

  private boolean outdone(int slot, Standing.Covered covered, Event fresh) {
    if (covered.causes().length > 1 || covered.minimality() != Minimality.SMALLEST) {
      return true;
    }
    if (!covered.shadowed() && order.rule(fresh.slot()).verdict() != order.rule(slot).verdict()) {
      return true;
    }
    return order.position(covered.decidedBy()) > order.position(fresh.slot())
        && order.holds(fresh.slot(), covered.point());
  }

  /** Whether the certificate that a rule matters, or does not, may be void. */
  private boolean matters(int slot, Event event) {
    return switch (belows[slot]) {
      case null -> true;
      case Below.NotAsked never -> false;
      case Below.Undecided open -> true;
      case Below.Redundant redundant -> true;
      case Below.Matters matters ->
          event.fresh()
              ? order.holds(event.slot(), matters.point())
              : event.slot() == matters.next();
    };
  }

  private boolean correlates(int slot, Event event) {
    return switch (correlated[slot]) {
      case null -> true;
      case Pair.Undecided open -> true;
      case Pair.None none -> correlatesFirst(slot, event, order.position(slot));
      case Pair.Found found ->
          shaken(found, event) || correlatesFirst(slot, event, order.position(found.other()));
    };
  }

  /** Whether, by the event, a rule above a position may correlate that did not. */
  private boolean correlatesFirst(int slot, Event event, int end) {
    if (!event.fresh()) {
      return pairs.revealed(slot, event.region(), event.place(), end, corners) != Certificate.NONE;
    }
    return event.place() < end && pairs.correlates(slot, event.slot(), corners) != Certificate.NONE;
  }

  private boolean generalises(int slot, Event event) {
    return switch (generalised[slot]) {
      case null -> true;
      case Pair.Undecided open -> true;
      case Pair.None none -> event.fresh() && generalisesOneOf(slot, event.slot(), none);
      case Pair.Found found ->
          shaken(found, event) || event.fresh() && generalisesOneOf(slot, event.slot(), found);
    };
  }

  /** Whether it may generalise another rule, which stands above the one that it is known to. */
  private boolean generalisesOneOf(int slot, int other, Pair known) {
    boolean first =
        !(known instanceof Pair.Found found)
            || order.position(other) < order.position(found.other());
    return first && pairs.generalises(slot, other) != Certificate.NONE;
  }

  private boolean shaken(Pair.Found found, Event event) {
    return event.fresh()
        ? order.position(found.other()) > order.position(event.slot())
            && order.holds(event.slot(), found.point())
        : found.other() == event.slot();
  }

  /** Whether what a rule generalises may be another now that {@code turned} does (not) decide. */
  private boolean concerns(int slot, int turned) {
    return generalised[slot] instanceof Pair.Found found && found.other() == turned
        || generalisesOneOf(slot, turned, generalised[slot]);
  }
}
