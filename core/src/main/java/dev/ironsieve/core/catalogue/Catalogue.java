package dev.ironsieve.core.catalogue;

import dev.ironsieve.core.model.ApplicationFact;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Defaults;
import dev.ironsieve.core.model.InvalidModel;
import dev.ironsieve.core.model.Names;
import dev.ironsieve.core.model.Vocabulary;
import dev.ironsieve.core.model.Vocabulary.Term;
import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.signature.Condition;
import dev.ironsieve.core.signature.HostPattern;
import dev.ironsieve.core.signature.Recogniser;
import dev.ironsieve.core.signature.Signature;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;

/**
 * One edition of the catalogue. Every application that is needed or carried is in it, and no name
 * stands twice.
 *
 * @param edition such as {@code 2026-11}
 * @param applications by name, in no order of importance
 */
public record Catalogue(String edition, List<Application> applications) {
  /** Most applications of one edition. */
  public static final int MAX_APPLICATIONS = 50_000;

  /** The value of a connection whose application is not recognised. */
  public static final String UNIDENTIFIED = Defaults.UNIDENTIFIED;

  /** The category of applications that engineers add themselves. */
  public static final String OWN = "our own";

  private static final int HIGHEST_RISK = 5;

  public Catalogue {
    CatalogueNames.check("edition", edition);
    if (applications.isEmpty() || applications.size() > MAX_APPLICATIONS) {
      throw new InvalidModel("applications", "1 to " + MAX_APPLICATIONS, applications.size() + "");
    }
    applications =
        applications.stream().sorted(Comparator.comparing(a -> Names.key(a.name()))).toList();
    Map<String, Application> known = new HashMap<>();
    for (Application application : applications) {
      if (known.put(Names.key(application.name()), application) != null) {
        throw new InvalidModel(
            "applications", "each name once", CatalogueNames.found(application.name()) + " twice");
      }
      if (Names.key(application.name()).equals(UNIDENTIFIED)) {
        throw CatalogueNames.reserved("application", application.name());
      }
    }
    for (Application application : applications) {
      check(application, "needs", application.needs(), known);
      check(application, "carries", application.carries(), known);
    }
  }

  private static void check(
      Application application, String what, List<String> names, Map<String, Application> known) {
    for (String name : names) {
      Application other = known.get(Names.key(name));
      if (other == null || other == application) {
        throw new InvalidModel(
            "application \"" + application.name() + "\", " + what,
            "the name of another application",
            CatalogueNames.found(name));
      }
    }
  }

  /**
   * A new edition with one more signature of an application. An unknown application is added, in
   * the category {@value #OWN}.
   */
  public Catalogue telling(String otherEdition, String application, Signature signature) {
    List<Application> all = new ArrayList<>();
    boolean known = false;
    for (Application each : applications) {
      boolean meant = Names.key(each.name()).equals(Names.key(application));
      known |= meant;
      all.add(meant ? each.telling(signature) : each);
    }
    if (!known) {
      all.add(Application.own(application, OWN, signature));
    }
    return new Catalogue(otherEdition, all);
  }

  /** The name of a category in rules. */
  public static String categoryTerm(String category) {
    return "category " + category;
  }

  /** The name of a tag in rules. */
  public static String tagTerm(String tag) {
    return "tag " + tag;
  }

  /**
   * Everything that rules can say of applications: each use of each application as a value; as sets
   * each application with features, each category, tag and risk, and from each risk upwards.
   */
  public Vocabulary vocabulary() {
    List<String> values = new ArrayList<>();
    values.add(UNIDENTIFIED);
    Map<String, IntSet.Builder> sets = new LinkedHashMap<>();
    Map<String, IntSet.Builder> groups = new TreeMap<>();
    List<ApplicationFact> facts = new ArrayList<>();
    for (Application application : applications) {
      int first = values.size();
      values.addAll(application.uses());
      int last = values.size() - 1;
      facts.add(fact(application, first));
      if (!application.features().isEmpty()) {
        add(sets, application.name(), first, last);
      }
      add(groups, categoryTerm(application.category()), first, last);
      application.tags().forEach(tag -> add(groups, tagTerm(tag), first, last));
      add(groups, "risk " + application.risk(), first, last);
      for (int least = 2; least <= application.risk() && least < HIGHEST_RISK; least++) {
        add(groups, "risk " + least + " or more", first, last);
      }
    }
    sets.putAll(groups);
    List<Term> terms = new ArrayList<>();
    sets.forEach((name, members) -> terms.add(new Term(name, members.build())));
    return new Vocabulary(Coordinate.APPLICATION, edition, values, terms, facts);
  }

  /**
   * @param first number of its first use
   */
  private static ApplicationFact fact(Application application, int first) {
    IntSet.Builder openedOnly = new IntSet.Builder();
    int features = application.features().size();
    for (int i = 0; i < features; i++) {
      if (!application.features().get(i).seenSealed()) {
        openedOnly.addInOrder(first + i, first + i);
      }
    }
    if (!openedOnly.build().isEmpty()) {
      openedOnly.addInOrder(first + features, first + features); // sealed, they look like other use
    }
    return new ApplicationFact(
        application.name(),
        IntSet.range(first, first + application.uses().size() - 1),
        application.ports(),
        application.hosts(),
        application.needs(),
        application.carries(),
        openedOnly.build());
  }

  /**
   * All signatures: the applications' own, and one for each of their hosts, which recognises it in
   * TLS and HTTP.
   */
  public List<Recogniser.Named> signatures() {
    List<Recogniser.Named> out = new ArrayList<>();
    for (Application application : applications) {
      for (Signature signature : application.signatures()) {
        out.add(new Recogniser.Named(application.name(), signature));
      }
      for (String host : application.hosts()) {
        for (Condition.Where where : List.of(Condition.Where.TLS, Condition.Where.HTTP)) {
          Condition names = new Condition.Names(where, HostPattern.parse(host));
          out.add(new Recogniser.Named(application.name(), new Signature(null, List.of(names))));
        }
      }
    }
    return List.copyOf(out);
  }

  private static void add(Map<String, IntSet.Builder> sets, String name, int first, int last) {
    sets.computeIfAbsent(name, n -> new IntSet.Builder()).addInOrder(first, last);
  }
}
