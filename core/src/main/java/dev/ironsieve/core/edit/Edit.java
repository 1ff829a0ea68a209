package dev.ironsieve.core.edit;

import dev.ironsieve.core.model.AddressObject;
import dev.ironsieve.core.model.Breadth;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Feed;
import dev.ironsieve.core.model.InvalidModel;
import dev.ironsieve.core.model.Names;
import dev.ironsieve.core.model.Notice;
import dev.ironsieve.core.model.ObjectKind;
import dev.ironsieve.core.model.Rate;
import dev.ironsieve.core.model.RatePlan;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.SavedCheck;
import dev.ironsieve.core.model.ServiceObject;
import dev.ironsieve.core.model.TermObject;
import dev.ironsieve.core.model.Vocabulary;
import dev.ironsieve.core.model.Zone;
import dev.ironsieve.core.rulebase.CommonRules;
import dev.ironsieve.core.rulebase.Rulebase;
import java.time.ZoneId;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/** One change to a rulebase. */
public sealed interface Edit {
  /** Most rules that one edit may name or bring. */
  int MAX_RULES = 20_000;

  /** Puts new rules, in this order, at a place. */
  record InsertRules(List<Rule> rules, Place place) implements Edit {
    public InsertRules {
      rules = withOwnIds(someOf("rules", rules));
    }
  }

  /** Puts new wording in the place of rules with the same ids. */
  record ReplaceRules(List<Rule> rules) implements Edit {
    public ReplaceRules {
      rules = withOwnIds(someOf("rules", rules));
    }
  }

  record DeleteRules(List<String> ids) implements Edit {
    public DeleteRules {
      ids = eachOnce("ids", someOf("ids", ids));
    }
  }

  /** Moves rules, in this order, to a place, which must not be one of them. */
  record MoveRules(List<String> ids, Place place) implements Edit {
    public MoveRules {
      ids = eachOnce("ids", someOf("ids", ids));
    }
  }

  /**
   * Starts a section without rules.
   *
   * @param before id of the section above which it stands, or null for the end
   * @param tail whether it stands behind the rules of the rulebases below a common rulebase
   */
  record InsertSection(String id, String name, String before, boolean tail) implements Edit {
    public InsertSection(String id, String name, String before) {
      this(id, name, before, false);
    }
  }

  record RenameSection(String id, String name) implements Edit {}

  /**
   * Moves a section with its rules.
   *
   * @param before id of the section above which it then stands, or null for the end
   */
  record MoveSection(String id, String before) implements Edit {}

  /** Deletes a section, which must have no rules. */
  record DeleteSection(String id) implements Edit {}

  /**
   * Makes a zone, or puts new wording in the place of one.
   *
   * @param replaces name of the zone so far, or null for a new one; another name than the zone's
   *     own renames it everywhere
   */
  record PutZone(Zone zone, String replaces) implements Edit {}

  /** Like {@link PutZone} for an address object. */
  record PutAddress(AddressObject address, String replaces) implements Edit {}

  /** Like {@link PutZone} for a service object. */
  record PutService(ServiceObject service, String replaces) implements Edit {}

  /** Like {@link PutZone} for a host list or a schedule. */
  record PutTerms(TermObject object, String replaces) implements Edit {}

  /** Like {@link PutZone} for a rate plan. */
  record PutRatePlan(RatePlan plan, String replaces) implements Edit {}

  /** Like {@link PutZone} for a notice. */
  record PutNotice(Notice notice, String replaces) implements Edit {}

  /**
   * Sets the capacity of the line.
   *
   * @param capacity null if unknown
   */
  record SetLineCapacity(Rate capacity) implements Edit {}

  /** Sets the time zone of the gateway, in which times without a time zone are read. */
  record SetTimeZone(ZoneId zone) implements Edit {}

  /** Sets when a rule is too broad. */
  record SetBreadth(Breadth breadth) implements Edit {}

