package dev.ironsieve.server.draft;

import dev.ironsieve.formats.document.RatePlanDocument;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * A rate plan before it is saved.
 *
 * @param replaces name of the plan that it would replace; left out for a new one
 */
public record RatePlanTrial(@Schema(required = true) RatePlanDocument ratePlan, String replaces) {}
