package dev.ironsieve.core.rulebase;

import dev.ironsieve.core.model.AddressObject;
import dev.ironsieve.core.model.InvalidModel;
import dev.ironsieve.core.model.Names;
import dev.ironsieve.core.model.Notice;
import dev.ironsieve.core.model.RatePlan;
import dev.ironsieve.core.model.RulebaseKind;
import dev.ironsieve.core.model.Section;
import dev.ironsieve.core.model.ServiceObject;
import dev.ironsieve.core.model.TermObject;
import dev.ironsieve.core.model.Zone;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/**
 * One revision of a common rulebase, as the rulebases below it have it. Its head rules stand above
 * the rules of a rulebase below, its tail rules below them. Rules below can use its objects. A zone
 * of the same name in a rulebase below takes the place of its zone.
 *
 * @param rulebase name of the common rulebase
 * @param revision its number
 * @param above what the common rulebase itself has from another one, or null
 */
public record CommonRules(
    String rulebase,
    int revision,
    List<Section> head,
    List<Section> tail,
    List<Zone> zones,
    List<AddressObject> addresses,
    List<ServiceObject> services,
    List<TermObject> termObjects,
    List<RatePlan> ratePlans,
    List<Notice> notices,
    CommonRules above) {
  /** Most common rulebases one above the other. */
  public static final int MAX_LEVELS = 5;

  public CommonRules {
    rulebase = Names.checkTitle("common rulebase", rulebase);
    head = List.copyOf(head);
    tail = List.copyOf(tail);
    zones = List.copyOf(zones);
    addresses = List.copyOf(addresses);
    services = List.copyOf(services);
    termObjects = List.copyOf(termObjects);
    ratePlans = List.copyOf(ratePlans);
    notices = List.copyOf(notices);
    Set<String> names = above == null ? Set.of() : above.names();
    if (names.contains(Names.key(rulebase))) {
      throw new InvalidModel(
          "common rulebase \"" + rulebase + "\"", "no rulebase above itself", "itself");
    }
    if (names.size() >= MAX_LEVELS) {
      throw new InvalidModel(
          "common rulebase \"" + rulebase + "\"",
          "at most " + MAX_LEVELS + " levels of common rulebases",
          "more");
    }
  }

  /**
   * What a revision of a common rulebase gives to the rulebases below it.
   *
   * @throws InvalidModel if it is not a common rulebase
   */
  public static CommonRules of(Rulebase common, int revision) {
    if (common.kind() != RulebaseKind.COMMON) {
      throw new InvalidModel(
          "rulebase \"" + common.name() + "\"",
          "a common rulebase",
          "one of " + common.kind().word());
    }
    OwnParts own = common.own();
    return new CommonRules(
        common.name(),
        revision,
        own.sections().stream().filter(section -> !section.tail()).toList(),
        own.sections().stream().filter(Section::tail).toList(),
        own.zones(),
        own.addresses(),
        own.services(),
        own.termObjects(),
        own.ratePlans(),
        own.notices(),
        common.common().orElse(null));
  }

  /** The keys of this rulebase's name and those above it. */
  private Set<String> names() {
    return levels().map(level -> Names.key(level.rulebase)).collect(Collectors.toSet());
  }

  /** This and those above, the nearest first. */
  private Stream<CommonRules> levels() {
    return Stream.iterate(this, level -> level != null, CommonRules::above);
  }

  /** The head sections of all levels, in order. */
  List<Section> allHead() {
    List<Section> out = new ArrayList<>(above == null ? List.of() : above.allHead());
    out.addAll(head);
    return out;
  }

  /** The tail sections of all levels, in order. */
  List<Section> allTail() {
    List<Section> out = new ArrayList<>(tail);
    out.addAll(above == null ? List.of() : above.allTail());
    return out;
  }

  /** The objects of one kind, of all levels. */
  <T> List<T> all(Function<CommonRules, List<T>> kind) {
    return levels().flatMap(level -> kind.apply(level).stream()).toList();
  }

  /** Name of the common rulebase that a section is from; empty if it is from none of these. */
  public Optional<String> originOf(Section section) {
    return levels()
        .filter(
            level ->
                Stream.concat(level.head.stream(), level.tail.stream())
                    .anyMatch(one -> one.id().equals(section.id())))
        .map(CommonRules::rulebase)
        .findFirst();
  }
}
