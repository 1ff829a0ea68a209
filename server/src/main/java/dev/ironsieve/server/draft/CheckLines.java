package dev.ironsieve.server.draft;

import com.fasterxml.jackson.annotation.JsonInclude;
import java.util.List;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * Lines that may become checks.
 *
 * @param lines connection lines, or sets that begin with {@code all}
 * @param results the meaning of each line; left out in a request
 */
@JsonInclude(JsonInclude.Include.NON_NULL)
public record CheckLines(@Schema(required = true) List<String> lines, List<CheckLine> results) {
  /** Most lines of one question. */
  static final int MOST = 10_000;

  /**
   * One line.
   *
   * @param line as the product writes it; left out if it does not read
   * @param verdict that the connection gets now; left out if it does not read, or is a set
   * @param fault why it does not read
   */
  @JsonInclude(JsonInclude.Include.NON_NULL)
  public record CheckLine(String line, String verdict, String fault) {}
}
