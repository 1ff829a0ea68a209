package dev.ironsieve.server.log;

import dev.ironsieve.core.model.GatewaySettings;
import dev.ironsieve.formats.document.RuleDocument;
import dev.ironsieve.formats.document.RulebaseDocument;
import dev.ironsieve.formats.document.SectionDocument;
import java.time.ZoneId;
import java.util.HashMap;
import java.util.Map;

/**
 * The rules of a revision, as far as log records show them.
 *
 * @param byId by id; empty if the revision does not exist
 * @param zone the gateways' time zone
 */
record RevisionRules(Map<String, NamedRule> byId, ZoneId zone) {
  /** Of a revision that does not exist. */
  static final RevisionRules NONE = new RevisionRules(Map.of(), GatewaySettings.UTC);

  /** A rule as it was in a revision. */
  record NamedRule(int number, String name) {}

  static RevisionRules of(RulebaseDocument document) {
    Map<String, NamedRule> out = new HashMap<>();
    for (SectionDocument section : document.sections()) {
      for (RuleDocument rule : section.rules()) {
        out.put(rule.id(), new NamedRule(out.size() + 1, rule.name()));
      }
    }
    String zone = document.timeZone();
    return new RevisionRules(out, zone == null ? GatewaySettings.UTC : ZoneId.of(zone));
  }
}
