package dev.ironsieve.server.draft;

import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.server.refusal.Refusal;
import jakarta.enterprise.context.ApplicationScoped;

/** Refuses rulebases that are too large for the memory of the server. */
@ApplicationScoped
public class DraftSize {
  private final int mostRules;

  DraftSize(DraftConfig config) {
    this.mostRules = config.mostRules();
  }

  /**
   * Checks a rulebase before it is analysed.
   *
   * @throws Refusal.Invalid if it has too many rules for this server
   */
  public void check(Rulebase rulebase) {
    check(rulebase.rules().size(), mostRules);
  }

  static void check(int rules, int most) {
    if (rules > most) {
      throw new Refusal.Invalid(
          "rules",
          "at most " + most + " on this server (setting iron-sieve.drafts.most-rules)",
          rules + "");
    }
  }
}
