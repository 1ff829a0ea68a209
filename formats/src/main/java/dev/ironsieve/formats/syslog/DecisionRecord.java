package dev.ironsieve.formats.syslog;

import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.sets.Address;
import dev.ironsieve.core.sets.InvalidText;
import dev.ironsieve.core.sets.Transport;
import dev.ironsieve.formats.syslog.SyslogMessage.Element;
import dev.ironsieve.formats.syslog.SyslogMessage.Parameter;
import java.time.DateTimeException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.Function;

/**
 * The record of one connection that a gateway decided, and its form in structured data, {@code
 * [connection@32473 run="…" seq="…" …]}; the enterprise number is the one for documentation (RFC
 * 5612).
 *
 * @param origin the sender's place of the record
 * @param phase {@code start} or {@code end}
 * @param rule id of the rule that decided; null for the default rule
 * @param observedRule id of the rule that only observes and would have decided; null for none
 * @param observedVerdict what it would have decided; null for none
 * @param startedAt when the connection began
 * @param millis how long it was open; 0 at its start
 * @param packets in both directions
 * @param bytes in both directions
 * @param detail destination port, or ICMP type * 256 + code; 0 for other protocols
 * @param sourcePort 0 for protocols without ports
 * @param person null if not known, as with the other terms
 * @param stage the stage at which it was decided, such as {@code handshake}, or {@code hold} if its
 *     sender was held; null if not known
 */
public record DecisionRecord(
    Origin origin,
    String phase,
    int revision,
    String rule,
    Verdict verdict,
    String observedRule,
    Verdict observedVerdict,
    Instant startedAt,
    long millis,
    long packets,
    long bytes,
    String fromZone,
    Address from,
    String toZone,
    Address to,
    int protocol,
    int detail,
    int sourcePort,
    String person,
    String device,
    String site,
    String application,
    String file,
    String stage) {
  static final String ELEMENT = "connection@32473";
  private static final int MOST_NAME = 300;

  /**
   * Where a record comes from.
   *
   * @param gateway its name
   * @param run one run of its program: a random word
   * @param sequence the number of the record in this run, from 1
   */
  public record Origin(String gateway, String run, long sequence) {
    /** Its parameters of structured data. */
    List<Parameter> parameters() {
      List<Parameter> out = new ArrayList<>();
      out.add(new Parameter("gateway", gateway));
      out.add(new Parameter("run", run));
      out.add(new Parameter("seq", Long.toString(sequence)));
      return out;
    }

    static Origin of(Element element) {
      Fields fields = new Fields(element);
      return new Origin(
          fields.text("gateway"), fields.text("run"), fields.number("seq", Long.MAX_VALUE));
    }
  }

  /** The message that carries this record, sent at a time. */
  public SyslogMessage message(Instant now) {
    List<Parameter> out = origin.parameters();
    out.add(new Parameter("phase", phase));
    out.add(new Parameter("rev", Integer.toString(revision)));
    put(out, "rule", rule);
    put(out, "verdict", verdict.word());
    put(out, "observedRule", observedRule);
    put(out, "observedVerdict", observedVerdict == null ? null : observedVerdict.word());
    put(out, "started", startedAt);
    put(out, "ms", millis);
    put(out, "packets", packets);
    put(out, "bytes", bytes);
    put(out, "fromZone", fromZone);
    put(out, "from", from);
    put(out, "toZone", toZone);
    put(out, "to", to);
    put(out, "protocol", protocol);
    put(out, "port", detail);
    put(out, "sourcePort", sourcePort);
    put(out, "person", person);
    put(out, "device", device);
    put(out, "site", site);
    put(out, "application", application);
    put(out, "file", file);
    put(out, "stage", stage);
    return new SyslogMessage(
        SyslogMessage.LOCAL4,
        SyslogMessage.INFORMATIONAL,
        now,
        origin.gateway(),
        "iron-sieve",
        null,
        "CONNECTION",
        List.of(new Element(ELEMENT, out)),
        "");
  }

  static void put(List<Parameter> out, String name, Object value) {
    if (value != null) {
      out.add(new Parameter(name, value.toString()));
    }
  }

  /**
   * The record that a message carries; empty if it carries none.
   *
   * @throws InvalidText if a part of it is missing or wrong
   */
  public static Optional<DecisionRecord> of(SyslogMessage message) {
    return message.element(ELEMENT).map(DecisionRecord::read);
  }

  private static DecisionRecord read(Element element) {
    Fields fields = new Fields(element);
    String phase = fields.text("phase");
    if (!phase.equals("start") && !phase.equals("end")) {
      throw fields.invalid("phase", "start or end", phase);
    }
    int protocol = (int) fields.number("protocol", Transport.MAX_PROTOCOL);
    return new DecisionRecord(
        Origin.of(element),
        phase,
        (int) fields.number("rev", Integer.MAX_VALUE),
        fields.orNull("rule"),
        fields.parsed("verdict", "a verdict", DecisionRecord::verdict),
        fields.orNull("observedRule"),
        fields.orNull("observedRule") == null
            ? null
            : fields.parsed("observedVerdict", "a verdict", DecisionRecord::verdict),
        fields.parsed("started", "a time", Instant::parse),
        fields.number("ms", Long.MAX_VALUE),
        fields.number("packets", Long.MAX_VALUE),
        fields.number("bytes", Long.MAX_VALUE),
        fields.text("fromZone"),
        fields.parsed("from", "an address", Address::parse),
        fields.text("toZone"),
        fields.parsed("to", "an address", Address::parse),
        protocol,
        (int) fields.number("port", Transport.maxDetail(protocol)),
        (int) fields.number("sourcePort", Transport.hasPorts(protocol) ? Transport.MAX_DETAIL : 0),
        fields.orNull("person"),
        fields.orNull("device"),
        fields.orNull("site"),
        fields.orNull("application"),
        fields.orNull("file"),
        fields.orNull("stage"));
  }

  private static Verdict verdict(String word) {
    return Verdict.valueOf(word.toUpperCase(Locale.ROOT));
  }

  /** The parameters of an element, read with errors that name the parameter. */
  record Fields(Element element) {
    InvalidText invalid(String name, String expected, String found) {
      return new InvalidText(0, expected + " as " + name + " of " + element.id(), found);
    }

    String orNull(String name) {
      return element.value(name).map(text -> checked(name, text)).orElse(null);
    }

    private String checked(String name, String text) {
      if (text.length() > MOST_NAME) {
        throw invalid(name, "at most " + MOST_NAME + " characters", text.length() + " characters");
      }
      return text;
    }

    String text(String name) {
      String text = orNull(name);
      if (text == null) {
        throw invalid(name, "a value", "none");
      }
      return text;
    }

    long number(String name, long most) {
      String text = text(name);
      try {
        long number = Long.parseLong(text);
        if (number >= 0 && number <= most) {
          return number;
        }
      } catch (NumberFormatException e) {
        // answered below
      }
      throw invalid(name, "a whole number from 0 to " + most, text);
    }

    <T> T parsed(String name, String expected, Function<String, T> parse) {
      String text = text(name);
      try {
        return parse.apply(text);
      } catch (IllegalArgumentException | DateTimeException | InvalidText e) {
        throw invalid(name, expected, text);
      }
    }
  }
}
