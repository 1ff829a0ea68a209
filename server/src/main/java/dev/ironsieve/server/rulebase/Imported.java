package dev.ironsieve.server.rulebase;

import java.util.List;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * The result of an import.
 *
 * @param notes what of the document was not taken over, or was changed
 */
public record Imported(
    @Schema(required = true) long id,
    @Schema(required = true) int rules,
    @Schema(required = true) List<String> notes) {}
