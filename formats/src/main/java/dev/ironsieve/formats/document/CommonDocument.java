package dev.ironsieve.formats.document;

import com.fasterxml.jackson.annotation.JsonInclude;
import java.util.List;

/**
 * What a rulebase has from a common rulebase.
 *
 * @param rulebase name of the common rulebase
 * @param revision its revision
 * @param head sections above those of the rulebase
 * @param tail sections below them
 * @param common what the common rulebase itself has from another one
 */
@JsonInclude(JsonInclude.Include.NON_NULL)
public record CommonDocument(
    String rulebase,
    Integer revision,
    List<SectionDocument> head,
    List<SectionDocument> tail,
    List<ObjectDocument> zones,
    List<ObjectDocument> addresses,
    List<ObjectDocument> services,
    List<ObjectDocument> hostLists,
    List<ObjectDocument> schedules,
    List<ObjectDocument> deviceStates,
    List<RatePlanDocument> ratePlans,
    List<NoticeDocument> notices,
    CommonDocument common) {

  /** The name and revision alone, where the parts are known or not needed. */
  public static CommonDocument named(String rulebase, int revision) {
    return new CommonDocument(
        rulebase, revision, null, null, null, null, null, null, null, null, null, null, null);
  }
}
