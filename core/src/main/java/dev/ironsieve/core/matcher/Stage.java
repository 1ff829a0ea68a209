package dev.ironsieve.core.matcher;

import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Verdict;
import java.util.List;
import java.util.Locale;

/** The stage of a connection: the packets seen so far limit what a gateway knows of it. */
public enum Stage {
  /** Ends, service, person, device and time. */
  FIRST_PACKET,
  /** The host asked for, and the application by its handshake. */
  HANDSHAKE,
  /** Features, paths and files, where the connection is opened or plain; nothing is left open. */
  CONTENT;

  /** The words that people read. */
  public String word() {
    return name().toLowerCase(Locale.ROOT).replace('_', ' ');
  }

  /** The known part of one coordinate. */
  enum Known {
    NOTHING,
    /** The host, but not the path; the application, but not its feature. */
    PART,
    ALL
  }

  Known knows(Coordinate coordinate) {
    return switch (coordinate) {
      case PERSON, DEVICE, TIME -> Known.ALL;
      case SITE, APPLICATION ->
          switch (this) {
            case FIRST_PACKET -> Known.NOTHING;
            case HANDSHAKE -> Known.PART;
            case CONTENT -> Known.ALL;
          };
      case FILE_KIND -> this == CONTENT ? Known.ALL : Known.NOTHING;
    };
  }

  /**
   * The verdict on a connection at a stage.
   *
   * @param decides the rule that decides unless one of the open rules does; null for the default
   *     rule
   * @param open the rules above it that decide some of the connections that this one may still turn
   *     out to be, from top to bottom
   * @param sealed whether the connection is encrypted and not opened, so that nothing more is ever
   *     known of it
   * @param decided the final decision, once all is known
   */
  public record Answer(
      Stage stage, Rule decides, List<Rule> open, boolean sealed, Verdict decided) {
    public Answer {
      open = List.copyOf(open);
    }

    /**
     * Whether nothing that becomes known later is waited for: no rule is open, or none of those
     * that may decide lets the connection through.
     */
    public boolean settled() {
      return open.isEmpty()
          || !letsThrough(decides) && open.stream().noneMatch(Answer::letsThrough);
    }

    /**
     * The verdict at this stage: a connection that is not settled is let through until more is
     * known. Where every rule that may decide refuses, it is refused as it is in the end.
     */
    public Verdict verdict() {
      return settled() ? decided : Verdict.ALLOW;
    }

    private static boolean letsThrough(Rule rule) {
      return rule != null && rule.verdict().letsThrough();
    }
  }
}
