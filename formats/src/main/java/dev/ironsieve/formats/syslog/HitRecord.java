package dev.ironsieve.formats.syslog;

import dev.ironsieve.core.sets.InvalidText;
import dev.ironsieve.formats.syslog.DecisionRecord.Fields;
import dev.ironsieve.formats.syslog.DecisionRecord.Origin;
import dev.ironsieve.formats.syslog.SyslogMessage.Element;
import dev.ironsieve.formats.syslog.SyslogMessage.Parameter;
import java.time.Instant;
import java.util.List;
import java.util.Optional;

/**
 * How often a rule decided since the gateway's last report of it, whether or not the rule logs:
 * {@code [hits@32473 run="…" seq="…" …]}.
 *
 * @param rule id of the rule; null for the default rule
 * @param open connections by it that are open now
 * @param connections decided since the last report
 * @param observed connections that it would have decided, since it only observes
 * @param differing of the observed ones, how many got another verdict
 * @param packets in both directions
 * @param bytes in both directions
 * @param firstAt when the first of these connections began
 * @param lastAt when the last of them began
 */
public record HitRecord(
    Origin origin,
    int revision,
    String rule,
    long open,
    long connections,
    long observed,
    long differing,
    long packets,
    long bytes,
    Instant firstAt,
    Instant lastAt) {
  static final String ELEMENT = "hits@32473";

  /** The message that carries this record, sent at a time. */
  public SyslogMessage message(Instant now) {
    List<Parameter> out = origin.parameters();
    DecisionRecord.put(out, "rev", revision);
    DecisionRecord.put(out, "rule", rule);
    DecisionRecord.put(out, "open", open);
    DecisionRecord.put(out, "connections", connections);
    DecisionRecord.put(out, "observed", observed);
    DecisionRecord.put(out, "differing", differing);
    DecisionRecord.put(out, "packets", packets);
    DecisionRecord.put(out, "bytes", bytes);
    DecisionRecord.put(out, "first", firstAt);
    DecisionRecord.put(out, "last", lastAt);
    return new SyslogMessage(
        SyslogMessage.LOCAL4,
        SyslogMessage.INFORMATIONAL,
        now,
        origin.gateway(),
        "iron-sieve",
        null,
        "HITS",
        List.of(new Element(ELEMENT, out)),
        "");
  }

  /**
   * The record that a message carries; empty if it carries none.
   *
   * @throws InvalidText if a part of it is missing or wrong
   */
  public static Optional<HitRecord> of(SyslogMessage message) {
    return message
        .element(ELEMENT)
        .map(
            element -> {
              Fields fields = new Fields(element);
              return new HitRecord(
                  Origin.of(element),
                  (int) fields.number("rev", Integer.MAX_VALUE),
                  fields.orNull("rule"),
                  fields.number("open", Long.MAX_VALUE),
                  fields.number("connections", Long.MAX_VALUE),
                  fields.number("observed", Long.MAX_VALUE),
                  fields.number("differing", Long.MAX_VALUE),
                  fields.number("packets", Long.MAX_VALUE),
                  fields.number("bytes", Long.MAX_VALUE),
                  fields.parsed("first", "a time", Instant::parse),
                  fields.parsed("last", "a time", Instant::parse));
            });
  }
}
