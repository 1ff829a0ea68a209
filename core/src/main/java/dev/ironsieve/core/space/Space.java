package dev.ironsieve.core.space;

import dev.ironsieve.core.model.ApplicationFact;
import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Vocabulary;
import dev.ironsieve.core.sets.Address;
import dev.ironsieve.core.sets.Family;
import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.sets.Transport;
import java.util.Arrays;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.SplittableRandom;
import java.util.function.UnaryOperator;

/**
 * The space of all feasible connections, cut into equivalence classes by the rules' criteria. A
 * point is an array with one code for each axis: from, to, service, source port, then one for each
 * vocabulary of the rulebase.
 *
 * <p>Both ends of a connection are of one address family, so no box mixes families. Questions may
 * be asked by several threads at once, but not while a match is being added.
 */
public final class Space {
  /** The axis of the opening end. */
  public static final int FROM = 0;

  /** The axis of the far end. */
  public static final int TO = 1;

  /** The axis of protocol with destination port or type and code. */
  public static final int SERVICE = 2;

  public static final int SOURCE_PORT = 3;

  /** The axis of the first vocabulary. */
  public static final int TERMS = 4;

  /** One more than the highest code on any axis. */
  public static final int CODES = Axis.CODES;

  /**
   * The code of an unknown term in a point: it is in no class, so only rules without a criterion on
   * that axis match it.
   */
  public static final int UNKNOWN = Axis.CODES - 1;

  private static final int[] NOTHING = {};

  // Shared with the classes that encode, translate and describe points of this space.
  Resolution resolution;
  final EndpointAxis from;
  final EndpointAxis to;
  final NumberAxis services;
  final NumberAxis sourcePorts;
  final Coordinate[] coordinates; // by vocabulary
  final SymbolAxis[] terms;
  final boolean[] asked; // by vocabulary: whether some rule asks for a term of it
  final Axis[] axes;
  private final ConnectionEncoder encoder = new ConnectionEncoder(this);

  /**
   * @param resolution gives the zones, their networks and the vocabularies
   * @param matches what has to be told apart
   */
  public Space(Resolution resolution, Collection<ResolvedMatch> matches) {
    this(resolution, matches, null);
  }

  /**
   * The same, but faster if another state of the rulebase is laid out already: axes with the same
   * classes are reused.
   *
   * @param resolution made from that of the other
   * @param like another space, not to be used afterwards; or null
   */
  public Space(Resolution resolution, Collection<ResolvedMatch> matches, Space like) {
    this.resolution = resolution;
    coordinates =
        resolution.vocabularies().stream().map(Vocabulary::coordinate).toArray(Coordinate[]::new);
    terms = new SymbolAxis[coordinates.length];
    asked = new boolean[terms.length];
    matches.forEach(this::noteTerms);
    axes = new AxesBuilder(resolution, matches).build(like);
    from = (EndpointAxis) axes[FROM];
    to = (EndpointAxis) axes[TO];
    services = (NumberAxis) axes[SERVICE];
    sourcePorts = (NumberAxis) axes[SOURCE_PORT];
    Arrays.setAll(terms, i -> (SymbolAxis) axes[TERMS + i]);
  }

  /**
   * Takes over the meaning of names from another state, which distinguishes the same zones and
   * values.
   */
  public void takeOver(Resolution names) {
    resolution = names;
  }

  private void noteTerms(ResolvedMatch match) {
    for (ResolvedMatch.Portion portion : match.portions()) {
      for (int i = 0; i < asked.length; i++) {
        IntSet any = resolution.anyTerms().get(i);
        IntSet wanted = portion.terms().get(i);
        asked[i] |= !wanted.equals(any);
      }
    }
  }

  /** Number of axes. */
  public int axes() {
    return axes.length;
  }

  /** Number of classes on an axis; O(1). */
  public int classes(int axis) {
    return axes[axis].classes();
  }

  /** The number of codes of each class of an axis before any was split. */
  public int step(int axis) {
    return axes[axis].step();
  }

  /** Every code of an axis. */
  public IntSet all(int axis) {
    return axes[axis].all();
  }

  /** The axis of a vocabulary, or -1 if there is none. */
  public int axis(Coordinate coordinate) {
    int number = Arrays.asList(coordinates).indexOf(coordinate);
    return number < 0 ? -1 : TERMS + number;
  }

