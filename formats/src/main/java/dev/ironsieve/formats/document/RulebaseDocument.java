package dev.ironsieve.formats.document;

import java.util.List;

/**
 * A whole rulebase.
 *
 * @param ironSieve version of the format, 1
 * @param kind {@code traffic}, {@code common} or {@code services}; traffic if left out
 * @param common what is from a common rulebase, besides the other members; nothing if left out
 * @param hostLists named sets of hosts
 * @param schedules named sets of times
 * @param deviceStates named sets of devices
 * @param vocabularies the values of people, devices, sites, applications, file kinds and times
 * @param feeds lists of addresses and hosts from outside
 * @param ratePlans limits and reservations of bandwidth
 * @param notices pages that rules can show
 * @param lineCapacity capacity of the line, such as {@code 1 Gbit/s}; unknown if left out
 * @param timeZone the default time zone of times, such as {@code Europe/Oslo}; UTC if left out
 * @param tooBroad the settings of the finding <i>too broad</i>; the defaults of {@link
 *     BreadthDocument} if left out
 * @param checks connections with an expected verdict
 */
public record RulebaseDocument(
    Integer ironSieve,
    String name,
    String kind,
    CommonDocument common,
    List<ObjectDocument> zones,
    List<ObjectDocument> addresses,
    List<ObjectDocument> services,
    List<ObjectDocument> hostLists,
    List<ObjectDocument> schedules,
    List<ObjectDocument> deviceStates,
    List<VocabularyDocument> vocabularies,
    List<FeedDocument> feeds,
    List<RatePlanDocument> ratePlans,
    List<NoticeDocument> notices,
    String lineCapacity,
    String timeZone,
    BreadthDocument tooBroad,
    List<CheckDocument> checks,
    List<SectionDocument> sections) {
  /** The version of the format that this reads and writes. */
  public static final int VERSION = 1;

  /** With other vocabularies and feeds, and under a common rulebase or none. */
  public RulebaseDocument with(
      List<VocabularyDocument> otherVocabularies,
      List<FeedDocument> otherFeeds,
      CommonDocument otherCommon) {
    return new RulebaseDocument(
        ironSieve,
        name,
        kind,
        otherCommon,
        zones,
        addresses,
        services,
        hostLists,
        schedules,
        deviceStates,
        otherVocabularies,
        otherFeeds,
        ratePlans,
        notices,
        lineCapacity,
        timeZone,
        tooBroad,
        checks,
        sections);
  }
}
