package dev.ironsieve.server.refusal;

import dev.ironsieve.formats.Fault;
import java.util.List;

/** A request that cannot be served; the message is for people. */
public abstract sealed class Refusal extends RuntimeException {
  private Refusal(String message) {
    super(message);
  }

  /** The client is not signed in, or the credentials are wrong. */
  public static final class NotSignedIn extends Refusal {
    public NotSignedIn(String message) {
      super(message);
    }
  }

  /** The account may not do this. */
  public static final class NotAllowed extends Refusal {
    public NotAllowed(String message) {
      super(message);
    }
  }

  /** The thing does not exist. */
  public static final class NotFound extends Refusal {
    public NotFound(String message) {
      super(message);
    }
  }

  /** The present state does not allow this, such as a name that is taken. */
  public static final class WrongState extends Refusal {
    public WrongState(String message) {
      super(message);
    }
  }

  /** Another person changed the same thing. */
  public static final class EditConflict extends Refusal {
    private final OtherChange other;

    public EditConflict(String message, OtherChange other) {
      super(message);
      this.other = other;
    }

    public OtherChange other() {
      return other;
    }
  }

  /**
   * A change by another person that conflicts with the request.
   *
   * @param what the kind of the thing that both change: rule, section, zone, address or service
   * @param key its id or name
   * @param by the display name of the other person
   * @param version the draft's version with the other's change
   * @param at when, RFC 3339
   */
  public record OtherChange(String what, String key, String by, long version, String at) {}

  /** The file is larger than its limit. */
  public static final class TooLarge extends Refusal {
    public TooLarge(String message) {
      super(message);
    }
  }

  /** Parts of the input are not valid. */
  public static final class Invalid extends Refusal {
    private final List<Fault> faults;

    /**
     * @param faults at least one
     */
    public Invalid(List<Fault> faults) {
      super(faults.getFirst().toString());
      this.faults = List.copyOf(faults);
    }

    /**
     * @param found null for a part that is absent
     */
    public Invalid(String path, String expected, String found) {
      this(List.of(new Fault(path, expected, found == null ? "nothing" : found)));
    }

    public List<Fault> faults() {
      return faults;
    }
  }

  /** The client, or all clients together, ask for too much at once; it can try again. */
  public static final class Busy extends Refusal {
    private final boolean client;
    private final int seconds;

    /**
     * @param client whether this client alone is the cause
     * @param seconds after which to try again; 0 if the message says when
     */
    public Busy(boolean client, String message, int seconds) {
      super(message);
      this.client = client;
      this.seconds = seconds;
    }

    public boolean client() {
      return client;
    }

    public int seconds() {
      return seconds;
    }
  }

  /**
   * Refuses a request without a body.
   *
   * @throws Invalid if it is null
   */
  public static void requireBody(Object body) {
    require(body, "$", "an object");
  }

  /**
   * Refuses a request in which a value is left out.
   *
   * @param place where it belongs, such as {@code $.version}
   * @throws Invalid if it is null
   */
  public static <T> T require(T value, String place, String expected) {
    if (value == null) {
      throw new Invalid(place, expected, "nothing");
    }
    return value;
  }
}
