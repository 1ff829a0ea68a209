package dev.ironsieve.formats.rfc8519;

import com.fasterxml.jackson.databind.JsonNode;
import dev.ironsieve.core.model.AddressItem;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.InvalidModel;
import dev.ironsieve.core.model.Logging;
import dev.ironsieve.core.model.Names;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Section;
import dev.ironsieve.core.model.ServiceItem;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.model.Zone;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.sets.Address;
import dev.ironsieve.core.sets.AddressRange;
import dev.ironsieve.core.sets.Family;
import dev.ironsieve.core.sets.InvalidText;
import dev.ironsieve.formats.Fault;
import dev.ironsieve.formats.InvalidDocument;
import dev.ironsieve.formats.Json;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * Reads {@code ietf-access-control-list:acls} (RFC 8519, section 4.1) as a rulebase: each access
 * control list becomes a section, each entry a rule, each interface a zone without declared
 * networks. A match that a rule cannot hold, such as DSCP, is refused rather than left out, since
 * leaving it out would widen the rule.
 */
public final class AclReader {
  /**
   * A rulebase, and what the document says that did not become part of it.
   *
   * @param notes sentences for the reader, with JSON paths
   */
  public record Imported(Rulebase rulebase, List<String> notes) {}

  private static final Set<String> TYPES =
      Set.of(
          "ipv4-acl-type",
          "ipv6-acl-type",
          "eth-acl-type",
          "mixed-eth-ipv4-acl-type",
          "mixed-eth-ipv6-acl-type",
          "mixed-eth-ipv4-ipv6-acl-type");

  private final List<Fault> faults = new ArrayList<>();
  private final List<String> notes = new ArrayList<>();
  private final Map<String, String> zones = new LinkedHashMap<>(); // interface -> zone name

  private AclReader() {}

  /**
   * Reads a document.
   *
   * @param name the name of the new rulebase
   * @throws InvalidDocument with up to {@link InvalidDocument#MAX_FAULTS} faults
   */
  public static Imported read(byte[] json, String name) {
    return new AclReader().readDocument(new Place(Json.read(json, JsonNode.class), "$"), name);
  }

  /** Whether a document looks like one of these rather than one of our own. */
  public static boolean looksLikeOne(byte[] json) {
    String start = new String(json, 0, Math.min(json.length, 4000), StandardCharsets.UTF_8);
    return start.contains("access-control-list:acls") || start.matches("(?s)\\s*\\{\\s*\"acls\".*");
  }

  private Imported readDocument(Place root, String name) {
    Place acls = root.object(Set.of("acls")).required("acls");
    acls.object(Set.of("acl", "attachment-points"));
    acls.member("attachment-points")
        .ifPresent(
            place -> notes.add(place.path() + ": attachment to interfaces is not taken over"));
    List<Section> sections = new ArrayList<>();
    Set<String> names = new LinkedHashSet<>();
    for (Place acl : acls.member("acl").map(Place::array).orElse(List.of())) {
      collect(
          () -> {
            Section section = readAcl(acl, sections.size() + 1);
            if (!names.add(section.name())) {
              throw new InvalidDocument(
                  acl.path() + ".name", "each name once", '"' + section.name() + "\" twice");
            }
            sections.add(section);
          });
    }
    if (!faults.isEmpty()) {
      throw new InvalidDocument(faults);
    }
    List<Zone> zoneList =
        zones.values().stream().distinct().map(zone -> new Zone(zone, List.of(), "")).toList();
    try {
      Rulebase empty = Rulebase.empty(name);
      Rulebase rulebase =
          new Rulebase(
              name,
              zoneList,
              List.of(),
              List.of(),
              sections.isEmpty() ? empty.sections() : sections);
      return new Imported(rulebase, List.copyOf(notes));
    } catch (InvalidModel e) {
      throw new InvalidDocument("$", e.expected() + " (" + e.place() + ")", e.found());
    }
  }

  private void collect(Runnable reading) {
    if (faults.size() >= InvalidDocument.MAX_FAULTS) {
      return;
    }
    try {
      reading.run();
    } catch (InvalidDocument e) {
      faults.addAll(e.faults());
    }
  }

  private Section readAcl(Place acl, int number) {
    acl.object(Set.of("name", "type", "aces"));
    String name = acl.required("name").text();
    Optional<Place> type = acl.member("type");
    type.ifPresent(
        place -> {
          if (!TYPES.contains(place.identity())) {
            throw new InvalidDocument(
                place.path(), "one of " + TYPES.stream().sorted().toList(), place.shown());
          }
        });
    List<Rule> rules = new ArrayList<>();
    Set<String> names = new LinkedHashSet<>();
    Place aces = acl.member("aces").orElse(null);
    List<Place> list =
        aces == null
            ? List.of()
            : aces.object(Set.of("ace")).member("ace").map(Place::array).orElse(List.of());
    for (Place ace : list) {
      collect(
          () -> {
            Rule rule = readAce(ace, "s" + number + "r" + (rules.size() + 1));
            if (!names.add(rule.name())) {
              throw new InvalidDocument(
                  ace.path() + ".name", "each name once", '"' + rule.name() + "\" twice");
            }
            rules.add(rule);
          });
    }
    return made(acl.path(), () -> new Section("s" + number, name, rules));
  }

