package dev.ironsieve.core.analysis;

import dev.ironsieve.core.analysis.Certificate.PairProof;
import dev.ironsieve.core.analysis.Certificate.RedundancyProof;
import dev.ironsieve.core.analysis.Certificate.StandingProof;
import dev.ironsieve.core.parallel.Tasks;
import dev.ironsieve.core.ruleindex.OverlapQuery;
import dev.ironsieve.core.ruleindex.RuleIndex;
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
 * The certificates of all rules of an {@link RuleIndex}. All at once first, on several threads;
 * after an update of the order only those that the update touches are made again.
 */
final class Certificates {
  /** The rules are cut into so many parts, with counts of their own for the guesses. */
  private static final int PARTS = 16;

  /** And into so many portions that are worked on in one go. */
  private static final int PORTIONS = 64;

  /** Segments of an end, to tell which rules lie near each other. */
  private static final int SEGMENTS = 256;

  /** A rule is taken to have a whole end if it spans more than one in so many of its codes. */
  private static final int WIDE = 8;

  /** From so many rules on an update asks about them on several threads. */
  static final int MANY = 64;

  private final RuleIndex index;
  private final Questions questions;
  private final Shadowing shadowing;
  private final Redundancy redundancy;
  private final EarlierRules earlier;
  private final Correlation correlation;
  private final Generalisation generalisation;
  private final UnmetNeed asksNeeds;
  private LeastCoveredPoint leastCovered; // of the whole order
  private StandingProof[] standings; // all by handle
  private RedundancyProof[] belows;
  private PairProof[] correlated;
  private PairProof[] generalised;
  private Certificate.NeedsProof[] needs;

  Certificates(RuleIndex index, long steps) {
    this.index = index;
    questions = new Questions(index, steps);
    shadowing = new Shadowing(questions);
    redundancy = new Redundancy(questions);
    earlier = new EarlierRules(questions, handle -> standings[handle]);
    correlation = new Correlation(earlier);
    generalisation = new Generalisation(earlier);
    asksNeeds = new UnmetNeed(questions);
    grow();
    LeastCoveredPoint[] counted = LeastCoveredPoint.upTo(index, PARTS);
    leastCovered = counted[PARTS - 1];
    each(counted, (handle, c) -> standings[handle] = shadowing.of(handle, c));
    earlier.use(new Witnesses(index, standings));
    each(
        counted,
        (handle, c) -> {
          OverlapQuery overlaps = overlaps(handle);
          askBelow(handle, overlaps, c);
          askCorrelated(handle, overlaps, c);
          askGeneralised(handle, overlaps);
          needs[handle] = asksNeeds.of(handle);
        });
    earlier.use(null);
  }

  /** The same certificates for the same rules, which were laid out anew. */
  Certificates(Certificates known, CertificateTranslation move, long steps) {
    index = move.to();
    questions = new Questions(index, steps);
    shadowing = new Shadowing(questions);
    redundancy = new Redundancy(questions);
    earlier = new EarlierRules(questions, handle -> standings[handle]);
    correlation = new Correlation(earlier);
    generalisation = new Generalisation(earlier);
    asksNeeds = new UnmetNeed(questions);
    leastCovered = known.leastCovered.with(index, move.relayout().axes());
    grow();
    IntStream.range(0, index.size())
        .parallel()
        .forEach(
            position -> {
              int was = move.from().handleAt(position);
              int handle = index.handleAt(position);
              standings[handle] = move.of(known.standings[was]);
              belows[handle] = move.of(known.belows[was]);
              correlated[handle] = move.of(known.correlated[was]);
              generalised[handle] = move.of(known.generalised[was]);
              needs[handle] = move.of(known.needs[was]);
            });
  }

  /**
   * Repeats the questions whose answer can depend on the classes of hosts.
   *
   * @return handles of the rules concerned
   */
  BitSet askNeeds() {
    BitSet asked = new BitSet();
    for (int i = 0; i < index.size(); i++) {
      int handle = index.handleAt(i);
      if (asksNeeds.asks(handle)) {
        needs[handle] = asksNeeds.of(handle);
        asked.set(handle);
      }
    }
    return asked;
  }

