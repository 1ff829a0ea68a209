package dev.ironsieve.server.draft;

import dev.ironsieve.core.directory.Person;
import dev.ironsieve.core.directory.PersonVocabulary;
import dev.ironsieve.core.directory.Snapshot;
import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Connection.Endpoint;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Names;
import dev.ironsieve.core.model.Rulebase;
import dev.ironsieve.core.model.Vocabulary;
import dev.ironsieve.core.sets.Address;
import dev.ironsieve.core.space.Resolution;
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

  ProbeFill(SignIns signIns, Directory directory) {
    this.signIns = signIns;
    this.directory = directory;
  }

  /**
   * A connection with more known of it.
   *
   * @param remarks what was filled in, and why, in sentences
   */
  record Filled(Connection connection, List<String> remarks) {}

  Filled fill(Connection connection, Rulebase rulebase) {
    Optional<Snapshot> snapshot =
        rulebase.vocabulary(Coordinate.PERSON).map(Vocabulary::edition).flatMap(directory::known);
    String named = connection.terms().get(Coordinate.PERSON);
    Address address = connection.from().address();
    if (snapshot.isPresent() && named == null && address != null) {
      return signIns
          .at(address)
          .map(there -> asking(connection, nameOf(there, snapshot.get()), there))
          .orElse(new Filled(connection, List.of()));
    }
    if (snapshot.isPresent() && named != null && address == null) {
      return from(connection, named, snapshot.get(), rulebase);
    }
    return new Filled(connection, List.of());
  }

  private static String nameOf(SignIn there, Snapshot snapshot) {
    List<Person> people = snapshot.people();
    for (int i = 0; i < people.size(); i++) {
      if (Names.key(people.get(i).id()).equals(Names.key(there.person()))) {
        return PersonVocabulary.names(snapshot).get(i);
      }
    }
    return PersonVocabulary.UNLISTED;
  }

  private static Filled asking(Connection connection, String name, SignIn there) {
    Map<Coordinate, String> terms = new EnumMap<>(Coordinate.class);
    terms.putAll(connection.terms());
    terms.put(Coordinate.PERSON, name);
    String who = name.equals(PersonVocabulary.UNLISTED) ? there.person() + ", unlisted," : name;
    return new Filled(
        connection.saying(terms),
        List.of(who + " is signed in at " + there.address() + ", so the probe asks as them."));
  }

  private Filled from(Connection connection, String named, Snapshot snapshot, Rulebase rulebase) {
    int number = PersonVocabulary.names(snapshot).indexOf(named);
    List<SignIn> places = number < 0 ? List.of() : signIns.of(snapshot.people().get(number).id());
    if (places.size() != 1) {
      return new Filled(
          connection,
          places.isEmpty()
              ? List.of()
              : List.of(named + " is signed in at " + places.size() + " addresses; say one."));
    }
    Address address = places.getFirst().address();
    String zone = connection.from().zone();
    String known = zone != null ? zone : new Resolution(rulebase).zoneOf(address);
    return new Filled(
        new Connection(
            new Endpoint(known, address),
            connection.to(),
            connection.protocol(),
            connection.detail(),
            connection.sourcePort(),
            connection.terms()),
        List.of(named + " is signed in at " + address + ", so the probe comes from there."));
  }
}
