package dev.ironsieve.core.repair;

import dev.ironsieve.core.analysis.Finding;
import dev.ironsieve.core.analysis.LiveAnalysis;
import dev.ironsieve.core.analysis.Mergeable;
import dev.ironsieve.core.analysis.Placement;
import dev.ironsieve.core.difference.Aspect;
import dev.ironsieve.core.difference.Differences;
import dev.ironsieve.core.edit.Edit;
import dev.ironsieve.core.edit.Place;
import dev.ironsieve.core.edit.Touched;
import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.InvalidModel;
import dev.ironsieve.core.model.Names;
import dev.ironsieve.core.model.Opening;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.ServiceItem;
import dev.ironsieve.core.model.ServiceLiteral;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.ruleindex.RuleIndex;
import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.sets.Transport;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Stream;

/** Finds the repairs of a finding. */
public final class Repairs {
  private static final int PLACES_TRIED = 4;

  /** Services from which on a narrowed rule would hardly be read. */
  private static final int MOST_SERVICES = 20;

  private final LiveAnalysis analysis;
  private final Rulebase base;
  private final List<Repair> found = new ArrayList<>();
  private LiveAnalysis trial; // of the same rules, on which edits are tried; null until needed

  private Repairs(LiveAnalysis analysis) {
    this.analysis = analysis;
    this.base = analysis.rulebase();
  }

  /**
   * The repairs that remove a finding of the analysis as it stands, the least far-reaching first;
   * none for what needs a person's judgement (undecided) or is usual (generalised). Of a rule that
   * is too broad see {@link #narrowing}.
   */
  public static List<Repair> of(Finding finding, LiveAnalysis analysis) {
    Repairs repairs = new Repairs(analysis);
    switch (finding.kind()) {
      case EMPTY, REDUNDANT_ABOVE, REDUNDANT_BELOW -> repairs.delete(finding);
      case SHADOWED -> {
        repairs.delete(finding);
        repairs.moveUp(finding);
      }
      case CORRELATED -> repairs.moveAbove(finding.rule(), finding.causes().getFirst());
      case MERGEABLE -> repairs.merge(finding);
      case UNSEEN_FEATURE -> repairs.open(finding);
      case EXPIRED -> repairs.delete(finding);
      case UNMET_NEED -> repairs.allowNeeded(finding);
      case GENERALISED, TOO_BROAD, ENDS_SOON, UNDECIDED -> {}
    }
    return List.copyOf(repairs.found);
  }

  /**
   * The repair of a rule that is too broad: it is narrowed to the zones and services of connections
   * that it decided. None if there are no such connections, or they are of too many services.
   *
   * @param seen connections that the rule decides, such as those of a log or of checks
   */
  public static List<Repair> narrowing(
      Finding finding, LiveAnalysis analysis, List<Connection> seen) {
    Repairs repairs = new Repairs(analysis);
    repairs.narrow(repairs.rule(finding.rule()), seen);
    return List.copyOf(repairs.found);
  }

  private void narrow(Rule rule, List<Connection> seen) {
    Set<String> from = new TreeSet<>();
    Set<String> to = new TreeSet<>();
    IntSet services = IntSet.EMPTY;
    for (Connection connection : seen) {
      if (connection.protocol() >= 0 && connection.detail() >= 0) {
        services =
            services.union(
                IntSet.of(Transport.position(connection.protocol(), connection.detail())));
      }
      Stream.ofNullable(connection.from().zone()).forEach(from::add);
      Stream.ofNullable(connection.to().zone()).forEach(to::add);
    }
    List<String> texts = ServiceLiteral.covering(services);
    boolean narrowsServices = rule.services().isAny() && !texts.isEmpty();
    if (seen.isEmpty() || texts.size() > MOST_SERVICES) {
      return;
    }
    Criterion<ServiceItem> asked =
        narrowsServices
            ? new Criterion<>(texts.stream().map(ServiceItem::parse).toList(), List.of())
            : rule.services();
    Rule narrow =
        rule.matching(
            narrowed(rule.fromZones(), from),
            rule.fromAddresses(),
            narrowed(rule.toZones(), to),
            rule.toAddresses(),
            asked);
    if (!narrow.equals(rule)) {
      String kept = narrowsServices ? String.join(", ", texts) : "the zones";
      add(
          "Narrow \"%s\" to the use of it: %s".formatted(rule.name(), kept),
          new Edit.ReplaceRules(List.of(narrow)));
    }
  }

  private static Criterion<String> narrowed(Criterion<String> zones, Set<String> seen) {
    return zones.isAny() && !seen.isEmpty() ? new Criterion<>(List.copyOf(seen), List.of()) : zones;
  }

  /** Whether an edit changes nothing that is from a common rulebase, which only that may change. */
  private boolean isOwn(Edit edit) {
    try {
      return base.common().isEmpty() || edit.apply(base) != null;
    } catch (InvalidModel e) {
      return false;
    }
  }

  private void add(String summary, Edit edit) {
    if (!isOwn(edit)) {
      return;
    }
    found.add(
        new Repair(
            summary,
            edit,
            Differences.between(
                analysis.index(), base, edit.apply(base), Aspect.VERDICT, Differences.STEPS)));
  }

  private Rule rule(String id) {
    return analysis.index().rule(analysis.index().handle(id));
  }

  private void delete(Finding finding) {
    add(
        "Delete \"" + rule(finding.rule()).name() + "\"",
        new Edit.DeleteRules(List.of(finding.rule())));
  }

