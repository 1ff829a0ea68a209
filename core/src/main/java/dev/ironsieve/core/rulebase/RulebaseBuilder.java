package dev.ironsieve.core.rulebase;

import dev.ironsieve.core.model.AddressObject;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Feed;
import dev.ironsieve.core.model.GatewaySettings;
import dev.ironsieve.core.model.Names;
import dev.ironsieve.core.model.Notice;
import dev.ironsieve.core.model.RatePlan;
import dev.ironsieve.core.model.RulebaseKind;
import dev.ironsieve.core.model.SavedCheck;
import dev.ironsieve.core.model.Section;
import dev.ironsieve.core.model.ServiceObject;
import dev.ironsieve.core.model.TermObject;
import dev.ironsieve.core.model.Vocabulary;
import dev.ironsieve.core.model.Zone;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * Builds a rulebase from the parts of another; {@link #build} checks the result. The parts include
 * those from a common rulebase.
 */
public final class RulebaseBuilder {
  RulebaseKind kind = RulebaseKind.TRAFFIC;
  CommonRules common; // or null
  String name = "";
  List<Zone> zones = List.of();
  List<AddressObject> addresses = List.of();
  List<ServiceObject> services = List.of();
  List<TermObject> termObjects = List.of();
  List<Vocabulary> pinned = List.of();
  List<Feed> feeds = List.of();
  GatewaySettings gatewaySettings = GatewaySettings.NONE;
  List<SavedCheck> checks = List.of();
  List<Section> sections = List.of();
  Map<Coordinate, Set<String>> others = Map.of(); // items that need classes too
  Rulebase before; // with mostly the same, already checked parts; or null

  /** A builder without any part. */
  public RulebaseBuilder() {}

  public RulebaseBuilder kind(RulebaseKind value) {
    kind = value;
    return this;
  }

  RulebaseBuilder common(CommonRules value) {
    common = value;
    return this;
  }

  public RulebaseBuilder name(String value) {
    name = value;
    return this;
  }

  public RulebaseBuilder zones(List<Zone> value) {
    zones = value;
    return this;
  }

  public RulebaseBuilder addresses(List<AddressObject> value) {
    addresses = value;
    return this;
  }

  public RulebaseBuilder services(List<ServiceObject> value) {
    services = value;
    return this;
  }

  public RulebaseBuilder termObjects(List<TermObject> value) {
    termObjects = value;
    return this;
  }

  public RulebaseBuilder pinned(List<Vocabulary> value) {
    pinned = value;
    return this;
  }

  public RulebaseBuilder feeds(List<Feed> value) {
    feeds = value;
    return this;
  }

  public RulebaseBuilder gatewaySettings(GatewaySettings value) {
    gatewaySettings = value;
    return this;
  }

  public RulebaseBuilder checks(List<SavedCheck> value) {
    checks = value;
    return this;
  }

  public RulebaseBuilder sections(List<Section> value) {
    sections = value;
    return this;
  }

  /** Hosts, times and device states of another rulebase, for which classes are needed too. */
  RulebaseBuilder others(Map<Coordinate, Set<String>> value) {
    others = value;
    return this;
  }

  RulebaseBuilder before(Rulebase value) {
    before = value;
    return this;
  }

  /**
   * Puts the parts of a common rulebase in the place of those so far.
   *
   * @param next null for none
   */
  public RulebaseBuilder under(CommonRules next) {
    OwnParts own = OwnParts.of(this);
    common = next;
    List<Section> all = new ArrayList<>();
    if (next != null) {
      all.addAll(next.allHead());
    }
    all.addAll(own.sections());
    if (next != null) {
      all.addAll(next.allTail());
    }
    sections = all;
    zones = own.zones();
    addresses = own.addresses();
    services = own.services();
    termObjects = own.termObjects();
    List<RatePlan> ratePlans = own.ratePlans();
    List<Notice> notices = own.notices();
    if (next != null) {
      Set<String> names = new HashSet<>(zones.stream().map(z -> Names.key(z.name())).toList());
      List<Zone> others =
          next.all(CommonRules::zones).stream()
              .filter(zone -> names.add(Names.key(zone.name())))
              .toList();
      zones = joined(zones, others);
      addresses = joined(addresses, next.all(CommonRules::addresses));
      services = joined(services, next.all(CommonRules::services));
      termObjects = joined(termObjects, next.all(CommonRules::termObjects));
      ratePlans = joined(ratePlans, next.all(CommonRules::ratePlans));
      notices = joined(notices, next.all(CommonRules::notices));
    }
    gatewaySettings = gatewaySettings.withRatePlans(ratePlans).withNotices(notices);
    return this;
  }

  /** Both, where what is in both stands once, among the others. */
  private static <T> List<T> joined(List<T> own, List<T> others) {
    Set<T> both = new HashSet<>(others);
    List<T> out = new ArrayList<>(own.stream().filter(one -> !both.contains(one)).toList());
    out.addAll(others);
    return out;
  }

  public Rulebase build() {
    return new Rulebase(this);
  }
}