  private interface Ask {
    void about(int handle, LeastCoveredPoint leastCovered);
  }

  /** Asks about every rule; those that lie near each other one after the other. */
  private void each(LeastCoveredPoint[] counted, Ask ask) {
    int[] positions =
        IntStream.range(0, index.size())
            .mapToLong(position -> place(index.handleAt(position)) << 32 | position)
            .sorted()
            .mapToInt(packed -> (int) packed)
            .toArray();
    Tasks.each(
        PORTIONS,
        portion -> {
          int end = (int) ((long) positions.length * (portion + 1) / PORTIONS);
          for (int i = (int) ((long) positions.length * portion / PORTIONS); i < end; i++) {
            int part = (int) ((long) positions[i] * counted.length / positions.length);
            ask.about(index.handleAt(positions[i]), counted[part]);
          }
        });
  }

  /**
   * Where a rule lies, in segments of both ends: what is read for rules of the same place is near
   * then. The rules of a whole end come first, since they take the longest.
   */
  private long place(int handle) {
    List<Box> region = index.region(handle);
    return region.isEmpty()
        ? 0
        : segment(region.getFirst(), Space.FROM) << Integer.SIZE / 2
            | segment(region.getFirst(), Space.TO);
  }

  private static long segment(Box box, int end) {
    IntSet side = box.side(end);
    boolean wide = side.max() - side.min() > Space.CODES / WIDE;
    return wide ? 0 : 1 + side.min() / (Space.CODES / SEGMENTS);
  }

  /** Asks about some rules, on several threads if they are many. */
  private void each(BitSet handles, Ask ask) {
    int[] all = handles.stream().toArray();
    if (all.length < MANY) {
      for (int handle : all) {
        ask.about(handle, leastCovered);
      }
      return;
    }
    Tasks.each(
        PARTS,
        part -> {
          for (int i = part; i < all.length; i += PARTS) {
            ask.about(all[i], leastCovered);
          }
        });
  }

  private void grow() {
    int handles = index.handles();
    standings = standings == null ? new StandingProof[handles] : Arrays.copyOf(standings, handles);
    belows = belows == null ? new RedundancyProof[handles] : Arrays.copyOf(belows, handles);
    correlated = correlated == null ? new PairProof[handles] : Arrays.copyOf(correlated, handles);
    generalised =
        generalised == null ? new PairProof[handles] : Arrays.copyOf(generalised, handles);
    needs = needs == null ? new Certificate.NeedsProof[handles] : Arrays.copyOf(needs, handles);
  }

  private void askBelow(int handle, OverlapQuery overlaps, LeastCoveredPoint c) {
    belows[handle] =
        standings[handle] instanceof StandingProof.Decides decides
            ? redundancy.of(handle, decides.point(), overlaps, c)
            : Certificate.NOT_ASKED;
  }

  private boolean matches(int handle) {
    return index.rule(handle).isInForce() && !index.region(handle).isEmpty();
  }

  private OverlapQuery overlaps(int handle) {
    return index.overlaps(matches(handle) ? index.region(handle) : List.of());
  }

  private void askCorrelated(int handle, OverlapQuery overlaps, LeastCoveredPoint c) {
    correlated[handle] =
        matches(handle) ? correlation.correlated(handle, overlaps, c) : Certificate.NONE;
  }

  private void askGeneralised(int handle, OverlapQuery overlaps) {
    generalised[handle] =
        matches(handle) ? generalisation.generalised(handle, overlaps) : Certificate.NONE;
  }

  StandingProof standing(int handle) {
    return standings[handle];
  }

  RedundancyProof below(int handle) {
    return belows[handle];
  }

  PairProof correlated(int handle) {
    return correlated[handle];
  }

  PairProof generalised(int handle) {
    return generalised[handle];
  }

  Certificate.NeedsProof needs(int handle) {
    return needs[handle];
  }

