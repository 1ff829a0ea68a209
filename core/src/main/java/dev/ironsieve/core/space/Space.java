package dev.ironsieve.core.space;

import dev.ironsieve.core.model.ApplicationFact;
import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.ServiceLiteral;
import dev.ironsieve.core.model.Vocabulary;
import dev.ironsieve.core.parallel.Tasks;
import dev.ironsieve.core.sets.Address;
import dev.ironsieve.core.sets.Family;
import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.sets.Transport;
import dev.ironsieve.core.sets.TransportSet;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.Collections;
import java.util.EnumMap;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.SplittableRandom;
import java.util.function.BiPredicate;
import java.util.function.UnaryOperator;

/**
 * All feasible connections, cut along the rules' criteria. A point is an array with one code for
 * each axis: from, to, service, source port, then one for each vocabulary of the rulebase.
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

  /** Growth of the number of classes from which on many may be of sets that nobody asks for. */
  private static final int MOST_GROWTH = 4;

  private static final int MOST_WORDS = 8;

  /** Services that a reader knows, preferred in examples. */
  private static final int[] KNOWN_SERVICES = {
    Transport.position(Transport.TCP, 443),
    Transport.position(Transport.TCP, 80),
    Transport.position(Transport.TCP, 22),
    Transport.position(Transport.UDP, 53),
    Transport.position(Transport.TCP, 8443),
    Transport.position(Transport.UDP, 443),
    Transport.position(Transport.ICMP, 8 << 8),
    Transport.position(Transport.ICMPV6, 128 << 8),
  };

  private static final int[] NOTHING = {};

  private static final int[] KNOWN_SOURCE_PORTS = {50000, 40000, 1024, 1023};

  /** Addresses from the documentation ranges of RFC 5737 and RFC 3849, preferred in examples. */
  private static final List<Address> KNOWN_ADDRESSES =
      List.of(
          Address.parse("198.51.100.20"),
          Address.parse("203.0.113.30"),
          Address.parse("192.0.2.40"),
          Address.parse("2001:db8:ffff::20"));

  private Resolution resolution;
  private final EndpointAxis from;
  private final EndpointAxis to;
  private final NumberAxis services;
  private final NumberAxis sourcePorts;
  private final Coordinate[] coordinates; // by vocabulary
  private final SymbolAxis[] terms;
  private final boolean[] asked; // by vocabulary: whether some rule asks for a term of it
  private final boolean[] listed; // by vocabulary: whether some rule lists every value of it
  private final Axis[] axes;
  private final long classesAsMade; // on all axes, when the matches were laid out

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
    List<EndpointAxis.Side> fromSides = new ArrayList<>(matches.size());
    List<EndpointAxis.Side> toSides = new ArrayList<>(matches.size());
    Set<IntSet> serviceSets = distinct();
    Set<IntSet> portSets = distinct();
    for (ResolvedMatch match : matches) {
      fromSides.add(new EndpointAxis.Side(match.fromZones(), match.from()));
      toSides.add(new EndpointAxis.Side(match.toZones(), match.to()));
      for (ResolvedMatch.Portion portion : match.portions()) {
        for (TransportSet.Part part : portion.services().parts()) {
          serviceSets.add(part.services());
          portSets.add(part.sourcePorts());
        }
      }
    }
    resolution.concernedByNeeds().forEach(f -> serviceSets.add(resolution.usualServices(f)));
    if (portSets.stream().anyMatch(ports -> ports != Transport.ANY_PORT)) {
      serviceSets.add(Transport.WITH_PORTS);
    }
    coordinates =
        resolution.vocabularies().stream().map(Vocabulary::coordinate).toArray(Coordinate[]::new);
    terms = new SymbolAxis[coordinates.length];
    asked = new boolean[terms.length];
    listed = new boolean[terms.length];
    matches.forEach(this::noteTerms);
    axes = new Axis[TERMS + terms.length];
    Axis[] known = linesOf(like);
    // Lines know nothing of each other, and take most of the time of a space.
    Tasks.each(
        axes.length,
        axis ->
            axes[axis] =
                switch (axis) {
                  case FROM -> EndpointAxis.of(resolution, fromSides, known[axis]);
                  case TO -> EndpointAxis.of(resolution, toSides, known[axis]);
                  case SERVICE -> NumberAxis.of(Transport.ANY_SERVICE, serviceSets, known[axis]);
                  case SOURCE_PORT -> NumberAxis.of(Transport.ANY_PORT, portSets, known[axis]);
                  default -> symbols(axis - TERMS, matches, known[axis]);
                });
    from = (EndpointAxis) axes[FROM];
    to = (EndpointAxis) axes[TO];
    services = (NumberAxis) axes[SERVICE];
    sourcePorts = (NumberAxis) axes[SOURCE_PORT];
    Arrays.setAll(terms, i -> (SymbolAxis) axes[TERMS + i]);
    classesAsMade = allClasses();
  }

  /** The lines of another state that may do for this one, by axis; null where none does. */
  private Axis[] linesOf(Space like) {
    Axis[] out = new Axis[axes.length];
    if (like == null) {
      return out;
    }
    boolean sameZones = resolution.hasZonesOf(like.resolution);
    for (int axis = 0; axis < out.length; axis++) {
      boolean same =
          switch (axis) {
            case FROM, TO -> sameZones;
            case SERVICE, SOURCE_PORT -> true;
            default -> resolution.hasValuesOf(like.resolution, axis - TERMS);
          };
      out[axis] = same && !like.axes[axis].isFull() ? like.axes[axis] : null;
    }
    return out;
  }

  /** The same classes as in another, spread evenly again where there is no room. */
  private Space(Space other) {
    resolution = other.resolution;
    coordinates = other.coordinates;
    axes =
        Arrays.stream(other.axes)
            .map(line -> line.isFull() ? line.again() : line)
            .toArray(Axis[]::new);
    from = (EndpointAxis) axes[FROM];
    to = (EndpointAxis) axes[TO];
    services = (NumberAxis) axes[SERVICE];
    sourcePorts = (NumberAxis) axes[SOURCE_PORT];
    terms = Arrays.stream(axes).skip(TERMS).toArray(SymbolAxis[]::new);
    asked = other.asked.clone();
    listed = other.listed.clone();
    classesAsMade = other.classesAsMade;
  }

  /** Takes over what names mean in another state, which tells the same zones and values apart. */
  public void takeOver(Resolution names) {
    resolution = names;
  }

  private long allClasses() {
    return Arrays.stream(axes).mapToLong(Axis::classes).sum();
  }

  /**
   * The same classes, with the room between them spread evenly again on the axes where there was
   * not enough; quicker than to lay everything out anew. This space is not to be used any more.
   *
   * @return null if so many classes have come since everything was laid out that it is better done
   *     again
   */
  public Relabelling relabelled() {
    return allClasses() > MOST_GROWTH * classesAsMade
        ? null
        : new Relabelling(this, new Space(this));
  }

  /** For sets that many rules share, each object once. */
  private static Set<IntSet> distinct() {
    return Collections.newSetFromMap(new IdentityHashMap<>());
  }

  private SymbolAxis symbols(int number, Collection<ResolvedMatch> matches, Axis known) {
    Set<IntSet> sets = distinct();
    sets.add(resolution.anyTerms().get(number));
    for (ResolvedMatch match : matches) {
      for (ResolvedMatch.Portion portion : match.portions()) {
        sets.add(portion.terms().get(number));
      }
    }
    switch (resolution.vocabularies().get(number).coordinate()) {
      case APPLICATION -> resolution.concernedByNeeds().forEach(fact -> sets.add(fact.uses()));
      case SITE ->
          resolution.concernedByNeeds().stream()
              .map(resolution::usualSites)
              .filter(Objects::nonNull)
              .forEach(sets::add);
      default -> {}
    }
    return SymbolAxis.of(resolution.vocabularies().get(number).values().size(), sets, known);
  }

  private void noteTerms(ResolvedMatch match) {
    for (ResolvedMatch.Portion portion : match.portions()) {
      for (int i = 0; i < asked.length; i++) {
        IntSet any = resolution.anyTerms().get(i);
        IntSet wanted = portion.terms().get(i);
        asked[i] |= wanted != any;
        listed[i] |= wanted != any && wanted.equals(any);
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

  /** How many codes each class of an axis had before any was split. */
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

  /** How many classes of an axis a set of codes is made of; O(intervals · log classes). */
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
   * What some sets of codes of an axis tell apart.
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

  /** How many classes of an axis begin below {@code code}; O(log classes). */
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
      case FROM -> from.familiar(code, KNOWN_ADDRESSES);
      case TO -> to.familiar(code, KNOWN_ADDRESSES);
      case SERVICE -> codes(services, KNOWN_SERVICES);
      case SOURCE_PORT -> codes(sourcePorts, KNOWN_SOURCE_PORTS);
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
    List<Box> out = new ArrayList<>();
    for (Family family : Family.values()) {
      IntSet[] sides = new IntSet[axes.length];
      for (int axis = 0; axis < axes.length; axis++) {
        sides[axis] = axes[axis].all();
      }
      sides[FROM] = from.family(family);
      sides[TO] = to.family(family);
      if (!sides[FROM].isEmpty() && !sides[TO].isEmpty()) {
        out.add(new Box(sides));
      }
    }
    return out;
  }

  /**
   * The feasible connections of a match as disjoint boxes; no box if nothing feasible matches. A
   * match that this space does not tell apart yet is added to it first.
   *
   * @return null if there is no room left to tell it apart: then a new space has to be made
   */
  public List<Box> region(ResolvedMatch match) {
    IntSet[] fromCodes = from.codes(match.fromZones(), match.from());
    IntSet[] toCodes = to.codes(match.toZones(), match.to());
    if (fromCodes == null || toCodes == null) {
      return null;
    }
    noteTerms(match);
    return boxes(match, fromCodes, toCodes);
  }

  /** The same of many matches, all of which this space was made to tell apart; in their order. */
  public List<List<Box>> regions(List<ResolvedMatch> matches) {
    return matches.parallelStream()
        .map(
            match ->
                boxes(
                    match,
                    from.codes(match.fromZones(), match.from()),
                    to.codes(match.toZones(), match.to())))
        .toList();
  }

  private List<Box> boxes(ResolvedMatch match, IntSet[] fromCodes, IntSet[] toCodes) {
    List<Box> out = new ArrayList<>(2);
    for (ResolvedMatch.Portion portion : match.portions()) {
      if (!addBoxes(out, fromCodes, toCodes, portion)) {
        return null;
      }
    }
    return out;
  }

  /** False if there is no room left to tell the portion apart. */
  private boolean addBoxes(
      List<Box> out, IntSet[] fromCodes, IntSet[] toCodes, ResolvedMatch.Portion portion) {
    IntSet[] termCodes = new IntSet[terms.length];
    for (int i = 0; i < terms.length; i++) {
      termCodes[i] = terms[i].codes(portion.terms().get(i));
      if (termCodes[i] == null) {
        return false;
      }
      if (termCodes[i].isEmpty()) {
        return true;
      }
    }
    for (Family family : Family.values()) {
      if (fromCodes[family.ordinal()].isEmpty() || toCodes[family.ordinal()].isEmpty()) {
        continue;
      }
      for (TransportSet.Part part : portion.services().parts()) {
        IntSet serviceCodes = services.codes(part.services());
        IntSet portCodes = sourcePorts.codes(part.sourcePorts());
        if (serviceCodes == null || portCodes == null) {
          return false;
        }
        if (portCodes != sourcePorts.all() && services.codes(Transport.WITH_PORTS) == null) {
          return false;
        }
        if (serviceCodes.isEmpty() || portCodes.isEmpty()) {
          continue;
        }
        IntSet[] sides = new IntSet[axes.length];
        sides[FROM] = fromCodes[family.ordinal()];
        sides[TO] = toCodes[family.ordinal()];
        sides[SERVICE] = serviceCodes;
        sides[SOURCE_PORT] = portCodes;
        System.arraycopy(termCodes, 0, sides, TERMS, terms.length);
        out.add(new Box(sides));
      }
    }
    return true;
  }

  /**
   * The point of a connection. A protocol without ports has every source port alike, so the lowest
   * stands for them; a term that is not known is {@link #UNKNOWN}. Null if something else is
   * unknown or infeasible that some rule tells apart.
   */
  public int[] point(Connection connection) {
    int[] point = new int[axes.length];
    boolean known =
        codeEnds(connection, point)
            && serviceCode(connection, point)
            && sourcePortCode(connection, point);
    for (int i = 0; i < terms.length && known; i++) {
      known = termCode(i, connection, point);
    }
    return known ? point : null;
  }

  /**
   * The points of many connections, each as {@link #point} tells it. All are laid on one axis
   * before the next, for what is read of an axis is still near then.
   */
  public int[][] points(List<Connection> connections) {
    int[][] out = new int[connections.size()][axes.length];
    lay(connections, out, this::codeEnds);
    lay(connections, out, this::serviceCode);
    lay(connections, out, this::sourcePortCode);
    for (int i = 0; i < terms.length; i++) {
      int term = i;
      lay(connections, out, (connection, point) -> termCode(term, connection, point));
    }
    return out;
  }

  private static void lay(
      List<Connection> connections, int[][] points, BiPredicate<Connection, int[]> code) {
    for (int i = 0; i < points.length; i++) {
      if (points[i] != null && !code.test(connections.get(i), points[i])) {
        points[i] = null;
      }
    }
  }

  /** Lays a connection on the axes of its ends; false if that takes what is not known of it. */
  private boolean codeEnds(Connection connection, int[] point) {
    int fromZone = resolution.zoneNumber(connection.from().zone());
    int toZone = resolution.zoneNumber(connection.to().zone());
    Address fromAddress = connection.from().address();
    Address toAddress = connection.to().address();
    if (fromZone < 0
        || toZone < 0
        || fromAddress == null
        || toAddress == null
        || fromAddress.family() != toAddress.family()) {
      return false;
    }
    point[FROM] = from.codeOf(fromZone, fromAddress);
    point[TO] = to.codeOf(toZone, toAddress);
    return point[FROM] >= 0 && point[TO] >= 0;
  }

  private boolean serviceCode(Connection connection, int[] point) {
    if (connection.protocol() < 0 || connection.detail() < 0) {
      return services.classes() <= 1;
    }
    point[SERVICE] =
        services.codeOf(Transport.position(connection.protocol(), connection.detail()));
    return true;
  }

  private boolean sourcePortCode(Connection connection, int[] point) {
    if (connection.sourcePort() >= 0) {
      point[SOURCE_PORT] = sourcePorts.codeOf(connection.sourcePort());
      return true;
    }
    return sourcePorts.classes() <= 1
        || connection.protocol() >= 0 && !Transport.hasPorts(connection.protocol());
  }

  private boolean termCode(int i, Connection connection, int[] point) {
    int value = resolution.valueNumber(i, connection.terms().get(coordinates[i]));
    if (value >= 0) {
      point[TERMS + i] = terms[i].codeOf(value);
    } else if (asked[i]) {
      point[TERMS + i] = UNKNOWN;
    }
    return value >= 0 || !listed[i];
  }

  /**
   * Whether some box holds the point of a connection, or there is none, see {@link #point}. Terms
   * are laid out only as long as a box may hold it, so this is quicker where none does.
   *
   * @param connection all terms of which that are known are values here
   */
  public boolean mayHold(List<Box> boxes, Connection connection) {
    int[] point = new int[axes.length];
    if (lacksTerm(connection)
        || !codeEnds(connection, point)
        || !serviceCode(connection, point)
        || !sourcePortCode(connection, point)) {
      return true;
    }
    for (Box box : boxes) {
      if (mayHold(box, connection, point)) {
        return true;
      }
    }
    return false;
  }

  /**
   * @param point of the connection, without its terms
   */
  private boolean mayHold(Box box, Connection connection, int[] point) {
    for (int axis = 0; axis < TERMS; axis++) {
      if (!holds(box, axis, point)) {
        return false;
      }
    }
    for (int i = 0; i < terms.length; i++) {
      if (!termCode(i, connection, point)) {
        return true;
      }
      if (!holds(box, TERMS + i, point)) {
        return false;
      }
    }
    return true;
  }

  /** Whether a box holds a point on an axis, on which it may be {@link #UNKNOWN}. */
  public boolean holds(Box box, int axis, int[] point) {
    IntSet side = box.side(axis);
    return side == all(axis) || side.contains(point[axis]);
  }

  /** Whether a term is unknown that some rule tells apart from all others. */
  private boolean lacksTerm(Connection connection) {
    for (int i = 0; i < terms.length; i++) {
      if (listed[i] && connection.terms().get(coordinates[i]) == null) {
        return true;
      }
    }
    return false;
  }

  /**
   * For each point here a point of another space that the same rules hold.
   *
   * @param other over the same zones, addresses, services and coordinates
   * @param rules whose names mean the same in both
   * @return null if they do not, as far as a point has none there
   */
  public UnaryOperator<int[]> pointsIn(Space other, List<Rule> rules) {
    int[][] values = new int[terms.length][];
    for (int i = 0; i < values.length; i++) {
      values[i] = resolution.valuesIn(other.resolution, i, rules);
      if (values[i] != null && Arrays.stream(values[i]).anyMatch(value -> value < 0)) {
        return null;
      }
    }
    return point -> pointIn(other, point, values);
  }

  private int[] pointIn(Space other, int[] point, int[][] values) {
    int[] out = point.clone();
    if (!shares(FROM, other)) {
      out[FROM] = from.codeIn(other.from, point[FROM]);
    }
    if (!shares(TO, other)) {
      out[TO] = to.codeIn(other.to, point[TO]);
    }
    if (!shares(SERVICE, other)) {
      out[SERVICE] = other.services.codeOf(services.value(point[SERVICE]));
    }
    if (!shares(SOURCE_PORT, other)) {
      out[SOURCE_PORT] = other.sourcePorts.codeOf(sourcePorts.value(point[SOURCE_PORT]));
    }
    for (int i = 0; i < terms.length; i++) {
      if (!shares(TERMS + i, other)) {
        int value = terms[i].value(point[TERMS + i]);
        out[TERMS + i] = other.terms[i].codeOf(values[i] == null ? value : values[i][value]);
      }
    }
    return out;
  }

  /** Whether an axis is coded as in another space. */
  public boolean shares(int axis, Space other) {
    return axes[axis] == other.axes[axis];
  }

  /** What a code of another space with the same classes is here. */
  int here(int axis, int code, Space other) {
    return axes[axis].here(code, other.axes[axis]);
  }

  /** What a set of codes of another space with the same classes is here. */
  IntSet here(int axis, IntSet codes, Space other) {
    return axes[axis].here(codes, other.axes[axis]);
  }

  /**
   * A box without those of its points that no connection has: since the lowest source port stands
   * for all where a protocol has none, a box without it has only services with ports.
   */
  public Optional<Box> feasible(Box box) {
    if (box.side(SOURCE_PORT).contains(sourcePorts.all().min())) {
      return Optional.of(box);
    }
    IntSet left = box.side(SERVICE).intersect(services.codes(Transport.WITH_PORTS));
    return left.isEmpty() ? Optional.empty() : Optional.of(box.with(SERVICE, left));
  }

  /**
   * What a box asks for, in words: on each axis that it narrows its values, and a count where there
   * are more than {@value #MOST_WORDS}.
   */
  public List<String> words(Box box) {
    List<String> out = new ArrayList<>();
    for (int axis = 0; axis < axes.length; axis++) {
      if (box.side(axis) != axes[axis].all()) {
        out.add(words(axis, box.side(axis)));
      }
    }
    return out;
  }

  /** A set of codes of one axis in words, with a count where there are many. */
  public String words(int axis, IntSet codes) {
    return switch (axis) {
      case FROM -> joined("from ", from.words(codes));
      case TO -> joined("to ", to.words(codes));
      case SERVICE -> joined("service ", ServiceLiteral.covering(services.values(codes)));
      case SOURCE_PORT -> joined("from port ", ports(sourcePorts.values(codes)));
      default -> {
        Vocabulary vocabulary = resolution.vocabularies().get(axis - TERMS);
        SymbolAxis line = terms[axis - TERMS];
        yield joined(
            vocabulary.coordinate().word() + " ",
            line.values(codes).limit(MOST_WORDS).mapToObj(vocabulary.values()::get).toList(),
            line.size(codes));
      }
    };
  }

  private static List<String> ports(IntSet ports) {
    List<String> out = new ArrayList<>();
    for (int i = 0; i < ports.intervals(); i++) {
      boolean one = ports.first(i) == ports.last(i);
      out.add(one ? ports.first(i) + "" : ports.first(i) + "-" + ports.last(i));
    }
    return out;
  }

  private static String joined(String before, List<String> values) {
    return joined(before, values.subList(0, Math.min(MOST_WORDS, values.size())), values.size());
  }

  private static String joined(String before, List<String> shown, int all) {
    int more = all - shown.size();
    return before + String.join(", ", shown) + (more > 0 ? " and " + more + " more" : "");
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

  /** A connection at {@code point}, with values that a reader will know where there is a choice. */
  public Connection connection(int[] point) {
    return connection(point, Connection.UNKNOWN);
  }

  /**
   * The same with a protocol that is known already.
   *
   * @param known the protocol, or {@link Connection#UNKNOWN}
   */
  Connection connection(int[] point, int known) {
    int position =
        known < 0
            ? services.value(point[SERVICE], KNOWN_SERVICES)
            : services.valueWithin(
                point[SERVICE],
                Transport.position(known, 0),
                Transport.position(known, Transport.maxDetail(known)),
                KNOWN_SERVICES);
    int protocol = Transport.protocol(position);
    int sourcePort =
        Transport.hasPorts(protocol)
            ? sourcePorts.value(point[SOURCE_PORT], KNOWN_SOURCE_PORTS)
            : Connection.UNKNOWN;
    Map<Coordinate, String> named = new EnumMap<>(Coordinate.class);
    for (int i = 0; i < terms.length; i++) {
      if (asked[i]) {
        named.put(
            coordinates[i],
            resolution
                .vocabularies()
                .get(i)
                .values()
                .get(resolution.counting(i, terms[i].value(point[TERMS + i]))));
      }
    }
    return new Connection(
        from.value(point[FROM], KNOWN_ADDRESSES),
        to.value(point[TO], KNOWN_ADDRESSES),
        protocol,
        Transport.detail(position),
        sourcePort,
        named);
  }
}
