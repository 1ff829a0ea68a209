package dev.ironsieve.server.draft;

import java.util.List;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/** Objects of one kind with the same meaning. */
public record AlikeObjects(
    @Schema(required = true) String kind, @Schema(required = true) List<String> names) {}