  PartnerHandles partners(int handle, boolean generalised) {
    if (!matches(handle)) {
      return new PartnerHandles(List.of(), true);
    }
    return generalised ? generalisation.all(handle) : correlation.all(handle, leastCovered);
  }

  Placement placement(int handle) {
    return new PlacementSearch(questions, leastCovered).of(handle);
  }

  /**
   * Makes the certificates again that an update of the order can have touched.
   *
   * @param events what the change did
   * @return handles of the rules about which something was asked again
   */
  BitSet update(RuleIndex.Change change, List<IndexChange> events) {
    grow();
    BitSet fresh = new BitSet();
    change.fresh().forEach(fresh::set);
    BitSet restood = (BitSet) fresh.clone();
    for (IndexChange event : events) {
      below(
          fresh,
          event,
          handle -> restood.set(handle, restood.get(handle) || shaken(handle, event)));
    }
    Set<Integer> turned = new HashSet<>(change.fresh());
    inOrder(
        restood,
        handle -> {
          StandingProof before = standings[handle];
          standings[handle] = shadowing.of(handle, leastCovered);
          if ((before instanceof StandingProof.Decides)
                  != (standings[handle] instanceof StandingProof.Decides)
              || (before instanceof StandingProof.Covered)
                  != (standings[handle] instanceof StandingProof.Covered)) {
            turned.add(handle);
          }
        });
    BitSet belowAgain = (BitSet) restood.clone();
    BitSet correlatedAgain = (BitSet) fresh.clone();
    BitSet generalisedAgain = (BitSet) fresh.clone();
    for (IndexChange event : events) {
      for (int handle : event.overlapping()) {
        belowAgain.set(handle, belowAgain.get(handle) || matters(handle, event));
      }
      below(
          fresh,
          event,
          handle -> {
            correlatedAgain.set(handle, correlatedAgain.get(handle) || correlates(handle, event));
            generalisedAgain.set(
                handle, generalisedAgain.get(handle) || generalises(handle, event));
          });
    }
    for (int handle : turned) {
      for (int other :
          index.overlapping(index.region(handle), index.position(handle) + 1, index.size())) {
        generalisedAgain.set(other, generalisedAgain.get(other) || concerns(other, handle));
      }
    }
    each(belowAgain, (handle, own) -> askBelow(handle, overlaps(handle), own));
    each(correlatedAgain, (handle, own) -> askCorrelated(handle, overlaps(handle), own));
    each(generalisedAgain, (handle, own) -> askGeneralised(handle, overlaps(handle)));
    BitSet needsAgain = needsAgain(fresh, events);
    each(needsAgain, (handle, own) -> needs[handle] = asksNeeds.of(handle));
    BitSet asked = belowAgain; // which has all whose standing was asked again
    asked.or(correlatedAgain);
    asked.or(generalisedAgain);
    asked.or(needsAgain);
    return asked;
  }

  private BitSet needsAgain(BitSet fresh, List<IndexChange> events) {
    BitSet again = (BitSet) fresh.clone();
    for (int i = 0; i < index.size(); i++) {
      int handle = index.handleAt(i);
      if (!again.get(handle) && asksNeeds.asks(handle)) {
        for (IndexChange event : events) {
          boolean above = event.place() <= i;
          if (asksNeeds.concerns(handle, needs[handle], event.handle(), event.fresh(), above)) {
            again.set(handle);
          }
        }
      }
    }
    return again;
  }

  private void inOrder(BitSet handles, IntConsumer ask) {
    handles.stream()
        .mapToLong(handle -> (long) index.position(handle) << 32 | handle)
        .sorted()
        .forEach(packed -> ask.accept((int) packed));
  }

  /** The rules, of those that stayed or are new, that stand below the event and meet it. */
  private void below(BitSet fresh, IndexChange event, IntConsumer action) {
    for (int handle : event.overlapping()) {
      int position = index.position(handle);
      boolean isBelow =
          event.fresh()
              ? position > event.place()
              : position >= event.place() && !fresh.get(handle);
      if (isBelow) {
        action.accept(handle);
      }
    }
  }