  /**
   * The codes of some values of a vocabulary that have classes of their own: those of a match, or
   * the uses of an application that needs another or is needed.
   */
  public IntSet codes(int axis, IntSet values) {
    return terms[axis - TERMS].codes(values);
  }

  /** The class of a service, by its position; see {@link Transport#position}. */
  public int serviceCode(int position) {
    return services.codeOf(position);
  }

  /** The codes on {@link #SERVICE} where an application that is needed usually listens. */
  public IntSet usualServices(ApplicationFact needed) {
    return services.codes(resolution.usualServices(needed));
  }

  /** The codes of the sites where an application that is needed is; all if that is not known. */
  public IntSet usualSites(ApplicationFact needed) {
    int axis = axis(Coordinate.SITE);
    IntSet sites = resolution.usualSites(needed);
    return sites == null ? axes[axis].all() : codes(axis, sites);
  }

  /** The family of the addresses that have a code on {@link #FROM}. */
  public Family family(int fromCode) {
    return from.family(Family.IPV4).contains(fromCode) ? Family.IPV4 : Family.IPV6;
  }

  /** Every code of one family on {@link #FROM} or {@link #TO}. */
  public IntSet family(int axis, Family family) {
    return (axis == FROM ? from : to).family(family);
  }

  /** The number of classes of an axis in a set of codes; O(intervals · log classes). */
  public long count(int axis, IntSet set) {
    return axes[axis].count(set);
  }

  /** The lowest code of that class of the set that has {@code rank} classes below it. */
  public int pick(int axis, IntSet set, long rank) {
    return axes[axis].pick(set, rank);
  }

  /** A point of a box, each class of each axis as likely as any other. */
  public int[] pick(Box box, SplittableRandom random) {
    int[] point = new int[box.axes()];
    for (int axis = 0; axis < point.length; axis++) {
      int classes = classes(axis);
      if (classes > 1) {
        IntSet side = box.side(axis);
        point[axis] =
            side == all(axis)
                ? code(axis, (int) random.nextLong(classes))
                : pick(axis, side, random.nextLong(count(axis, side)));
      }
    }
    return point;
  }

  /**
   * The groups of codes of an axis that some sets distinguish.
   *
   * @param sides of regions, each as often as it will be taken away
   */
  public Representatives representatives(int axis, Collection<IntSet> sides) {
    return new Representatives(axes[axis], sides);
  }

  /** Every code of the class that holds {@code code}. */
  public IntSet classOf(int axis, int code) {
    int rank = axes[axis].rankOf(code);
    return IntSet.range(axes[axis].code(rank), axes[axis].code(rank + 1) - 1);
  }

  /** The number of classes of an axis that begin below {@code code}; O(log classes). */
  public int rank(int axis, int code) {
    return axes[axis].rank(code);
  }

  /** The lowest code of the class with {@code rank} classes below it on its axis. */
  public int code(int axis, int rank) {
    return axes[axis].code(rank);
  }

  /**
   * Codes on {@code axis} whose values a reader knows, the best known first; of an end, those in
   * the zone of {@code code}.
   */
  public int[] familiar(int axis, int code) {
    return switch (axis) {
      case FROM -> from.familiar(code, ExampleConnections.KNOWN_ADDRESSES);
      case TO -> to.familiar(code, ExampleConnections.KNOWN_ADDRESSES);
      case SERVICE -> codes(services, ExampleConnections.KNOWN_SERVICES);
      case SOURCE_PORT -> codes(sourcePorts, ExampleConnections.KNOWN_SOURCE_PORTS);
      default -> NOTHING;
    };
  }

  private static int[] codes(NumberAxis line, int[] values) {
    int[] out = new int[values.length];
    for (int i = 0; i < out.length; i++) {
      out[i] = line.codeOf(values[i]);
    }
    return out;
  }

  /** Everything feasible, as one box for each family. */
  public List<Box> everything() {
    return new Regions(this).everything();
  }

  /**
   * The feasible connections of a match as disjoint boxes; no box if nothing feasible matches. A
   * match that this space does not tell apart yet is added to it first.
   *
   * @return empty if there is no room left to tell it apart: then a new space has to be made
   */
  public Optional<List<Box>> region(ResolvedMatch match) {
    Optional<List<Box>> region = new Regions(this).of(match);
    region.ifPresent(boxes -> noteTerms(match));
    return region;
  }