  private void open(Finding finding) {
    Rule sealed = rule(finding.rule());
    add(
        "Open the encrypted connections that \"%s\" decides".formatted(sealed.name()),
        new Edit.ReplaceRules(List.of(sealed.leaving(Opening.OPENED))));
  }

  /** Above the first rule with another verdict that takes something of it. */
  private void moveUp(Finding finding) {
    Placement placement = analysis.placement(finding.rule());
    if (!placement.blockingRules().isEmpty()) {
      moveAbove(finding.rule(), placement.blockingRules().getFirst().rule());
    }
  }

  private void moveAbove(String rule, String other) {
    add(
        "Move \"%s\" above \"%s\"".formatted(rule(rule).name(), rule(other).name()),
        new Edit.MoveRules(List.of(rule), new Place.Above(other)));
  }

  private void merge(Finding finding) {
    Rule upper = rule(finding.rule());
    Rule lower = rule(finding.causes().getFirst());
    Mergeable.merged(upper, lower)
        .ifPresent(
            merged ->
                add(
                    "Make \"%s\" and \"%s\" one rule".formatted(upper.name(), lower.name()),
                    new Edit.Batch(
                        List.of(
                            new Edit.ReplaceRules(List.of(merged)),
                            new Edit.DeleteRules(List.of(lower.id()))))));
  }

  /**
   * Inserts a rule for the needed application on its usual ports, with the rule's source, people,
   * devices and times, above the rules that refuse it: to the rule's destination if that is enough,
   * else to any. Or, if the rule has no service criterion, adds the needed application to the rule
   * itself. Each is tried, and left out if the need stays unmet.
   */
  private void allowNeeded(Finding finding) {
    Rule rule = rule(finding.rule());
    String name = finding.need().needed();
    if (!allowAbove(finding, name, allowing(name, rule, true))) {
      allowAbove(finding, name, allowing(name, rule, false));
    }
    if (mayAskForMore(rule)) {
      Map<Coordinate, Criterion<String>> terms = terms(rule);
      Criterion<String> asked = terms.get(Coordinate.APPLICATION);
      List<String> items = new ArrayList<>(asked.items());
      items.add(name);
      terms.put(Coordinate.APPLICATION, new Criterion<>(items, asked.except()));
      Edit edit = new Edit.ReplaceRules(List.of(rule.asking(terms)));
      if (isOwn(edit) && stillUnmet(finding, edit).isEmpty()) {
        add("Add %s to \"%s\"".formatted(name, rule.name()), edit);
      }
    }
  }

  /** Adds the repair that inserts a rule above whatever refuses; false if the need stays unmet. */
  private boolean allowAbove(Finding finding, String needed, Rule fresh) {
    Finding unmet = finding;
    for (int tries = 0; tries < PLACES_TRIED; tries++) {
      String above = unmet.causes().isEmpty() ? finding.rule() : unmet.causes().getFirst();
      Edit edit = new Edit.InsertRules(List.of(fresh), new Place.Above(above));
      if (!isOwn(edit)) {
        return false;
      }
      Optional<Finding> left = stillUnmet(finding, edit);
      if (left.isEmpty()) {
        add("Allow %s in a rule above \"%s\"".formatted(needed, rule(above).name()), edit);
        return true;
      }
      if (left.get().causes().isEmpty()) {
        return false;
      }
      unmet = left.get();
    }
    return false;
  }

  private static boolean mayAskForMore(Rule rule) {
    int asked = rule.term(Coordinate.APPLICATION).items().size();
    return asked > 0
        && asked < Criterion.MAX_ITEMS
        && (rule.services().isAny()
            || rule.services().items().contains(new ServiceItem.UsualPorts()));
  }

  private Optional<Finding> stillUnmet(Finding finding, Edit edit) {
    Set<String> touched = Touched.ruleIds(edit.touched(base));
    if (trial == null) {
      trial = new LiveAnalysis(base, analysis.day());
    }
    trial.update(edit.apply(base), touched);
    Optional<Finding> out =
        trial.findings(finding.rule()).stream()
            .filter(f -> f.kind() == finding.kind() && Objects.equals(f.need(), finding.need()))
            .findFirst();
    trial.update(base, touched);
    return out;
  }

  /**
   * @param sameEnd whether only to where the rule lets them, else to anywhere
   */
  private Rule allowing(String application, Rule rule, boolean sameEnd) {
    Map<Coordinate, Criterion<String>> terms = terms(rule);
    terms.keySet().retainAll(List.of(Coordinate.PERSON, Coordinate.DEVICE, Coordinate.TIME));
    terms.put(Coordinate.APPLICATION, Criterion.of(application));
    String title = application + " for " + rule.name();
    Rule fresh =
        Rule.matchingAll(
            unusedId(),
            title.substring(0, Math.min(title.length(), Names.MAX_NAME)),
            Verdict.ALLOW);
    return fresh
        .matching(
            rule.fromZones(),
            rule.fromAddresses(),
            sameEnd ? rule.toZones() : fresh.toZones(),
            sameEnd ? rule.toAddresses() : fresh.toAddresses(),
            Criterion.of(new ServiceItem.UsualPorts()))
        .asking(terms)
        .valid(rule.validity());
  }

  private static Map<Coordinate, Criterion<String>> terms(Rule rule) {
    Map<Coordinate, Criterion<String>> terms = new EnumMap<>(Coordinate.class);
    terms.putAll(rule.terms());
    return terms;
  }

  private String unusedId() {
    int number = base.rules().size() + 1;
    while (analysis.index().handle("need" + number) != RuleIndex.NONE) {
      number++;
    }
    return "need" + number;
  }
}
