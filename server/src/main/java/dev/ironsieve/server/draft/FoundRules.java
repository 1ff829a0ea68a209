package dev.ironsieve.server.draft;

import java.util.List;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * The rules that a filter asked for.
 *
 * @param rules their ids, in their order
 */
public record FoundRules(@Schema(required = true) List<String> rules) {}