  /** The same of many matches, all of which this space was made to tell apart; in their order. */
  public List<List<Box>> regions(List<ResolvedMatch> matches) {
    Regions regions = new Regions(this);
    return matches.parallelStream().map(match -> regions.of(match).orElseThrow()).toList();
  }

  /**
   * The point of a connection. For a protocol without ports the lowest source port stands for all;
   * an unknown term is {@link #UNKNOWN}.
   *
   * @return null if another part that rules distinguish is unknown or infeasible
   */
  public int[] point(Connection connection) {
    return encoder.point(connection);
  }

  /** The points of many connections, each as {@link #point} gives it. */
  public int[][] points(List<Connection> connections) {
    return encoder.points(connections);
  }

  /**
   * Whether a box contains the point of a connection, or the connection has none; see {@link
   * #point}. Faster than {@link #point} if no box contains it.
   *
   * @param connection its known terms are values of this space
   */
  public boolean mayHold(List<Box> boxes, Connection connection) {
    return encoder.mayHold(boxes, connection);
  }

  /** Whether a box holds a point on an axis, on which it may be {@link #UNKNOWN}. */
  public boolean holds(Box box, int axis, int[] point) {
    IntSet side = box.side(axis);
    return side.contains(point[axis]) || side.equals(all(axis));
  }

  /**
   * For each point here a point of another space that the same rules hold.
   *
   * @param other over the same zones, addresses, services and coordinates
   * @param rules whose names mean the same in both
   * @return empty if a point may have none there
   */
  public Optional<UnaryOperator<int[]>> pointsIn(Space other, List<Rule> rules) {
    return new PointTranslation(this).pointsIn(other, rules);
  }

  /** Whether an axis is coded as in another space. */
  public boolean shares(int axis, Space other) {
    return axes[axis] == other.axes[axis];
  }

  /** A box without those of its points that no connection has. */
  public Optional<Box> feasible(Box box) {
    return new Regions(this).feasible(box);
  }

  /** The values of a box on each axis that it narrows, with a count if there are many. */
  public List<String> words(Box box) {
    return new BoxWords(this).words(box);
  }

  /** A set of codes of one axis in words, with a count if there are many. */
  public String words(int axis, IntSet codes) {
    return new BoxWords(this).words(axis, codes);
  }

  /** The word for an axis, such as {@code from} or {@code application}. */
  public String name(int axis) {
    return new BoxWords(this).name(axis);
  }

  /**
   * A set of codes of one axis in words, without the word for the axis.
   *
   * @param within the codes of which these are a part; where all are in one zone, that is not named
   */
  public String values(int axis, IntSet codes, IntSet within) {
    return new BoxWords(this).values(axis, codes, within);
  }

  /** The codes of one family that an end may have; see {@link EndpointAxis#possible}. */
  IntSet possible(int axis, Family family, int zone, Address address) {
    return (axis == FROM ? from : to).possible(family, zone, address);
  }

  /** The codes of every class that some service has which agrees with a connection. */
  IntSet possibleServices(Connection said) {
    if (said.protocol() < 0) {
      return services.all();
    }
    boolean known = said.detail() >= 0;
    int first = Transport.position(said.protocol(), known ? said.detail() : 0);
    int last =
        known ? first : Transport.position(said.protocol(), Transport.maxDetail(said.protocol()));
    return services.touching(first, last);
  }

  IntSet possibleSourcePorts(Connection said) {
    if (said.protocol() >= 0 && !Transport.hasPorts(said.protocol())) {
      return classOf(SOURCE_PORT, sourcePorts.all().min());
    }
    return said.sourcePort() < 0
        ? sourcePorts.all()
        : sourcePorts.touching(said.sourcePort(), said.sourcePort());
  }

  /** The codes of every class with one of some values of a vocabulary. */
  IntSet touching(int axis, IntSet values) {
    return terms[axis - TERMS].touching(values);
  }

  /** A connection at a point, with familiar values where there is a choice. */
  public Connection connection(int[] point) {
    return connection(point, Connection.UNKNOWN);
  }

  /**
   * The same with a known protocol.
   *
   * @param known the protocol, or {@link Connection#UNKNOWN}
   */
  Connection connection(int[] point, int known) {
    return new ExampleConnections(this).connection(point, known);
  }
}
