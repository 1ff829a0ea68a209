package dev.ironsieve.server.draft;

import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * The request to discard the changes of a draft.
 *
 * @param version of the draft that the person saw
 */
public record DiscardRequest(@Schema(required = true) Long version) {}
