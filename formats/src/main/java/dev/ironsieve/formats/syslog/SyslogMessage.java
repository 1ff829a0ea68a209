package dev.ironsieve.formats.syslog;

import java.time.Instant;
import java.util.List;
import java.util.Optional;

/**
 * A syslog message (RFC 5424, section 6).
 *
 * @param facility 0 to 23
 * @param severity 0 (emergency) to 7 (debug)
 * @param at null if the sender has no clock
 * @param host name of the sender, or null
 * @param app name of its program, or null
 * @param process id of the process, or null
 * @param id the type of message, or null
 * @param data structured data, in the order of the message
 * @param text free text; empty if there is none
 */
public record SyslogMessage(
    int facility,
    int severity,
    Instant at,
    String host,
    String app,
    String process,
    String id,
    List<Element> data,
    String text) {
  /** The facility of security messages, {@code local4}. */
  public static final int LOCAL4 = 20;

  /** The severity of informational messages. */
  public static final int INFORMATIONAL = 6;

  /** Longest message in bytes that this package reads and writes. */
  public static final int MAX_BYTES = 8192;

  /** One parameter of structured data; a name may occur several times. */
  public record Parameter(String name, String value) {}

  /**
   * An element of structured data.
   *
   * @param id such as {@code connection@32473}
   */
  public record Element(String id, List<Parameter> parameters) {
    public Element {
      parameters = List.copyOf(parameters);
    }

    /** The first value of a parameter. */
    public Optional<String> value(String name) {
      for (Parameter parameter : parameters) {
        if (parameter.name().equals(name)) {
          return Optional.of(parameter.value());
        }
      }
      return Optional.empty();
    }
  }

  public SyslogMessage {
    if (facility < 0 || facility > 23 || severity < 0 || severity > 7) {
      throw new IllegalArgumentException("facility " + facility + ", severity " + severity);
    }
    data = List.copyOf(data);
  }

  /** The first element with an id. */
  public Optional<Element> element(String id) {
    return data.stream().filter(element -> element.id().equals(id)).findFirst();
  }
}
