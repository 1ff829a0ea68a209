package dev.ironsieve.server.question;

import io.smallrye.config.ConfigMapping;
import io.smallrye.config.WithDefault;
import java.time.Duration;
import java.util.OptionalInt;

/** Limits of questions: threads, deadline and number per account. */
@ConfigMapping(prefix = "iron-sieve.questions")
public interface QuestionConfig {
  /** Threads that answer questions; half of the processors if left out, at least one. */
  OptionalInt threads();

  /** Most questions that are answered or wait at once. */
  @WithDefault("64")
  int most();

  /** Most of them of one account. */
  @WithDefault("16")
  int mostPerAccount();

  /** The time limit of a question, waiting included. */
  @WithDefault("30s")
  Duration deadline();
}
