package dev.ironsieve.server.log;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import dev.ironsieve.server.refusal.Refusal;
import dev.ironsieve.server.revision.RevisionDocuments;
import jakarta.enterprise.context.ApplicationScoped;

/** The rules of the latest revisions that log records named. */
@ApplicationScoped
class RevisionRuleNames {
  private static final int CACHED_REVISIONS = 50;

  private final RevisionDocuments documents;
  private final Cache<Key, RevisionRules> cache =
      Caffeine.newBuilder().maximumSize(CACHED_REVISIONS).build();

  private record Key(long rulebase, int revision) {}

  RevisionRuleNames(RevisionDocuments documents) {
    this.documents = documents;
  }

  RevisionRules of(long rulebase, int revision) {
    return cache.get(new Key(rulebase, revision), this::read);
  }

  private RevisionRules read(Key key) {
    try {
      return RevisionRules.of(documents.document(key.rulebase(), key.revision()));
    } catch (Refusal.NotFound e) {
      return RevisionRules.NONE; // a gateway reported a revision that is not there
    }
  }
}
