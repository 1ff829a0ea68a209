package dev.ironsieve.formats.report;

import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.ironsieve.core.analysis.Finding;
import java.net.URI;
import java.net.URISyntaxException;
import java.util.List;

/**
 * Writes findings in SARIF (OASIS Static Analysis Results Interchange Format 2.1.0). {@code ruleId}
 * is the kind of the finding, {@code logicalLocations[0].name} the name of the firewall rule.
 */
public final class SarifReport {
  private static final JsonNodeFactory JSON = JsonNodeFactory.instance;

  private SarifReport() {}

  public static ObjectNode write(List<Report> reports) {
    ObjectNode root = JSON.objectNode();
    root.put("$schema", "https://json.schemastore.org/sarif-2.1.0.json");
    root.put("version", "2.1.0");
    ObjectNode run = root.putArray("runs").addObject();
    ObjectNode driver = run.putObject("tool").putObject("driver");
    driver.put("name", "Iron Sieve");
    ArrayNode kinds = driver.putArray("rules");
    for (Finding.Kind kind : Finding.Kind.values()) {
      ObjectNode described = kinds.addObject();
      described.put("id", kind.word());
      described.putObject("shortDescription").put("text", describe(kind));
      described.putObject("defaultConfiguration").put("level", level(kind));
    }
    ArrayNode results = run.putArray("results");
    for (Report report : reports) {
      for (Report.Entry entry : report.entries()) {
        write(report, entry, results.addObject());
      }
    }
    return root;
  }

  private static void write(Report report, Report.Entry entry, ObjectNode result) {
    result.put("ruleId", entry.kind().word());
    result.put("ruleIndex", entry.kind().ordinal());
    result.put("level", level(entry.kind()));
    result.putObject("message").put("text", "Rule " + entry.rule() + " " + entry.message());
    locate(result.putArray("locations").addObject(), report, entry.rule(), entry.name());
    if (!entry.causes().isEmpty()) {
      ArrayNode related = result.putArray("relatedLocations");
      for (Report.Cause cause : entry.causes()) {
        ObjectNode location = related.addObject();
        location.put("id", cause.rule());
        locate(location, report, cause.rule(), cause.name());
        location.putObject("message").put("text", "rule " + cause.rule() + " is a cause");
      }
    }
    if (entry.witness() != null) {
      result.putObject("properties").put("witness", entry.witness());
    }
  }

  private static void locate(ObjectNode location, Report report, int number, String name) {
    location.putObject("physicalLocation").putObject("artifactLocation").put("uri", uri(report));
    ObjectNode logical = location.putArray("logicalLocations").addObject();
    logical.put("name", name);
    logical.put("fullyQualifiedName", "rule " + number);
  }

  private static String uri(Report report) {
    try {
      return new URI(null, null, report.file(), null).toASCIIString();
    } catch (URISyntaxException e) {
      throw new IllegalArgumentException(report.file(), e);
    }
  }

  private static String level(Finding.Kind kind) {
    return kind.severity().word();
  }

  private static String describe(Finding.Kind kind) {
    return switch (kind) {
      case EMPTY -> "No feasible connection meets the rule's criteria.";
      case SHADOWED ->
          "The earlier rules together take all of its match, and some of it gets another verdict.";
      case REDUNDANT_ABOVE ->
          "The earlier rules together take all of its match, with the same verdict throughout.";
      case REDUNDANT_BELOW ->
          "It decides some connections, but without it all of them would get the same verdict.";
      case CORRELATED ->
          "It and an earlier rule with another verdict overlap, and the earlier decides there.";
      case GENERALISED ->
          "It contains the match of an earlier rule with another verdict: usual for exceptions.";
      case TOO_BROAD ->
          "It allows, and none of people, applications, sites or services is narrowed.";
      case UNMET_NEED ->
          "It allows an application for a source to which no rule allows one that it needs.";
      case UNSEEN_FEATURE ->
          "It tells uses apart that look alike in the sealed connections that it leaves.";
      case MERGEABLE -> "It and the next rule differ in one criterion only.";
      case EXPIRED -> "The end date of the rule has passed.";
      case ENDS_SOON -> "The end date of the rule is near.";
      case UNDECIDED -> "The work budget ran out before something was settled.";
    };
  }
}
