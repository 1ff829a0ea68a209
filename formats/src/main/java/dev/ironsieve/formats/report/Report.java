package dev.ironsieve.formats.report;

import dev.ironsieve.core.analysis.Finding;
import dev.ironsieve.core.analysis.LiveAnalysis;
import dev.ironsieve.core.analysis.Minimality;
import dev.ironsieve.core.model.DefaultRule;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.text.ConnectionLine;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.stream.Collectors;

/**
 * The findings of one file, for a report.
 *
 * @param file as it was named
 * @param rules how many rules it has
 * @param entries one for each finding, in the rules' order
 */
public record Report(String file, int rules, List<Entry> entries) {

  /**
   * One finding, with rules by number, from 1.
   *
   * @param kind which kind it is
   * @param rule number of the rule
   * @param name of the rule
   * @param causes the rules that cause it
   * @param witness a connection that proves it, as a line, or null
   * @param decidedBy number of the rule that decides the witness, or null
   * @param message the finding as a sentence
   */
  public record Entry(
      Finding.Kind kind,
      int rule,
      String name,
      List<Cause> causes,
      String witness,
      Integer decidedBy,
      String message) {
    public Finding.Severity severity() {
      return kind.severity();
    }
  }

  /** A rule by its number, from 1, and its name. */
  public record Cause(int rule, String name) {}

  /** The number of findings of at least this severity. */
  public long atLeast(Finding.Severity severity) {
    return entries.stream().filter(entry -> entry.severity().compareTo(severity) >= 0).count();
  }

  /**
   * Analyses a rulebase.
   *
   * @param day today by the gateway's clock; null for ever
   */
  public static Report of(String file, Rulebase rulebase, LocalDate day) {
    List<Rule> rules = rulebase.rules();
    Map<String, Integer> numbers = new HashMap<>();
    for (Rule rule : rules) {
      numbers.put(rule.id(), numbers.size() + 1);
    }
    List<Entry> entries = new ArrayList<>();
    for (Finding finding : new LiveAnalysis(rulebase, day).findings()) {
      entries.add(entry(finding, rulebase, numbers));
    }
    return new Report(file, rules.size(), entries);
  }

  private static Entry entry(Finding finding, Rulebase rulebase, Map<String, Integer> numbers) {
    List<Rule> rules = rulebase.rules();
    int number = numbers.get(finding.rule());
    Rule rule = rules.get(number - 1);
    List<Cause> causes =
        finding.causes().stream()
            .map(id -> new Cause(numbers.get(id), rules.get(numbers.get(id) - 1).name()))
            .toList();
    String witness = finding.witness() == null ? null : ConnectionLine.format(finding.witness());
    Integer decidedBy = finding.decidedBy() == null ? null : numbers.get(finding.decidedBy());
    Verdict other = DefaultRule.verdict(decidedBy == null ? null : rules.get(decidedBy - 1));
    String list = causes.stream().map(cause -> cause.rule + "").collect(Collectors.joining(", "));
    String quoted = '"' + rule.name() + '"';
    String proof =
        "%s: rule %d, %s, before rule %d, %s"
            .formatted(witness, decidedBy, other.word(), number, rule.verdict().word());
    String message =
        quoted
            + switch (finding.kind()) {
              case EMPTY -> " is empty: no feasible connection meets its criteria";
              case SHADOWED -> " is shadowed by " + list + "; " + proof;
              case REDUNDANT_ABOVE -> " is redundant: " + list + " above take all of it; " + proof;
              case REDUNDANT_BELOW ->
                  " is redundant: "
                      + (causes.isEmpty() ? "the default rule" : list + " below")
                      + " would do the same; for example "
                      + witness;
              case CORRELATED -> " is correlated with " + list + "; " + proof;
              case GENERALISED -> " generalises " + list + "; " + proof;
              case TOO_BROAD ->
                  " is too broad: it allows, and narrows none of "
                      + rulebase.gatewaySettings().breadth().counting().stream()
                          .map(part -> part.name().toLowerCase(Locale.ROOT).replace('_', ' '))
                          .collect(Collectors.joining(", "));
              case EXPIRED -> " has expired: its last day was " + finding.words();
              case ENDS_SOON -> " ends soon: its last day is " + finding.words();
              case UNMET_NEED ->
                  " allows what does not work: "
                      + finding.words()
                      + ", which "
                      + (causes.isEmpty() ? "no rule allows" : list + " refuse")
                      + "; for example "
                      + witness;
              case UNSEEN_FEATURE ->
                  " tells apart what does not show as long as connections stay sealed: "
                      + finding.words();
              case MERGEABLE -> " can be merged with " + list;
              case UNDECIDED ->
                  " is undecided: " + finding.words() + " was not settled within the budget";
            };
    String known =
        finding.minimality() == Minimality.UNPROVEN && !causes.isEmpty()
            ? message + "; the cause may not be minimal"
            : message;
    return new Entry(finding.kind(), number, rule.name(), causes, witness, decidedBy, known);
  }
}
