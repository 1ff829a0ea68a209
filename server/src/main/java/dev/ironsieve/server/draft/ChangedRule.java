package dev.ironsieve.server.draft;

import dev.ironsieve.formats.document.RuleDocument;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/** A rule before and after. */
public record ChangedRule(
    @Schema(required = true) RuleDocument before, @Schema(required = true) RuleDocument after) {}
