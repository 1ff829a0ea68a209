package dev.ironsieve.core.model;

import java.time.LocalDate;

/** Which times are over by a day. */
public final class Days {
  private Days() {}

  /**
   * For each value of a vocabulary of times the one that stands for it from a day on: itself, or,
   * for one that is over by then, another at the same time of the week.
   *
   * @param day by the gateway's clock; null for ever
   * @return null if each stands for itself
   */
  public static int[] from(LocalDate day, Vocabulary vocabulary) {
    return day == null || vocabulary.coordinate() != Coordinate.TIME
        ? null
        : TimeVocabulary.from(day, vocabulary.values());
  }
}
