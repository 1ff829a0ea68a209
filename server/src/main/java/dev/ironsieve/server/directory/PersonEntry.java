package dev.ironsieve.server.directory;

import java.util.List;
import java.util.Map;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * A person of the directory.
 *
 * @param name as rules call them
 * @param attributes values by attribute
 * @param groups names of the groups that hold them, each with those through which it does, from the
 *     person upwards; none if it does itself
 */
public record PersonEntry(
    @Schema(required = true) String id,
    @Schema(required = true) String name,
    @Schema(required = true) Map<String, List<String>> attributes,
    @Schema(required = true) List<PersonGroup> groups) {}
