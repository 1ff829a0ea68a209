package dev.ironsieve.server.http;

import dev.ironsieve.formats.Fault;
import java.util.List;

/** A request that cannot be served, as a problem document (RFC 9457). */
public final class Problem extends RuntimeException {
  /**
   * The document.
   *
   * @param faults what is wrong in the request, with places, if that is the reason
   * @param conflict who changed what, if that is the reason
   */
  public record Body(
      String title, int status, String detail, List<Fault> faults, Conflict conflict) {}

  /**
   * A change by another person that conflicts with the request.
   *
   * @param what the kind of the thing that both change: rule, section, zone, address or service
   * @param key its id or name
   * @param by the display name of the other person
   * @param version the draft's version with the other's change
   * @param at when, RFC 3339
   */
  public record Conflict(String what, String key, String by, long version, String at) {}

  private final Body body;
  private final int retryAfter; // seconds; 0 if trying again does not help

  private Problem(Body body) {
    this(body, 0);
  }

  private Problem(Body body, int retryAfter) {
    super(body.detail());
    this.body = body;
    this.retryAfter = retryAfter;
  }

  /**
   * A request that may be served later.
   *
   * @param seconds after which to try again
   */
  public static Problem later(int status, String detail, int seconds) {
    return new Problem(new Body(title(status), status, detail, null, null), seconds);
  }

  /** Seconds after which to try again; 0 if that does not help. */
  public int retryAfter() {
    return retryAfter;
  }

  public static Problem of(int status, String detail) {
    return new Problem(new Body(title(status), status, detail, null, null));
  }

  public static Problem invalid(String path, String expected, String found) {
    return invalid(List.of(new Fault(path, expected, found == null ? "nothing" : found)));
  }

  public static Problem invalid(List<Fault> faults) {
    return new Problem(new Body(title(422), 422, faults.getFirst().toString(), faults, null));
  }

  public static Problem conflict(String detail, Conflict conflict) {
    return new Problem(new Body(title(409), 409, detail, null, conflict));
  }

  /** Complains about a request without a body. */
  public static void requireBody(Object body) {
    if (body == null) {
      throw invalid("$", "an object", "nothing");
    }
  }

  public Body body() {
    return body;
  }

  static String title(int status) {
    return switch (status) {
      case 400 -> "Malformed request";
      case 401 -> "Not signed in";
      case 403 -> "Not allowed";
      case 404 -> "Not found";
      case 409 -> "Conflict";
      case 413 -> "Too large";
      case 415 -> "Unknown media type";
      case 422 -> "Invalid content";
      case 429 -> "Too many requests";
      case 503 -> "Not available now";
      default -> status >= 500 ? "The server failed" : "Refused";
    };
  }
}
