package dev.ironsieve.server.common;

/**
 * A rulebase below a common one.
 *
 * @param revision its newest, which is in force
 * @param above id of the common rulebase directly above it, or above its newest revision
 */
public record Below(long id, String name, String kind, int revision, long above) {}
