package dev.ironsieve.server.directory;

import java.util.List;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/** One group of a person. */
public record PersonGroup(
    @Schema(required = true) String name, @Schema(required = true) List<String> through) {}
