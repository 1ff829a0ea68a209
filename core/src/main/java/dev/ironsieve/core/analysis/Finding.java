package dev.ironsieve.core.analysis;

import dev.ironsieve.core.model.Breadth;
import dev.ironsieve.core.model.Connection;
import java.util.List;
import java.util.Locale;

/**
 * A finding: a fault or a remark about one rule, with its causes and a witness.
 *
 * @param kind what holds
 * @param rule id of the rule
 * @param causes ids of the rules that cause it, in the rules' order. For {@code CORRELATED} and
 *     {@code GENERALISED} one rule, although others may cause the same: {@link
 *     LiveAnalysis#partners} lists them. Empty where the rule itself is the cause, and where the
 *     default rule is
 * @param minimality whether each of the causes is needed, and whether fewer would do
 * @param witness a connection that proves it, or null where there is none to give
 * @param decidedBy id of the rule that decides the witness, or null for the default rule or none
 * @param detail the open question, for {@code UNDECIDED}; what does not show, for {@code
 *     UNSEEN_FEATURE}; the end date (ISO 8601), for {@code EXPIRED} and {@code ENDS_SOON}; else
 *     empty
 * @param need the need that is not met, for {@code UNMET_NEED}; else null
 */
public record Finding(
    Kind kind,
    String rule,
    List<String> causes,
    Minimality minimality,
    Connection witness,
    String decidedBy,
    String detail,
    Need need) {

  /**
   * Applications that need another.
   *
   * @param applications in the order of the catalogue; at least one
   * @param needed the application that they need
   */
  public record Need(List<String> applications, String needed) {
    public Need {
      applications = List.copyOf(applications);
    }

    /** "Quillbox needs TLS". */
    public String sentence() {
      String verb = applications.size() == 1 ? " needs " : " need ";
      return String.join(", ", applications) + verb + needed;
    }
  }

  /** The severity of a finding. */
  public enum Severity {
    /** Worth knowing; often intended. */
    NOTE,
    WARNING,
    /** The rule has no effect, or another one than its criteria and verdict state. */
    ERROR;

    /** The word for documents, in lower case. */
    public String word() {
      return name().toLowerCase(Locale.ROOT);
    }
  }

  /** The kinds of findings that follow from the rules and their objects alone. */
  public enum Kind {
    /** No feasible connection meets the rule's criteria. */
    EMPTY(Severity.ERROR),
    /** The earlier rules take all of its match, and some of it gets another verdict from them. */
    SHADOWED(Severity.ERROR),
    /** The earlier rules take all of its match, with the same verdict throughout. */
    REDUNDANT_ABOVE(Severity.WARNING),
    /** It decides something, but all of that would get the same verdict without it. */
    REDUNDANT_BELOW(Severity.WARNING),
    /** It and an earlier rule with another verdict overlap, and the earlier decides there. */
    CORRELATED(Severity.NOTE),
    /** It contains the match of an earlier rule with another verdict that decides something. */
    GENERALISED(Severity.NOTE),
    /** It allows, and narrows none of the dimensions that count; see {@link Breadth}. */
    TOO_BROAD(Severity.WARNING),
    /** It allows an application for a source to which no rule allows one that it needs. */
    UNMET_NEED(Severity.WARNING),
    /**
     * It tells uses of an application apart that look alike in the sealed connections it leaves.
     */
    UNSEEN_FEATURE(Severity.WARNING),
    /** It and the next rule differ in one criterion only, and can become one rule. */
    MERGEABLE(Severity.NOTE),
    /** Its end date has passed, so it decides nothing. */
    EXPIRED(Severity.WARNING),
    /** Its end date is near. */
    ENDS_SOON(Severity.NOTE),
    /** The work budget ran out before something was settled. */
    UNDECIDED(Severity.WARNING);

    private final Severity severity;

    Kind(Severity severity) {
      this.severity = severity;
    }

    public Severity severity() {
      return severity;
    }

    /** The word for documents: lower case, with hyphens. */
    public String word() {
      return name().toLowerCase(Locale.ROOT).replace('_', '-');
    }
  }

  public Finding {
    causes = List.copyOf(causes);
  }

  /** A finding whose cause is the rule itself, without a witness. */
  static Finding of(Kind kind, String rule, String detail) {
    return new Finding(kind, rule, List.of(), Minimality.SMALLEST, null, null, detail, null);
  }

  /** A finding with causes and a witness. */
  static Finding of(
      Kind kind,
      String rule,
      List<String> causes,
      Minimality minimality,
      Connection witness,
      String decidedBy) {
    return new Finding(kind, rule, causes, minimality, witness, decidedBy, "", null);
  }

  /** The work budget ran out before a question about the rule was settled. */
  static Finding undecided(String rule, String question) {
    return new Finding(
        Kind.UNDECIDED, rule, List.of(), Minimality.UNPROVEN, null, null, question, null);
  }

  /** The detail of the finding in words, or empty. */
  public String words() {
    return need == null ? detail : need.sentence();
  }

  /** Whether it is proven that no smaller set of rules causes it. */
  public boolean smallest() {
    return minimality == Minimality.SMALLEST;
  }
}
