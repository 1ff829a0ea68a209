package dev.ironsieve.server.feed;

import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * The approval or rejection of an edition that waits.
 *
 * @param offer whether rulebases are offered it; if not, it is refused
 */
public record Decision(@Schema(required = true) Boolean offer) {}
