package dev.ironsieve.server.common;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import dev.ironsieve.core.analysis.LiveAnalysis;
import dev.ironsieve.core.model.InvalidModel;
import dev.ironsieve.core.rulebase.CommonRules;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.server.draft.DraftState;
import dev.ironsieve.server.draft.Drafts;
import dev.ironsieve.server.draft.StandingDocument;
import dev.ironsieve.server.question.QuestionPool;
import dev.ironsieve.server.refusal.Refusal;
import jakarta.enterprise.context.ApplicationScoped;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/** Answers what the draft of a common rulebase does in the drafts below it. */
@ApplicationScoped
class CommonEffects {
  private static final int MOST_KEPT = 200;

  /**
   * @param versions of all drafts of which the answer may depend
   */
  private record Key(long common, long below, List<Version> versions) {}

  private record Version(long rulebase, int revision, long version) {}

  private final Drafts drafts;
  private final CommonRulebases rulebases;
  private final QuestionPool pool;
  private final Cache<Key, CommonEffect> answers =
      Caffeine.newBuilder().maximumSize(MOST_KEPT).build();

  CommonEffects(Drafts drafts, CommonRulebases rulebases, QuestionPool pool) {
    this.drafts = drafts;
    this.rulebases = rulebases;
    this.pool = pool;
  }

  /**
   * The standing of every rule of a common draft in the whole order of a draft below.
   *
   * @throws Refusal.NotFound if it is not below
   */
  CommonEffect of(long common, long below) {
    DraftState draft = drafts.state(common);
    List<Below> all = rulebases.below(common);
    List<Version> versions = new ArrayList<>(List.of(version(common, draft)));
    all.forEach(one -> versions.add(version(one.id(), drafts.state(one.id()))));
    Key key = new Key(common, below, versions);
    CommonEffect known = answers.getIfPresent(key);
    if (known == null) {
      known = pool.ask(() -> effect(common, draft, below, all));
      answers.put(key, known);
    }
    return known;
  }

  private static Version version(long rulebase, DraftState draft) {
    return new Version(rulebase, draft.revision(), draft.version());
  }

  private CommonEffect effect(long common, DraftState draft, long below, List<Below> all) {
    try {
      Map<Long, CommonRules> above = new LinkedHashMap<>();
      above.put(common, CommonRules.of(draft.rulebase(), draft.revision() + 1));
      for (Below one : all) {
        Rulebase whole = drafts.rulebase(one.id()).under(above.get(one.above()));
        if (one.id() == below) {
          return standings(draft, whole);
        }
        if (one.kind().equals("common")) {
          above.put(one.id(), CommonRules.of(whole, one.revision() + 1));
        }
      }
    } catch (InvalidModel e) {
      return new CommonEffect(draft.version(), e.getMessage(), Map.of());
    }
    throw new Refusal.NotFound("That rulebase is not below this one.");
  }

  private static CommonEffect standings(DraftState draft, Rulebase whole) {
    LiveAnalysis analysis =
        new LiveAnalysis(whole, LocalDate.now(whole.gatewaySettings().timeZone()));
    Map<String, StandingDocument> out = new LinkedHashMap<>();
    draft
        .rulebase()
        .rules()
        .forEach(rule -> out.put(rule.id(), StandingDocument.of(rule.id(), analysis)));
    return new CommonEffect(draft.version(), null, out);
  }
}
