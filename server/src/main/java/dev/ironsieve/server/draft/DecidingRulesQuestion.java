package dev.ironsieve.server.draft;

import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.Names;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.ServiceItem;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.model.Vocabulary;
import dev.ironsieve.core.space.Space;
import dev.ironsieve.server.refusal.Refusal;
import jakarta.enterprise.context.ApplicationScoped;
import java.util.Map;

/** The rules of a draft that can decide the connections of one application or of one person. */
@ApplicationScoped
class DecidingRulesQuestion {
  private static final Rule ANY = Rule.matchingAll("question", "question", Verdict.ALLOW);

  private final Drafts drafts;
  private final DraftQuestions questions;

  DecidingRulesQuestion(Drafts drafts, DraftQuestions questions) {
    this.drafts = drafts;
    this.questions = questions;
  }

  /**
   * For an application, on its usual ports where it has some, since on any other port every rule
   * may decide. The ends of the answer are sources.
   *
   * @param application its name in the draft's edition of the catalogue
   */
  DecidingRules forApplication(long rulebase, String application) {
    Vocabulary applications =
        drafts
            .rulebase(rulebase)
            .vocabulary(Coordinate.APPLICATION)
            .filter(vocabulary -> vocabulary.meanings().containsKey(Names.key(application)))
            .orElseThrow(
                () ->
                    new Refusal.NotFound(
                        "This draft knows no application called \"" + application + "\"."));
    boolean hasPorts =
        applications.applications().stream()
            .filter(fact -> Names.key(fact.name()).equals(Names.key(application)))
            .anyMatch(fact -> !fact.ports().isEmpty());
    Rule pattern =
        ANY.matching(
                ANY.fromZones(),
                ANY.fromAddresses(),
                ANY.toZones(),
                ANY.toAddresses(),
                hasPorts ? Criterion.of(new ServiceItem.UsualPorts()) : ANY.services())
            .asking(Map.of(Coordinate.APPLICATION, Criterion.of(application)));
    return DecidingRules.of(questions.reach(rulebase, pattern, Space.FROM));
  }

  /**
   * For a person. The ends of the answer are destinations.
   *
   * @param person the name in rules
   */
  DecidingRules forPerson(long rulebase, String person) {
    boolean known =
        drafts
            .rulebase(rulebase)
            .vocabulary(Coordinate.PERSON)
            .filter(vocabulary -> vocabulary.values().contains(person))
            .isPresent();
    if (!known) {
      throw new Refusal.NotFound("This draft knows nobody called \"" + person + "\".");
    }
    Rule pattern = ANY.asking(Map.of(Coordinate.PERSON, Criterion.of(person)));
    return DecidingRules.of(questions.reach(rulebase, pattern, Space.TO));
  }
}
