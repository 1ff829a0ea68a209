package dev.ironsieve.gateway;

import dev.ironsieve.core.matcher.Matcher;
import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.DefaultRule;
import dev.ironsieve.core.model.Logging;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Section;
import dev.ironsieve.core.rulebase.Rulebase;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.temporal.ChronoUnit;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.PriorityQueue;
import java.util.Set;
import java.util.function.Consumer;
import java.util.stream.Collectors;

/**
 * Decides connections by the revision in force, keeps those that are open, and reports records and
 * hits. A switch to another revision judges the open ones again. For one thread.
 */
final class Decisions {
  /** Most open connections that a gateway keeps. */
  static final int MOST_OPEN = 50_000;

  private final Reports reports;
  private final int mostOpen;
  private final Consumer<String> log;
  private long notKept;
  private final PriorityQueue<Open> open = new PriorityQueue<>(Comparator.comparing(Open::end));
  private final Map<String, Hits> hits = new HashMap<>(); // by rule; of the default rule by ""
  private Map<String, Long> openReported = Map.of(); // by rule
  private Map<String, Rule> byId = Map.of();
  private final Holds holds = new Holds();
  private RateLimits limits; // null before the first revision, as the next
  private InForce inForce;

  /**
   * @param mostOpen connections that are kept
   * @param log takes sentences for the operator
   */
  Decisions(Reports reports, int mostOpen, Consumer<String> log) {
    this.reports = reports;
    this.mostOpen = mostOpen;
    this.log = log;
  }

  /**
   * A revision that decides.
   *
   * @param observing decides as if the rules that only observe were in force; null if there are
   *     none
   * @param unfolds whether more than the first packet of a connection matters
   */
  record InForce(
      int revision, Rulebase rulebase, Matcher matcher, Matcher observing, boolean unfolds) {
    static InForce of(int revision, Rulebase rulebase) {
      Rulebase alone = rulebase.withoutOrigins();
      List<Section> sections =
          alone.sections().stream()
              .map(s -> s.with(s.rules().stream().map(rule -> rule.observeOnly(false)).toList()))
              .toList();
      boolean any = rulebase.rules().stream().anyMatch(Rule::isObserving);
      return new InForce(
          revision,
          rulebase,
          new Matcher(rulebase),
          any ? new Matcher(alone.withSections(sections)) : null,
          StagedDecision.unfolds(rulebase));
    }
  }

  /**
   * An open connection.
   *
   * @param revision that let it through
   */
  private record Open(
      Attempt attempt, int revision, Rule rule, Instant end, StagedDecision decision) {
    Open by(int otherRevision, StagedDecision other) {
      return new Open(attempt, otherRevision, other.rule(), end, other);
    }

    Reports.Share share(Instant at) {
      long millis = Math.max(0, Duration.between(attempt.at(), at).toMillis());
      long whole = Math.max(1, Duration.between(attempt.at(), end).toMillis());
      return new Reports.Share(millis, Math.min(1, (double) millis / whole));
    }
  }

  /** What one rule decided since the last report. */
  private static final class Hits {
    private long connections;
    private long observed;
    private long differing;
    private long packets;
    private long bytes;
    private Instant first;
    private Instant last;
  }

  private static final Hits NO_HITS = new Hits();

  /**
   * Switches to another revision. Open connections that it does not let through end now.
   *
   * @return how many ended
   */
  int use(InForce next, Instant now) {
    if (inForce != null) {
      reportHits(now);
    }
    inForce = next;
    byId = next.rulebase().rules().stream().collect(Collectors.toMap(Rule::id, rule -> rule));
    holds.keepThoseOf(byId);
    limits = new RateLimits(next.rulebase());
    List<Open> before = List.copyOf(open);
    open.clear();
    int ended = 0;
    for (Open one : before) {
      Connection named = named(one.attempt().connection(), one.attempt().at());
      StagedDecision decision = StagedDecision.of(named, next.matcher(), next.unfolds());
      if (decision.verdict().letsThrough()) {
        open.add(one.by(next.revision(), decision));
      } else {
        end(one, now);
        ended++;
      }
    }
    return ended;
  }

  /** The connection as rules name its hosts, devices and the time, with defaults for the rest. */
  private Connection named(Connection connection, Instant at) {
    LocalDateTime time =
        at.atZone(inForce.rulebase().gatewaySettings().timeZone())
            .toLocalDateTime()
            .truncatedTo(ChronoUnit.MINUTES);
    Map<Coordinate, String> terms = new EnumMap<>(Coordinate.class);
    terms.putAll(connection.terms());
    terms.put(Coordinate.TIME, time.toString());
    Matcher matcher = inForce.matcher();
    return matcher.withDefaults(matcher.named(connection.saying(terms)));
  }

