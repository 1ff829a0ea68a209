package dev.ironsieve.core.matcher;

import dev.ironsieve.core.matcher.Trace.CriterionName;
import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.ruleindex.RuleIndex;
import dev.ironsieve.core.sets.AddressSet;
import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.sets.TransportSet;
import dev.ironsieve.core.space.Resolution;
import dev.ironsieve.core.space.ResolvedMatch;
import java.util.ArrayList;
import java.util.Collections;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;

/** Evaluates the criteria of rules for one connection, of which some terms may be unknown. */
final class CriterionEvaluator {
  private static final CriterionName[] PARTS = CriterionName.values();

  private final RuleIndex index;
  private final Resolution resolution;
  private final Connection connection;
  private final int fromZone;
  private final int toZone;
  private final List<Map<Object, Boolean>> answers = new ArrayList<>();
  private final Map<Integer, Set<CriterionName>> sets = new HashMap<>();
  private final IntSet[] possible; // by vocabulary: the values that it may have
  private final CriterionName[] termParts; // by vocabulary
  private int applications = -1; // number of the vocabulary

  CriterionEvaluator(RuleIndex index, Connection connection) {
    this.index = index;
    this.resolution = index.resolution();
    this.connection = connection;
    fromZone = resolution.zoneNumber(connection.from().zone());
    toZone = resolution.zoneNumber(connection.to().zone());
    for (int part = 0; part < PARTS.length; part++) {
      answers.add(new IdentityHashMap<>());
    }
    int vocabularies = resolution.vocabularies().size();
    possible = new IntSet[vocabularies];
    termParts = new CriterionName[vocabularies];
    for (int i = 0; i < vocabularies; i++) {
      var coordinate = resolution.vocabularies().get(i).coordinate();
      int number = resolution.valueNumber(i, connection.terms().get(coordinate));
      possible[i] = number < 0 ? IntSet.EMPTY : IntSet.of(number);
      termParts[i] = CriterionName.of(coordinate);
      applications = coordinate == Coordinate.APPLICATION ? i : applications;
    }
  }

  /**
   * The criteria that do not hold.
   *
   * @param oneIsEnough whether the rest need not be asked then
   */
  Set<CriterionName> failing(int handle, boolean oneIsEnough) {
    ResolvedMatch match = index.match(handle);
    int failing = bit(CriterionName.SERVICE, match.services());
    failing |= skip(failing, oneIsEnough) ? 0 : bit(CriterionName.FROM_ZONE, match.fromZones());
    failing |= skip(failing, oneIsEnough) ? 0 : bit(CriterionName.TO_ZONE, match.toZones());
    failing |= skip(failing, oneIsEnough) ? 0 : bit(CriterionName.FROM_ADDRESS, match.from());
    failing |= skip(failing, oneIsEnough) ? 0 : bit(CriterionName.TO_ADDRESS, match.to());
    for (int i = 0; i < possible.length && !skip(failing, oneIsEnough); i++) {
      IntSet wanted = match.terms().get(i);
      boolean fails =
          !wanted.equals(resolution.anyTerms().get(i)) && !wanted.intersects(possible[i]);
      failing |= fails ? 1 << termParts[i].ordinal() : 0;
    }
    if (failing == 0 && hangTogether(match) && !fitsTogether(match)) {
      failing = 1 << CriterionName.SERVICE.ordinal();
    }
    return sets.computeIfAbsent(failing, CriterionEvaluator::parts);
  }

  private static boolean skip(int failing, boolean oneIsEnough) {
    return oneIsEnough && failing != 0;
  }

  private static Set<CriterionName> parts(int bits) {
    Set<CriterionName> out = EnumSet.noneOf(CriterionName.class);
    for (CriterionName part : PARTS) {
      if ((bits & 1 << part.ordinal()) != 0) {
        out.add(part);
      }
    }
    return Collections.unmodifiableSet(out);
  }

  /** The part's bit if its criterion does not hold. */
  private int bit(CriterionName part, Object criterion) {
    Map<Object, Boolean> known = answers.get(part.ordinal());
    Boolean holds = known.get(criterion);
    if (holds == null) {
      holds = holds(part, criterion);
      known.put(criterion, holds);
    }
    return holds ? 0 : 1 << part.ordinal();
  }

  private boolean holds(CriterionName part, Object criterion) {
    return switch (part) {
      case FROM_ZONE -> inZones((IntSet) criterion, fromZone);
      case TO_ZONE -> inZones((IntSet) criterion, toZone);
      case FROM_ADDRESS -> inAddresses((AddressSet) criterion, connection.from());
      case TO_ADDRESS -> inAddresses((AddressSet) criterion, connection.to());
      default -> inServices((List<?>) criterion);
    };
  }

  private boolean inZones(IntSet zones, int zone) {
    return zone < 0 ? zones.size() == resolution.zoneNames().size() : zones.contains(zone);
  }

  private boolean inAddresses(AddressSet addresses, Connection.Endpoint end) {
    return end.address() == null ? addresses.isAll() : addresses.contains(end.address());
  }

  private boolean inServices(List<?> services) {
    for (Object conjunct : services) {
      if (isIn((ResolvedMatch.ServiceConjunct) conjunct)) {
        return true;
      }
    }
    return false;
  }

  private boolean isIn(ResolvedMatch.ServiceConjunct conjunct) {
    TransportSet services = conjunct.services();
    boolean service =
        connection.protocol() == Connection.UNKNOWN
            ? services.equals(TransportSet.ALL)
            : services.contains(
                connection.protocol(), connection.detail(), connection.sourcePort());
    return service
        && (conjunct.applications() == null
            || conjunct.applications().intersects(possible[applications]));
  }

  /** Whether services and application fit together where each fits alone. */
  private boolean fitsTogether(ResolvedMatch match) {
    for (ResolvedMatch.Portion portion : match.portions()) {
      IntSet wanted = portion.terms().get(applications);
      boolean any = wanted.equals(resolution.anyTerms().get(applications));
      if ((any || wanted.intersects(possible[applications])) && inServices(portion)) {
        return true;
      }
    }
    return false;
  }

  private boolean inServices(ResolvedMatch.Portion portion) {
    return isIn(new ResolvedMatch.ServiceConjunct(portion.services(), null));
  }

  /** Whether the matched services depend on the application. */
  private static boolean hangTogether(ResolvedMatch match) {
    for (ResolvedMatch.ServiceConjunct conjunct : match.services()) {
      if (conjunct.applications() != null) {
        return true;
      }
    }
    return false;
  }
}