  private Rule readAce(Place ace, String id) {
    ace.object(Set.of("name", "matches", "actions", "statistics"));
    String name = ace.required("name").text();
    Place actions = ace.required("actions").object(Set.of("forwarding", "logging"));
    Place forwarding = actions.required("forwarding");
    Verdict verdict =
        switch (forwarding.identity()) {
          case "accept" -> Verdict.ALLOW;
          case "drop" -> Verdict.DROP;
          case "reject" -> Verdict.REJECT;
          default ->
              throw new InvalidDocument(
                  forwarding.path(), "accept, drop or reject", forwarding.shown());
        };
    Logging logging = actions.member("logging").map(AclReader::readLogging).orElse(Logging.OFF);
    Rule rule =
        made(
            ace.path(),
            () ->
                new Rule(
                    id,
                    name,
                    true,
                    Criterion.any(),
                    Criterion.any(),
                    Criterion.any(),
                    Criterion.any(),
                    Criterion.any(),
                    verdict,
                    logging,
                    ""));
    return ace.member("matches").map(matches -> readMatches(matches, rule)).orElse(rule);
  }

  private static Logging readLogging(Place logging) {
    return switch (logging.identity()) {
      case "log-syslog" -> Logging.END;
      case "log-none" -> Logging.OFF;
      default ->
          throw new InvalidDocument(logging.path(), "log-syslog or log-none", logging.shown());
    };
  }

  private Rule readMatches(Place matches, Rule rule) {
    matches.object(
        Set.of("ipv4", "ipv6", "tcp", "udp", "icmp", "ingress-interface", "egress-interface"));
    Optional<Place> v4 = matches.member("ipv4");
    Optional<Place> v6 = matches.member("ipv6");
    if (v4.isPresent() && v6.isPresent()) {
      throw new InvalidDocument(matches.path(), "ipv4 or ipv6", "both");
    }
    Family family = v4.isPresent() ? Family.IPV4 : v6.isPresent() ? Family.IPV6 : null;
    Place ip = v4.or(() -> v6).orElse(null);
    Criterion<AddressItem> from = Criterion.any();
    Criterion<AddressItem> to = Criterion.any();
    Optional<Place> protocol = Optional.empty();
    if (ip != null) {
      String word = family == Family.IPV4 ? "ipv4" : "ipv6";
      String source = "source-" + word + "-network";
      String destination = "destination-" + word + "-network";
      ip.object(Set.of("protocol", source, destination));
      protocol = ip.member("protocol");
      // An IP match narrows the rule to its family even where it names no network.
      from =
          Criterion.of(
              ip.member(source)
                  .map(place -> readNetwork(place, family))
                  .orElseGet(() -> new AddressItem.Literal(AddressRange.all(family))));
      to = ip.member(destination).map(p -> Criterion.of(readNetwork(p, family))).orElse(to);
    }
    Criterion<ServiceItem> services = new AclServices(matches, family, protocol).read();
    return rule.matching(
        readInterface(matches, "ingress-interface"),
        from,
        readInterface(matches, "egress-interface"),
        to,
        services);
  }

  private AddressItem readNetwork(Place network, Family family) {
    String text = network.text();
    int slash = text.indexOf('/');
    try {
      Address address = Address.parse(slash < 0 ? text : text.substring(0, slash));
      boolean length = slash >= 0 && text.substring(slash + 1).matches("[0-9]{1,3}");
      int bits = length ? Integer.parseInt(text.substring(slash + 1)) : -1;
      if (address.family() == family && bits >= 0 && bits <= family.bits()) {
        // RFC 6991, section 4: bits behind the length are allowed and mean nothing.
        AddressRange range = AddressRange.prefix(address, bits);
        if (!range.first().equals(address)) {
          notes.add(
              "%s: %s has bits set behind its length and was read as %s/%d"
                  .formatted(network.path(), text, range.first(), bits));
        }
        return new AddressItem.Literal(range);
      }
    } catch (InvalidText e) {
      throw new InvalidDocument(network.path(), e.expected(), network.shown());
    }
    String word = family == Family.IPV4 ? "IPv4" : "IPv6";
    throw new InvalidDocument(
        network.path(),
        "an " + word + " prefix with a length from 0 to " + family.bits(),
        network.shown());
  }

  private Criterion<String> readInterface(Place matches, String member) {
    return matches
        .member(member)
        .map(place -> Criterion.of(zones.computeIfAbsent(place.text(), t -> zone(place))))
        .orElse(Criterion.any());
  }

  private String zone(Place place) {
    String text = place.text();
    String name = text.replaceAll("[^\\p{L}\\p{N} ._&()+'-]", "-").strip();
    if (name.isEmpty() || !Character.isLetter(name.charAt(0))) {
      name = "if " + name;
    }
    name = name.substring(0, Math.min(name.length(), Names.MAX_NAME - 5)).strip();
    String base = name;
    Set<String> taken = new LinkedHashSet<>();
    zones.values().forEach(zone -> taken.add(Names.key(zone)));
    for (int i = 2; taken.contains(Names.key(name)); i++) {
      name = base + " " + i;
    }
    if (!name.equals(text)) {
      notes.add(place.path() + ": interface \"" + text + "\" became zone \"" + name + "\"");
    }
    String zone = name;
    made(place.path(), () -> new Zone(zone, List.of(), ""));
    return name;
  }

  private interface Make<T> {
    T make();
  }

  private static <T> T made(String path, Make<T> make) {
    try {
      return make.make();
    } catch (InvalidModel e) {
      throw new InvalidDocument(path, e.expected() + " (" + e.place() + ")", e.found());
    }
  }
}