  /**
   * Decides a connection; a record is reported as the rule says.
   *
   * @return null if whoever opens it is held
   */
  StagedDecision decide(Attempt attempt) {
    Rule holding = holds.of(attempt.connection(), attempt.at());
    if (holding != null) {
      count(holding.id(), attempt, 1);
      if (holding.logging() != Logging.OFF) {
        reports.held(attempt, inForce.revision(), holding);
      }
      return null;
    }
    Connection named = named(attempt.connection(), attempt.at());
    StagedDecision decision = StagedDecision.of(named, inForce.matcher(), inForce.unfolds());
    Rule rule = decision.rule();
    boolean through = decision.verdict().letsThrough();
    Optional<Rule> observed = observed(named);
    long packets = through ? attempt.packets() : decision.packetsBefore(attempt.packets());
    count(rule == null ? "" : rule.id(), attempt, packets);
    observed.ifPresent(one -> observe(one.id(), attempt, one.verdict() != decision.verdict()));
    Logging logging = DefaultRule.unless(rule).logging();
    boolean refused = !through && logging != Logging.OFF;
    boolean observes = observed.isPresent() && observed.get().logging() != Logging.OFF;
    if (refused || observes || logging == Logging.START || logging == Logging.BOTH) {
      reports.start(attempt, inForce.revision(), decision, observed.orElse(null));
    }
    if (through) {
      keep(attempt, decision);
    }
    holds.add(rule, attempt.connection(), attempt.at());
    return decision;
  }

  private void keep(Attempt attempt, StagedDecision decision) {
    if (open.size() < mostOpen) {
      Instant end =
          limits.end(
              decision.rule(),
              attempt.connection().from().address(),
              attempt.at(),
              attempt.length(),
              attempt.bytes());
      open.add(new Open(attempt, inForce.revision(), decision.rule(), end, decision));
      return;
    }
    notKept++;
    if (Long.bitCount(notKept) == 1) {
      log.accept(
          "%d connections are not kept: %d are open. Their ends are not reported, and another revision does not end them."
              .formatted(notKept, mostOpen));
    }
  }

  /** The rule that only observes and would have decided; empty if none would. */
  private Optional<Rule> observed(Connection named) {
    return inForce.observing() == null
        ? Optional.empty()
        : inForce.observing().decide(named).filter(rule -> byId.get(rule.id()).observeOnly());
  }

  /**
   * @param packets how many passed
   */
  private void count(String rule, Attempt attempt, long packets) {
    Hits one = hitsOf(rule, attempt);
    one.connections++;
    one.packets += packets;
    one.bytes += attempt.bytes(packets);
  }

  private void observe(String rule, Attempt attempt, boolean differs) {
    Hits one = hitsOf(rule, attempt);
    one.observed++;
    one.differing += differs ? 1 : 0;
  }

  /** The hits of a rule, with the time of an attempt noted. */
  private Hits hitsOf(String rule, Attempt attempt) {
    Hits one = hits.computeIfAbsent(rule, id -> new Hits());
    one.first = one.first == null || attempt.at().isBefore(one.first) ? attempt.at() : one.first;
    one.last = one.last == null || attempt.at().isAfter(one.last) ? attempt.at() : one.last;
    return one;
  }

  /** Ends the connections whose time has come. */
  void endUntil(Instant now) {
    while (!open.isEmpty() && !open.peek().end().isAfter(now)) {
      Open one = open.poll();
      end(one, one.end());
    }
  }

  private void end(Open one, Instant at) {
    Logging logging = one.rule().logging();
    if (logging == Logging.END || logging == Logging.BOTH) {
      reports.end(one.attempt(), one.revision(), one.decision(), one.share(at));
    }
  }

  /** How many connections are open. */
  int open() {
    return open.size();
  }

  /** Reports what was decided since the last report, and how much is open, where that changed. */
  void reportHits(Instant now) {
    Map<String, Long> openNow = new HashMap<>();
    open.forEach(one -> openNow.merge(one.rule().id(), 1L, Long::sum));
    Set<String> rules = new LinkedHashSet<>(hits.keySet());
    Set<String> others = new HashSet<>(openNow.keySet());
    others.addAll(openReported.keySet());
    others.removeIf(rule -> openNow.getOrDefault(rule, 0L).equals(openReported.get(rule)));
    rules.addAll(others);
    for (String rule : rules) {
      Hits one = hits.getOrDefault(rule, NO_HITS);
      reports.hits(
          inForce.revision(),
          rule.isEmpty() ? null : rule,
          openNow.getOrDefault(rule, 0L),
          one.connections,
          one.observed,
          one.differing,
          one.packets,
          one.bytes,
          one.first == null ? now : one.first,
          one.last == null ? now : one.last);
    }
    hits.clear();
    openReported = openNow;
  }
}
