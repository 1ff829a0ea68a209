package dev.ironsieve.server.draft;

import dev.ironsieve.core.directory.PersonNames;
import dev.ironsieve.core.directory.PersonVocabulary;
import dev.ironsieve.core.directory.Snapshot;
import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Connection.Endpoint;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.DeviceState;
import dev.ironsieve.core.model.Vocabulary;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.sets.Address;
import dev.ironsieve.core.space.Resolution;
import dev.ironsieve.core.vocabulary.ValueFinder;
import dev.ironsieve.server.directory.Directory;
import dev.ironsieve.server.presence.SignIns;
import dev.ironsieve.server.presence.SignIns.SignIn;
import jakarta.enterprise.context.ApplicationScoped;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * Fills in what sign-ins tell of a connection: who is at the address that it comes from, or from
 * where the person that it names would open it.
 */
@ApplicationScoped
public class ProbeFill {
  private final SignIns signIns;
  private final Directory directory;
  private volatile Known last; // probes are asked again and again of one snapshot

  /** The names of one snapshot. */
  private record Known(Snapshot snapshot, PersonNames names) {}

  ProbeFill(SignIns signIns, Directory directory) {
    this.signIns = signIns;
    this.directory = directory;
  }

  /**
   * A connection with more known of it.
   *
   * @param remarks the filled-in terms with their reasons, in sentences
   */
  record Filled(Connection connection, List<String> remarks) {}

  Filled fill(Connection connection, Rulebase rulebase) {
    String named = connection.terms().get(Coordinate.PERSON);
    Address address = connection.from().address();
    Optional<SignIn> there =
        named == null && address != null ? signIns.at(address) : Optional.empty();
    boolean placed = named != null && address == null;
    if (there.isEmpty() && !placed) {
      return new Filled(connection, List.of());
    }
    PersonNames names = names(rulebase).orElse(null);
    if (names == null) {
      return new Filled(connection, List.of());
    }
    return placed
        ? from(connection, named, names, rulebase)
        : asking(
            connection,
            names.nameOf(there.get().person()).orElse(PersonVocabulary.UNLISTED),
            there.get(),
            rulebase);
  }

  /** The people of the rulebase's snapshot, if it is one of this directory. */
  private Optional<PersonNames> names(Rulebase rulebase) {
    Snapshot snapshot =
        rulebase
            .vocabulary(Coordinate.PERSON)
            .map(Vocabulary::edition)
            .flatMap(directory::known)
            .orElse(null);
    Known known = last;
    if (snapshot != null && (known == null || known.snapshot != snapshot)) {
      known = new Known(snapshot, new PersonNames(snapshot));
      last = known;
    }
    return snapshot == null ? Optional.empty() : Optional.of(known.names);
  }

  private static Filled asking(
      Connection connection, String name, SignIn there, Rulebase rulebase) {
    Map<Coordinate, String> terms = new EnumMap<>(Coordinate.class);
    terms.putAll(connection.terms());
    terms.put(Coordinate.PERSON, name);
    String device = said(there.device(), terms, rulebase);
    String who = name.equals(PersonVocabulary.UNLISTED) ? there.person() + ", unlisted," : name;
    return new Filled(
        connection.saying(terms),
        List.of(
            who + " is signed in at " + there.address() + ", so the probe asks as them." + device));
  }

  /** Fills in the device of a sign-in if it is known and the line names none; returns a remark. */
  private static String said(DeviceState device, Map<Coordinate, String> terms, Rulebase rulebase) {
    boolean known =
        device != null
            && !terms.containsKey(Coordinate.DEVICE)
            && rulebase
                .vocabulary(Coordinate.DEVICE)
                .flatMap(vocabulary -> new ValueFinder(vocabulary).value(device.toString()))
                .isPresent();
    if (!known) {
      return "";
    }
    terms.put(Coordinate.DEVICE, device.toString());
    return " Their device is " + device + ".";
  }

  private Filled from(Connection connection, String named, PersonNames names, Rulebase rulebase) {
    List<SignIn> places = names.idOf(named).map(signIns::of).orElse(List.of());
    if (places.size() != 1) {
      return new Filled(
          connection,
          places.isEmpty()
              ? List.of()
              : List.of(named + " is signed in at " + places.size() + " addresses; say one."));
    }
    Address address = places.getFirst().address();
    Map<Coordinate, String> terms = new EnumMap<>(Coordinate.class);
    terms.putAll(connection.terms());
    String device = said(places.getFirst().device(), terms, rulebase);
    String zone = connection.from().zone();
    String known = zone != null ? zone : new Resolution(rulebase).zoneOf(address);
    return new Filled(
        new Connection(
            new Endpoint(known, address),
            connection.to(),
            connection.protocol(),
            connection.detail(),
            connection.sourcePort(),
            terms),
        List.of(
            named + " is signed in at " + address + ", so the probe comes from there." + device));
  }
}
