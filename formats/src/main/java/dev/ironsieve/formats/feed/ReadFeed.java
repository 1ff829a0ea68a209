package dev.ironsieve.formats.feed;

import dev.ironsieve.core.model.FeedSet;
import java.util.List;

/**
 * The contents of a feed's file, and its faults.
 *
 * @param sets made of the good lines
 * @param good how many lines are entries
 * @param bad how many are neither entries nor comments
 * @param faults the faults of these, in the order of their lines; with {@value #MOST_FAULTS} at
 *     most
 */
public record ReadFeed(List<FeedSet> sets, int good, int bad, List<Fault> faults) {
  /** Most faults that are kept. */
  public static final int MOST_FAULTS = 1000;

  /**
   * One bad line.
   *
   * @param line its number, from 1
   * @param found the line, or its beginning
   */
  public record Fault(int line, String expected, String found) {}
}
