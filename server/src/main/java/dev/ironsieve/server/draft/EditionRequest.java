package dev.ironsieve.server.draft;

import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * The request to adopt an edition in a draft.
 *
 * @param version of the draft that the person saw
 */
public record EditionRequest(@Schema(required = true) Long version) {}
