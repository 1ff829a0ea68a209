package dev.ironsieve.server.draft;

import dev.ironsieve.core.reach.ZoneMatrix;
import java.util.List;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * How much is open between zones.
 *
 * @param of the number of zones that were asked for, of which {@code zones} has the first
 * @param cells by source zone, then by destination zone
 */
public record ZoneMatrixDocument(
    @Schema(required = true) List<String> zones,
    @Schema(required = true) int of,
    @Schema(required = true) List<MatrixCell> cells) {
  /**
   * The connections from one zone to another.
   *
   * @param open the number of kinds of services, as the rules tell them apart, of which some
   *     connection is let through
   * @param of the number of all kinds
   * @param exact whether that is all; if not, the work limit was reached
   * @param rules ids of rules that let some of it through, in order, each of which opens a kind
   *     that no rule above opens
   */
  public record MatrixCell(
      @Schema(required = true) int open,
      @Schema(required = true) int of,
      @Schema(required = true) boolean exact,
      @Schema(required = true) List<String> rules) {}

  private static final int MOST_RULES = 20;

  static ZoneMatrixDocument of(ZoneMatrix matrix, int all) {
    return new ZoneMatrixDocument(
        matrix.zones(),
        all,
        matrix.cells().stream()
            .map(
                cell ->
                    new MatrixCell(
                        cell.open(),
                        cell.of(),
                        cell.exact(),
                        cell.rules().stream().limit(MOST_RULES).toList()))
            .toList());
  }
}
