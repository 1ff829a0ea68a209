package dev.ironsieve.server.directory;

import java.util.List;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * The result of a search for people.
 *
 * @param total how many there are in the snapshot
 * @param fitting how many fit
 * @param people the first of these, by name
 * @param groups names of all groups
 * @param remarks oddities of the directory, in sentences
 */
public record People(
    @Schema(required = true) int total,
    @Schema(required = true) int fitting,
    @Schema(required = true) List<PersonEntry> people,
    @Schema(required = true) List<String> groups,
    @Schema(required = true) List<String> remarks) {}
