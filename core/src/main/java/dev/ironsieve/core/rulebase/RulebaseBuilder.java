package dev.ironsieve.core.rulebase;

import dev.ironsieve.core.model.AddressObject;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Feed;
import dev.ironsieve.core.model.GatewaySettings;
import dev.ironsieve.core.model.SavedCheck;
import dev.ironsieve.core.model.Section;
import dev.ironsieve.core.model.ServiceObject;
import dev.ironsieve.core.model.TermObject;
import dev.ironsieve.core.model.Vocabulary;
import dev.ironsieve.core.model.Zone;
import java.util.List;
import java.util.Map;
import java.util.Set;

/** Builds a rulebase from the parts of another; {@link #build} checks the result. */
final class RulebaseBuilder {
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

  RulebaseBuilder name(String value) {
    name = value;
    return this;
  }

  RulebaseBuilder zones(List<Zone> value) {
    zones = value;
    return this;
  }

  RulebaseBuilder addresses(List<AddressObject> value) {
    addresses = value;
    return this;
  }

  RulebaseBuilder services(List<ServiceObject> value) {
    services = value;
    return this;
  }

  RulebaseBuilder termObjects(List<TermObject> value) {
    termObjects = value;
    return this;
  }

  RulebaseBuilder pinned(List<Vocabulary> value) {
    pinned = value;
    return this;
  }

  RulebaseBuilder feeds(List<Feed> value) {
    feeds = value;
    return this;
  }

  RulebaseBuilder gatewaySettings(GatewaySettings value) {
    gatewaySettings = value;
    return this;
  }

  RulebaseBuilder checks(List<SavedCheck> value) {
    checks = value;
    return this;
  }

  RulebaseBuilder sections(List<Section> value) {
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

  Rulebase build() {
    return new Rulebase(this);
  }
}
