package dev.ironsieve.server.rulebase;

import com.fasterxml.jackson.databind.JsonNode;
import dev.ironsieve.formats.rfc8519.AclWriter;
import java.util.List;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * A rulebase in the format of RFC 8519, with what it cannot express.
 *
 * @param document the document, {@code ietf-access-control-list:acls}
 * @param leftOut rules that the standard cannot say
 * @param notes what of the written rules is not in the document
 */
public record Exported(
    @Schema(required = true, implementation = Object.class) JsonNode document,
    @Schema(required = true) List<AclWriter.LeftOut> leftOut,
    @Schema(required = true) List<String> notes) {}
