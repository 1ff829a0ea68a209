package dev.ironsieve.server.account;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import dev.ironsieve.server.refusal.Refusal;
import io.github.bucket4j.Bucket;
import io.github.bucket4j.ConsumptionProbe;
import jakarta.enterprise.context.ApplicationScoped;
import java.time.Duration;
import java.time.Instant;
import java.util.Optional;
import java.util.concurrent.TimeUnit;

/**
 * Limits of tries to sign in that need no row in the database: for each address, and for names that
 * no account has, which are locked like those of accounts so that nobody can tell them apart.
 */
@ApplicationScoped
public class SignInLimits {
  private static final int MOST_ADDRESSES = 100_000;
  private static final int MOST_NAMES = 100_000;

  private final SignInConfig config;
  private final Cache<String, Bucket> addresses =
      Caffeine.newBuilder()
          .maximumSize(MOST_ADDRESSES)
          .expireAfterAccess(Duration.ofMinutes(10))
          .build();
  private final Cache<String, Failures> unknownNames;

  /**
   * @param lockedUntil null if the name is not locked
   */
  private record Failures(int count, Instant lockedUntil) {}

  SignInLimits(SignInConfig config) {
    this.config = config;
    unknownNames =
        Caffeine.newBuilder().maximumSize(MOST_NAMES).expireAfterWrite(config.lockedFor()).build();
  }

  /**
   * Counts a try.
   *
   * @throws Refusal.Busy if there were too many from this address within a minute
   */
  void countTry(String address) {
    Bucket bucket =
        addresses.get(
            address,
            one ->
                Bucket.builder()
                    .addLimit(
                        limit ->
                            limit
                                .capacity(config.triesPerAddress())
                                .refillGreedy(config.triesPerAddress(), Duration.ofMinutes(1)))
                    .build());
    ConsumptionProbe probe = bucket.tryConsumeAndReturnRemaining(1);
    if (!probe.isConsumed()) {
      long seconds = TimeUnit.NANOSECONDS.toSeconds(probe.getNanosToWaitForRefill()) + 1;
      throw new Refusal.Busy(true, "Too many tries to sign in from this address.", (int) seconds);
    }
  }

  /** Until when a name that no account has is locked; nothing if it is not. */
  Optional<Instant> lockedUntil(String unknownName) {
    return Optional.ofNullable(unknownNames.getIfPresent(unknownName))
        .map(Failures::lockedUntil)
        .filter(until -> until.isAfter(Instant.now()));
  }

  /** Counts a failure of a name that no account has; the configured one locks it. */
  void countFailure(String unknownName, Instant until) {
    unknownNames
        .asMap()
        .compute(
            unknownName,
            (name, known) -> {
              int count = known == null ? 1 : known.count() + 1;
              return new Failures(count, count >= config.failures() ? until : null);
            });
  }
}
