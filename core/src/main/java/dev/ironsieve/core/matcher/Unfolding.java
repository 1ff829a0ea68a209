package dev.ironsieve.core.matcher;

import dev.ironsieve.core.matcher.PossibleDecisions.Decision;
import dev.ironsieve.core.model.ApplicationFact;
import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Opening;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.ruleindex.RuleIndex;
import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.sets.Transport;
import dev.ironsieve.core.space.Completions;
import dev.ironsieve.core.space.Resolution;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.IntStream;

/**
 * Decides one connection stage by stage, as a gateway learns more of it. At each stage some
 * coordinates are not known yet, and the connection stands for all that agree with what is known;
 * the content of a sealed connection is never known.
 */
final class Unfolding {
  private static final int HTTPS = 443;

  private final RuleIndex index;
  private final Resolution resolution;
  private final Connection connection;
  private final Verdict decided;

  /**
   * @param decided the verdict of the whole connection
   */
  Unfolding(RuleIndex index, Connection connection, Verdict decided) {
    this.decided = decided;
    this.index = index;
    this.resolution = index.resolution();
    this.connection = connection;
  }

  List<Stage.Answer> stages() {
    List<Stage.Answer> out = new ArrayList<>();
    for (Stage stage : Stage.values()) {
      boolean sealed = stage == Stage.CONTENT && isSealed(out.getLast());
      Stage.Answer answer = answer(stage, sealed);
      out.add(answer);
      if (answer.settled()) {
        break;
      }
    }
    return List.copyOf(out);
  }

  private Stage.Answer answer(Stage stage, boolean sealed) {
    Completions all =
        Completions.of(
            connection,
            index.space(),
            resolution,
            vocabulary -> possible(vocabulary, stage, sealed));
    PossibleDecisions found = PossibleDecisionSearch.of(index, all, Matcher.STEPS);
    List<Rule> rules = new ArrayList<>();
    found.decisions().stream().map(Decision::rule).forEach(rules::add);
    Rule last = rules.isEmpty() ? null : rules.removeLast();
    return new Stage.Answer(stage, last, rules, sealed, decided);
  }

  /**
   * The values of a vocabulary that the connection may have by what a stage knows; null for any.
   */
  private IntSet possible(int vocabulary, Stage stage, boolean sealed) {
    Coordinate coordinate = resolution.vocabularies().get(vocabulary).coordinate();
    int number = resolution.valueNumber(vocabulary, connection.terms().get(coordinate));
    if (number < 0) {
      return null;
    }
    return switch (sealed ? Stage.HANDSHAKE.knows(coordinate) : stage.knows(coordinate)) {
      case ALL -> IntSet.of(number);
      case PART ->
          sealed && coordinate == Coordinate.APPLICATION && !isHidden(number)
              ? IntSet.of(number)
              : resolution.known(vocabulary, coordinate, number);
      case NOTHING -> null;
    };
  }

  /** Whether some of what is known of the connection would not show if nobody opened it. */
  boolean mayStayHidden() {
    return isEncrypted()
        && IntStream.range(0, resolution.vocabularies().size()).anyMatch(this::isHiddenIfSealed);
  }

  private boolean isHiddenIfSealed(int vocabulary) {
    Coordinate coordinate = resolution.vocabularies().get(vocabulary).coordinate();
    boolean said = connection.terms().get(coordinate) != null;
    IntSet possible = said ? possible(vocabulary, Stage.CONTENT, true) : IntSet.of(0);
    return possible == null || possible.size() > 1;
  }

  /** Whether a use of an application shows in opened connections only. */
  private boolean isHidden(int use) {
    return resolution.applications().stream().anyMatch(fact -> fact.openedOnly().contains(use));
  }

  /**
   * Whether the connection is encrypted and nobody opens it.
   *
   * @param handshake the answer at the handshake; one of the rules that may decide then has to open
   */
  private boolean isSealed(Stage.Answer handshake) {
    boolean opened =
        opens(handshake.decides()) || handshake.open().stream().anyMatch(Unfolding::opens);
    return isEncrypted() && !opened;
  }

  private static boolean opens(Rule rule) {
    return rule != null && rule.opening() == Opening.OPENED;
  }

  /** HTTPS and QUIC on their port, and applications some of whose uses show only when opened. */
  private boolean isEncrypted() {
    int protocol = connection.protocol();
    boolean secure =
        (protocol == Transport.TCP || protocol == Transport.UDP) && connection.detail() == HTTPS;
    return secure || isOfHidingApplication();
  }

  private boolean isOfHidingApplication() {
    for (int i = 0; i < resolution.vocabularies().size(); i++) {
      if (resolution.vocabularies().get(i).coordinate() == Coordinate.APPLICATION) {
        int use = resolution.valueNumber(i, connection.terms().get(Coordinate.APPLICATION));
        for (ApplicationFact fact : resolution.applications()) {
          if (use >= 0 && fact.uses().contains(use) && !fact.openedOnly().isEmpty()) {
            return true;
          }
        }
      }
    }
    return false;
  }
}
