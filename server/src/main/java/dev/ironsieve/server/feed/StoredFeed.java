package dev.ironsieve.server.feed;

/**
 * The row of a feed.
 *
 * @param kind the word of its kind
 * @param url null for one that is only uploaded
 * @param mostPercent by how much an edition may differ in size from the one before, before it waits
 *     for a person
 */
record StoredFeed(
    long id,
    String name,
    String kind,
    String url,
    int everyMinutes,
    long mostBytes,
    int mostPercent) {}