  /** Whether the certificate of where a rule stands, which is below the event, may be void. */
  private boolean shaken(int handle, IndexChange event) {
    return switch (standings[handle]) {
      case null -> true;
      case StandingProof.Decides decides ->
          event.fresh() && index.holds(event.handle(), decides.point());
      case StandingProof.Covered covered ->
          event.fresh() ? outdone(handle, covered, event) : missed(covered, event);
      case StandingProof.Undecided open -> true;
      case StandingProof.Empty empty -> false;
      case StandingProof.PassedOver off -> false;
    };
  }

  private boolean missed(StandingProof.Covered covered, IndexChange gone) {
    return Arrays.binarySearch(covered.causes(), gone.handle()) >= 0
        || covered.decidedBy() == gone.handle()
        || !covered.shadowed();
  }

  private boolean outdone(int handle, StandingProof.Covered covered, IndexChange fresh) {
    if (covered.causes().length > 1 || covered.minimality() != Minimality.SMALLEST) {
      return true;
    }
    if (!covered.shadowed()
        && index.rule(fresh.handle()).verdict() != index.rule(handle).verdict()) {
      return true;
    }
    // Above the cause it may be the first that covers all, or decide the point.
    return index.position(covered.causes()[0]) > index.position(fresh.handle())
        && index.holds(fresh.handle(), covered.point());
  }

  /** Whether the certificate that a rule matters, or does not, may be void. */
  private boolean matters(int handle, IndexChange event) {
    return switch (belows[handle]) {
      case null -> true;
      case RedundancyProof.NotAsked never -> false;
      case RedundancyProof.Undecided open -> true;
      case RedundancyProof.Redundant redundant -> true;
      case RedundancyProof.Matters matters ->
          event.fresh()
              ? index.holds(event.handle(), matters.point())
              : event.handle() == matters.next();
    };
  }

  private boolean correlates(int handle, IndexChange event) {
    return switch (correlated[handle]) {
      case null -> true;
      case PairProof.Undecided open -> true;
      case PairProof.None none -> correlatesFirst(handle, event, index.position(handle));
      case PairProof.Found found ->
          shaken(found, event) || correlatesFirst(handle, event, index.position(found.other()));
    };
  }

  /** Whether, by the event, a rule above a position may correlate that did not. */
  private boolean correlatesFirst(int handle, IndexChange event, int end) {
    if (!event.fresh()) {
      return correlation.revealed(handle, event.region(), event.place(), end, leastCovered)
          != Certificate.NONE;
    }
    return event.place() < end
        && correlation.correlates(handle, event.handle(), leastCovered) != Certificate.NONE;
  }

  private boolean generalises(int handle, IndexChange event) {
    return switch (generalised[handle]) {
      case null -> true;
      case PairProof.Undecided open -> true;
      case PairProof.None none -> event.fresh() && generalisesOneOf(handle, event.handle(), none);
      case PairProof.Found found ->
          shaken(found, event) || event.fresh() && generalisesOneOf(handle, event.handle(), found);
    };
  }

  /** Whether it may generalise another rule, which stands above the one that it is known to. */
  private boolean generalisesOneOf(int handle, int other, PairProof known) {
    boolean first =
        !(known instanceof PairProof.Found found)
            || index.position(other) < index.position(found.other());
    return first && generalisation.generalises(handle, other) != Certificate.NONE;
  }

  private boolean shaken(PairProof.Found found, IndexChange event) {
    return event.fresh()
        ? index.position(found.other()) > index.position(event.handle())
            && index.holds(event.handle(), found.point())
        : found.other() == event.handle();
  }

  /** Whether what a rule generalises may be another now that {@code turned} does (not) decide. */
  private boolean concerns(int handle, int turned) {
    return generalised[handle] instanceof PairProof.Found found && found.other() == turned
        || generalisesOneOf(handle, turned, generalised[handle]);
  }
}
