package dev.ironsieve.formats.rfc8519;

import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Logging;
import dev.ironsieve.core.model.Opening;
import dev.ironsieve.core.model.Ownership;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Section;
import dev.ironsieve.core.model.ServiceItem;
import dev.ironsieve.core.model.Validity;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.space.Resolution;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;

/**
 * Writes a rulebase as {@code ietf-access-control-list:acls} (RFC 8519). A rule becomes as many
 * entries as its sets need. A rule that the standard cannot say is left out whole and named, never
 * written wider or narrower than it is.
 */
public final class AclWriter {
  /** Most entries for one rule. */
  public static final int MAX_ENTRIES = 2000;

  /**
   * The result of writing.
   *
   * @param document the root object
   * @param leftOut rules that are not in it, each with the reason
   * @param notes what of the written rules is not in it, such as notes
   */
  public record Exported(ObjectNode document, List<LeftOut> leftOut, List<String> notes) {}

  /**
   * A rule that the standard cannot say.
   *
   * @param number place in the order, from 1
   */
  public record LeftOut(int number, String rule, String reason) {}

  private static final JsonNodeFactory JSON = JsonNodeFactory.instance;

  private final Rulebase rulebase;
  private final Resolution resolution;
  private final List<LeftOut> leftOut = new ArrayList<>();
  private final List<String> notes = new ArrayList<>();

  private AclWriter(Rulebase rulebase) {
    this.rulebase = rulebase;
    this.resolution = new Resolution(rulebase);
  }

  public static Exported write(Rulebase rulebase) {
    return new AclWriter(rulebase).write();
  }

  private Exported write() {
    ObjectNode root = JSON.objectNode();
    ArrayNode list = root.putObject(Place.MODULE + "acls").putArray("acl");
    Set<String> names = new HashSet<>();
    int number = 1;
    for (Section section : rulebase.sections()) {
      ObjectNode acl = list.addObject();
      acl.put("name", unused(section.name(), names));
      acl.put("type", Place.MODULE + "mixed-eth-ipv4-ipv6-acl-type");
      ArrayNode aces = acl.putObject("aces").putArray("ace");
      Set<String> aceNames = new HashSet<>();
      for (Rule rule : section.rules()) {
        writeRule(rule, number++, aces, aceNames);
      }
    }
    if (!rulebase.zones().isEmpty()) {
      notes.add("Zones are written as interfaces of the same name, without their networks.");
    }
    if (!rulebase.addresses().isEmpty() || !rulebase.services().isEmpty()) {
      notes.add("Address and service objects are written as what they stand for.");
    }
    if (rulebase.sections().size() > 1) {
      notes.add("Each section becomes one list; a gateway has to apply the lists in this order.");
    }
    notes.add("The default rule, which drops and logs the rest, is not written.");
    return new Exported(root, List.copyOf(leftOut), List.copyOf(notes));
  }

  private void writeRule(Rule rule, int number, ArrayNode aces, Set<String> names) {
    Optional<String> obstacle = obstacle(rule);
    List<ObjectNode> matches = List.of();
    if (obstacle.isEmpty()) {
      AclMatches writer = new AclMatches(rule, resolution);
      obstacle = writer.obstacle();
      matches = obstacle.isEmpty() ? writer.write() : matches;
    }
    if (obstacle.isPresent()) {
      leftOut.add(new LeftOut(number, rule.name(), obstacle.get()));
      return;
    }
    if (!rule.note().isEmpty()) {
      notes.add("Rule " + number + " \"" + rule.name() + "\": its note is not written.");
    }
    if (!rule.ownership().equals(Ownership.NONE)) {
      notes.add(
          "Rule %d \"%s\": its owner, ticket and tags are not written."
              .formatted(number, rule.name()));
    }
    if (rule.opening() == Opening.OPENED) {
      notes.add("Rule " + number + " \"" + rule.name() + "\": that it opens is not written.");
    }
    if (rule.ratePlan() != null || rule.notice() != null) {
      notes.add(
          "Rule " + number + " \"" + rule.name() + "\": its rate plan or notice is not written.");
    }
    if (rule.logging() == Logging.START || rule.logging() == Logging.BOTH) {
      notes.add(
          "Rule " + number + " \"" + rule.name() + "\": when it logs is not written, only that.");
    }
    for (ObjectNode one : matches) {
      ObjectNode ace = aces.addObject();
      ace.put("name", unused(rule.name(), names));
      if (!one.isEmpty()) {
        ace.set("matches", one);
      }
      ObjectNode actions = ace.putObject("actions");
      actions.put("forwarding", Place.MODULE + forwarding(rule.verdict()));
      if (rule.logging() != Logging.OFF) {
        actions.put("logging", Place.MODULE + "log-syslog");
      }
    }
  }

  private static Optional<String> obstacle(Rule rule) {
    if (!rule.enabled()) {
      return Optional.of("it is disabled, and the standard has no disabled entries");
    }
    if (rule.unfinished()) {
      return Optional.of("it is unfinished and decides nothing");
    }
    if (rule.observeOnly()) {
      return Optional.of("it only observes");
    }
    if (!rule.validity().equals(Validity.ALWAYS)) {
      return Optional.of("the standard has no start and end dates");
    }
    if (rule.services().mentioned().contains(new ServiceItem.UsualPorts())) {
      return Optional.of("it asks for the usual ports of applications, which the standard has not");
    }
    if (!rule.terms().isEmpty()) {
      return Optional.of(
          rule.terms().keySet().stream()
              .map(Coordinate::word)
              .collect(Collectors.joining(" and ", "the standard has no match for ", "")));
    }
    return rule.verdict() == Verdict.CAUTION
        ? Optional.of("the standard has no verdict \"caution\"")
        : Optional.empty();
  }

  private static String forwarding(Verdict verdict) {
    return switch (verdict) {
      case ALLOW -> "accept";
      case DROP -> "drop";
      case REJECT -> "reject";
      case CAUTION -> throw new IllegalArgumentException("caution was left out before");
    };
  }

  private static String unused(String name, Set<String> taken) {
    String free = name;
    for (int i = 2; !taken.add(free); i++) {
      free = name + " (" + i + ")";
    }
    return free;
  }
}