  /**
   * Makes or changes a check. Its connection must read, and is kept as {@link
   * dev.ironsieve.core.text.ConnectionLine} writes it.
   *
   * @param replaces name of the check that becomes this one, or null for a new one
   * @param before name of the check above which a new one stands, or null for the end
   */
  record PutCheck(SavedCheck check, String replaces, String before) implements Edit {
    /** At the end, if it is a new one. */
    public PutCheck(SavedCheck check, String replaces) {
      this(check, replaces, null);
    }
  }

  /** Deletes a check. */
  record DeleteCheck(String name) implements Edit {}

  /** Deletes a zone or object, which nothing may mention. */
  record DeleteObject(ObjectKind kind, String name) implements Edit {}

  /** Replaces the vocabulary of one coordinate by another edition. */
  record PutVocabulary(Vocabulary vocabulary) implements Edit {}

  /** Removes the vocabulary of one coordinate; no rule may use it. */
  record DeleteVocabulary(Coordinate coordinate) implements Edit {}

  /** Puts another edition of a feed in the place of the one so far, or a new feed. */
  record PutFeed(Feed feed) implements Edit {}

  /** Deletes a feed; no rule and no object may mention a set of it. */
  record DeleteFeed(String name) implements Edit {}

  /**
   * Makes the rulebase what it was in another state.
   *
   * @param state what people call that state, such as "revision 12"
   */
  record Restore(String state, Rulebase rulebase) implements Edit {
    public Restore {
      Names.checkNote(state);
    }
  }

  /**
   * Puts a revision of a common rulebase above the rulebase, in the place of the one so far.
   *
   * @param common null for none
   */
  record PutCommon(CommonRules common) implements Edit {}

  /** Several edits, one after the other, of which all or none happen. */
  record Batch(List<Edit> edits) implements Edit {
    /** Most levels of batches inside batches; one that has none inside has one. */
    public static final int MAX_LEVELS = 10;

    public Batch {
      edits = someOf("edits", edits);
      int levels = 1 + edits.stream().mapToInt(Batch::levels).max().orElse(0);
      if (levels > MAX_LEVELS) {
        throw new InvalidModel("edits", "at most " + MAX_LEVELS + " levels of batches", "more");
      }
    }

    private static int levels(Edit edit) {
      return edit instanceof Batch batch
          ? 1 + batch.edits.stream().mapToInt(Batch::levels).max().orElse(0)
          : 0;
    }
  }

  private static <T> List<T> someOf(String what, List<T> items) {
    if (items == null || items.isEmpty() || items.size() > MAX_RULES) {
      String found = items == null ? "nothing" : items.size() + "";
      throw new InvalidModel(what, "1 to " + MAX_RULES, found);
    }
    return List.copyOf(items);
  }

  private static List<String> eachOnce(String what, List<String> ids) {
    Set<String> seen = new HashSet<>();
    for (String id : ids) {
      if (!seen.add(id)) {
        throw new InvalidModel(what, "each id once", "\"" + id + "\" twice");
      }
    }
    return ids;
  }

  private static List<Rule> withOwnIds(List<Rule> rules) {
    eachOnce("rules", rules.stream().map(Rule::id).toList());
    return rules;
  }

  /**
   * The rulebase after this edit.
   *
   * @throws MissingTarget if the edit names something that does not exist
   * @throws InvalidModel if the result is not valid
   */
  default Rulebase apply(Rulebase before) {
    return Editing.apply(this, before);
  }

  /**
   * The edit that, applied after this one, gives {@code before} back; none if this changes nothing.
   */
  default Optional<Edit> inverse(Rulebase before) {
    return Inverse.of(this, before);
  }

  /**
   * The things that this edit changes in {@code before}: ids of rules and sections, kinds and names
   * of objects.
   */
  default Set<Touched> touched(Rulebase before) {
    return Touched.by(this, before);
  }
}
