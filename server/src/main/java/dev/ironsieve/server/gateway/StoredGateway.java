package dev.ironsieve.server.gateway;

import java.time.Instant;

/**
 * The row of a gateway.
 *
 * @param newest the newest revision of its rulebase, which it has to follow
 * @param digest SHA-256 of that revision
 * @param inForce the revision that it reported in force; null if it has none
 * @param state its last report; null before the first
 * @param stateOf the revision of that report
 * @param reason why it refused the revision
 * @param seenAt when it last asked or reported; null if it never did
 */
record StoredGateway(
    long id,
    String name,
    long rulebase,
    int newest,
    byte[] digest,
    Integer inForce,
    String state,
    Integer stateOf,
    String reason,
    Instant enrolledAt,
    Instant revokedAt,
    Instant seenAt) {}
