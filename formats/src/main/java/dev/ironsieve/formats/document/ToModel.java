package dev.ironsieve.formats.document;

import dev.ironsieve.core.model.AddressItem;
import dev.ironsieve.core.model.AddressObject;
import dev.ironsieve.core.model.ApplicationFact;
import dev.ironsieve.core.model.Breadth;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.Feed;
import dev.ironsieve.core.model.FeedKind;
import dev.ironsieve.core.model.FeedSet;
import dev.ironsieve.core.model.GatewaySettings;
import dev.ironsieve.core.model.Logging;
import dev.ironsieve.core.model.Notice;
import dev.ironsieve.core.model.ObjectKind;
import dev.ironsieve.core.model.Opening;
import dev.ironsieve.core.model.Ownership;
import dev.ironsieve.core.model.Rate;
import dev.ironsieve.core.model.RatePlan;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.RulebaseKind;
import dev.ironsieve.core.model.SavedCheck;
import dev.ironsieve.core.model.Section;
import dev.ironsieve.core.model.ServiceItem;
import dev.ironsieve.core.model.ServiceLiteral;
import dev.ironsieve.core.model.ServiceObject;
import dev.ironsieve.core.model.SitePattern;
import dev.ironsieve.core.model.TermObject;
import dev.ironsieve.core.model.TimeZones;
import dev.ironsieve.core.model.Validity;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.model.Vocabulary;
import dev.ironsieve.core.model.Zone;
import dev.ironsieve.core.rulebase.CommonRules;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.rulebase.RulebaseBuilder;
import dev.ironsieve.core.sets.AddressRange;
import dev.ironsieve.core.sets.AddressSet;
import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.formats.Checked;
import dev.ironsieve.formats.InvalidDocument;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.EnumMap;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;

/**
 * Converts documents to the model. Every method takes the JSON path of its argument, for its
 * complaints, and throws {@link InvalidDocument}.
 */
public final class ToModel {
  private ToModel() {}

  public static Rulebase rulebase(RulebaseDocument document) {
    if (document.ironSieve() == null || document.ironSieve() != RulebaseDocument.VERSION) {
      String found = document.ironSieve() == null ? "nothing" : document.ironSieve().toString();
      throw new InvalidDocument("$.ironSieve", RulebaseDocument.VERSION + "", found);
    }
    List<Zone> zones = each(document.zones(), "$.zones", ToModel::zone);
    List<AddressObject> addresses = each(document.addresses(), "$.addresses", ToModel::address);
    List<ServiceObject> services = each(document.services(), "$.services", ToModel::service);
    List<TermObject> termObjects =
        termObjects(document.hostLists(), document.schedules(), document.deviceStates(), "$");
    List<Vocabulary> vocabularies =
        each(document.vocabularies(), "$.vocabularies", ToModel::vocabulary);
    List<Feed> feeds = each(document.feeds(), "$.feeds", ToModel::feed);
    GatewaySettings gatewaySettings =
        new GatewaySettings(
            each(document.ratePlans(), "$.ratePlans", ToModel::ratePlan),
            each(document.notices(), "$.notices", ToModel::notice),
            rate(document.lineCapacity(), "$.lineCapacity"),
            document.timeZone() == null
                ? GatewaySettings.UTC
                : timeZone(document.timeZone(), "$.timeZone"),
            breadth(document.tooBroad(), "$.tooBroad"));
    List<SavedCheck> checks = each(document.checks(), "$.checks", ToModel::check);
    CommonRules common =
        document.common() == null ? null : common(document.common(), "$.common", 1);
    RulebaseKind kind =
        document.kind() == null
            ? RulebaseKind.TRAFFIC
            : Checked.at("$.kind", () -> RulebaseKind.of(document.kind()));
    List<Section> sections = sections(document.sections(), "$.sections", false);
    if (sections.isEmpty()) {
      sections = Rulebase.empty("empty").sections();
    }
    List<Section> all = sections;
    return Checked.at(
        "$",
        () ->
            new RulebaseBuilder()
                .name(document.name())
                .kind(kind)
                .zones(zones)
                .addresses(addresses)
                .services(services)
                .termObjects(termObjects)
                .pinned(vocabularies)
                .feeds(feeds)
                .gatewaySettings(gatewaySettings)
                .checks(checks)
                .sections(all)
                .under(common)
                .build());
  }

  public static SavedCheck check(CheckDocument document, String path) {
    Verdict expected = word(Verdict.class, present(document, path).verdict(), path + ".verdict");
    return Checked.at(
        path,
        () ->
            new SavedCheck(
                document.name(),
                document.connection(),
                expected,
                document.rule(),
                Boolean.TRUE.equals(document.protectedConnection()),
                document.group() == null ? "" : document.group(),
                document.tags() == null ? List.of() : document.tags()));
  }

  public static ZoneId timeZone(String name, String path) {
    return Checked.at(path, () -> TimeZones.parse(present(name, path)));
  }

  public static RatePlan ratePlan(RatePlanDocument document, String path) {
    Rate ceiling = rate(document.ceiling(), path + ".ceiling");
    Rate floor = rate(document.floor(), path + ".floor");
    RatePlan.Counted counted = counted(document.counted(), path + ".counted");
    return Checked.at(
        path,
        () ->
            new RatePlan(
                document.name(),
                ceiling,
                floor,
                counted,
                document.mostAtOnce(),
                document.note() == null ? "" : document.note()));
  }

  private static RatePlan.Counted counted(String word, String path) {
    return Arrays.stream(RatePlan.Counted.values())
        .filter(counted -> counted.word().equals(word))
        .findFirst()
        .orElseThrow(
            () ->
                new InvalidDocument(
                    path,
                    "one of all rules, each rule, each source",
                    word == null ? "nothing" : '"' + word + '"'));
  }

  public static Notice notice(NoticeDocument document, String path) {
    return Checked.at(path, () -> new Notice(document.name(), document.heading(), document.text()));
  }

  /** The settings of the finding <i>too broad</i>; the default if left out. */
  public static Breadth breadth(BreadthDocument document, String path) {
    if (document == null) {
      return Breadth.DEFAULT;
    }
    Set<Breadth.Dimension> counting = EnumSet.noneOf(Breadth.Dimension.class);
    if (document.counting() == null) {
      counting.addAll(Breadth.DEFAULT.counting());
    }
    counting.addAll(
        each(
            document.counting(),
            path + ".counting",
            (word, at) -> word(Breadth.Dimension.class, word.replace(' ', '_'), at)));
    long addresses = document.addresses() == null ? 1 : document.addresses();
    return Checked.at(path, () -> new Breadth(counting, addresses));
  }

  /** A rate, or null for none. */
  public static Rate rate(String text, String path) {
    return text == null ? null : Checked.at(path, () -> Rate.parse(text));
  }

  public static Feed feed(FeedDocument document, String path) {
    FeedKind kind = feedKind(document.kind(), path + ".kind");
    List<FeedSet> sets =
        each(
            document.sets(),
            path + ".sets",
            (set, at) ->
                kind.objects() == ObjectKind.ADDRESS ? addresses(set, at) : hosts(set, at));
    return Checked.at(path, () -> new Feed(document.name(), kind, document.edition(), sets));
  }

  public static FeedKind feedKind(String word, String path) {
    return word(FeedKind.class, word, path);
  }

  private static FeedSet addresses(FeedDocument.SetDocument set, String path) {
    List<AddressRange> ranges =
        each(
            set.members(),
            path + ".members",
            (text, at) -> Checked.at(at, () -> AddressRange.parse(text)));
    return Checked.at(path, () -> new FeedSet.Addresses(set.name(), AddressSet.of(ranges)));
  }

  private static FeedSet hosts(FeedDocument.SetDocument set, String path) {
    List<SitePattern> hosts =
        each(
            set.members(),
            path + ".members",
            (text, at) -> Checked.at(at, () -> SitePattern.parse(text)));
    return Checked.at(path, () -> new FeedSet.Hosts(set.name(), new LinkedHashSet<>(hosts)));
  }

  public static Vocabulary vocabulary(VocabularyDocument document, String path) {
    Coordinate coordinate = coordinate(document.coordinate(), path + ".coordinate");
    List<String> values = each(document.values(), path + ".values", (text, at) -> text);
    Map<String, Integer> numbers = HashMap.newHashMap(values.size());
    values.forEach(value -> numbers.putIfAbsent(value, numbers.size()));
    List<Vocabulary.Term> sets =
        each(document.sets(), path + ".sets", (set, at) -> term(set, at, numbers));
    List<ApplicationFact> facts =
        each(
            document.applications(),
            path + ".applications",
            (application, at) -> fact(application, at, numbers));
    return Checked.at(
        path, () -> new Vocabulary(coordinate, document.edition(), values, sets, facts));
  }

  private static Vocabulary.Term term(
      VocabularyDocument.SetDocument set, String path, Map<String, Integer> numbers) {
    IntSet members = numbers(set.members(), path + ".members", numbers);
    return Checked.at(path, () -> new Vocabulary.Term(set.name(), members));
  }

  private static ApplicationFact fact(
      VocabularyDocument.FactDocument document, String path, Map<String, Integer> numbers) {
    List<ServiceLiteral> ports =
        each(
            document.ports(),
            path + ".ports",
            (text, at) -> Checked.at(at, () -> ServiceLiteral.parse(text)));
    List<String> hosts = each(document.hosts(), path + ".hosts", (text, at) -> text);
    List<String> needs = each(document.needs(), path + ".needs", (text, at) -> text);
    List<String> carries = each(document.carries(), path + ".carries", (text, at) -> text);
    IntSet uses = numbers(document.uses(), path + ".uses", numbers);
    IntSet openedOnly = numbers(document.openedOnly(), path + ".openedOnly", numbers);
    return Checked.at(
        path,
        () -> new ApplicationFact(document.name(), uses, ports, hosts, needs, carries, openedOnly));
  }

  /** The numbers of some values. */
  private static IntSet numbers(List<String> names, String path, Map<String, Integer> numbers) {
    List<Integer> members =
        each(
            names,
            path,
            (name, at) -> {
              Integer number = numbers.get(name);
              if (number == null) {
                throw new InvalidDocument(at, "the name of a value", '"' + name + '"');
              }
              return number;
            });
    IntSet.Builder numbered = new IntSet.Builder();
    members.stream().sorted().forEach(number -> numbered.addInOrder(number, number));
    return numbered.build();
  }

  public static Coordinate coordinate(String word, String path) {
    return Arrays.stream(Coordinate.values())
        .filter(coordinate -> coordinate.word().equals(word))
        .findFirst()
        .orElseThrow(
            () ->
                new InvalidDocument(
                    path,
                    Arrays.stream(Coordinate.values())
                        .map(Coordinate::word)
                        .collect(Collectors.joining(", ", "one of ", "")),
                    word == null ? "nothing" : '"' + word + '"'));
  }

  private static Map<Coordinate, Criterion<String>> terms(
      Map<String, CriterionDocument> documents, String path) {
    Map<Coordinate, Criterion<String>> out = new EnumMap<>(Coordinate.class);
    if (documents != null) {
      documents.forEach(
          (word, document) -> out.put(coordinate(word, path), names(document, path + "." + word)));
    }
    return out;
  }

  /** Host lists, schedules and device states. */
  private static List<TermObject> termObjects(
      List<ObjectDocument> hostLists,
      List<ObjectDocument> schedules,
      List<ObjectDocument> deviceStates,
      String path) {
    List<TermObject> out = new ArrayList<>();
    out.addAll(each(hostLists, path + ".hostLists", (o, at) -> terms(ObjectKind.HOST_LIST, o, at)));
    out.addAll(each(schedules, path + ".schedules", (o, at) -> terms(ObjectKind.SCHEDULE, o, at)));
    out.addAll(
        each(
            deviceStates,
            path + ".deviceStates",
            (o, at) -> terms(ObjectKind.DEVICE_STATE, o, at)));
    return out;
  }

  /**
   * What a rulebase has from a common rulebase.
   *
   * @param level of the common rulebase, from 1 for the nearest
   */
  private static CommonRules common(CommonDocument document, String path, int level) {
    if (document.revision() == null || document.revision() < 1) {
      throw new InvalidDocument(path + ".revision", "1 or more", document.revision() + "");
    }
    if (level > CommonRules.MAX_LEVELS) {
      throw new InvalidDocument(path, "at most " + CommonRules.MAX_LEVELS + " levels", "more");
    }
    List<Section> head = sections(document.head(), path + ".head", false);
    List<Section> tail = sections(document.tail(), path + ".tail", true);
    List<Zone> zones = each(document.zones(), path + ".zones", ToModel::zone);
    List<AddressObject> addresses =
        each(document.addresses(), path + ".addresses", ToModel::address);
    List<ServiceObject> services = each(document.services(), path + ".services", ToModel::service);
    List<TermObject> termObjects =
        termObjects(document.hostLists(), document.schedules(), document.deviceStates(), path);
    List<RatePlan> ratePlans = each(document.ratePlans(), path + ".ratePlans", ToModel::ratePlan);
    List<Notice> notices = each(document.notices(), path + ".notices", ToModel::notice);
    CommonRules above =
        document.common() == null ? null : common(document.common(), path + ".common", level + 1);
    return Checked.at(
        path,
        () ->
            new CommonRules(
                document.rulebase(),
                document.revision(),
                head,
                tail,
                zones,
                addresses,
                services,
                termObjects,
                ratePlans,
                notices,
                above));
  }

  /** What a rulebase has from a common rulebase. */
  public static CommonRules common(CommonDocument document, String path) {
    return common(document, path, 1);
  }

  /**
   * @param tail whether all of them are tail sections
   */
  private static List<Section> sections(List<SectionDocument> given, String path, boolean tail) {
    List<Section> out = new ArrayList<>();
    for (int i = 0; given != null && i < given.size(); i++) {
      String at = path + "[" + i + "]";
      Section section = section(present(given.get(i), at), at, i);
      out.add(tail ? new Section(section.id(), section.name(), section.rules(), true) : section);
    }
    return out;
  }

  private static Section section(SectionDocument document, String path, int number) {
    List<Rule> rules = new ArrayList<>();
    List<RuleDocument> given = document.rules() == null ? List.of() : document.rules();
    for (int i = 0; i < given.size(); i++) {
      String rulePath = path + ".rules[" + i + "]";
      RuleDocument rule = present(given.get(i), rulePath);
      rules.add(rule(rule, rulePath, "s" + (number + 1) + "r" + (i + 1)));
    }
    String id = document.id() == null ? "s" + (number + 1) : document.id();
    boolean tail = Boolean.TRUE.equals(document.tail());
    return Checked.at(path, () -> new Section(id, document.name(), rules, tail));
  }

  /** A rule that has to bring its own id. */
  public static Rule rule(RuleDocument document, String path) {
    return rule(present(document, path), path, null);
  }

  private static Rule rule(RuleDocument document, String path, String idIfNone) {
    Criterion<String> fromZones = names(document.fromZones(), path + ".fromZones");
    Criterion<AddressItem> fromAddresses =
        criterion(document.fromAddresses(), path + ".fromAddresses", AddressItem::parse);
    Criterion<String> toZones = names(document.toZones(), path + ".toZones");
    Criterion<AddressItem> toAddresses =
        criterion(document.toAddresses(), path + ".toAddresses", AddressItem::parse);
    Criterion<ServiceItem> services =
        criterion(document.services(), path + ".services", ServiceItem::parse);
    Map<Coordinate, Criterion<String>> terms = terms(document.terms(), path + ".terms");
    Verdict verdict = word(Verdict.class, document.verdict(), path + ".verdict");
    Opening opening =
        document.opening() == null
            ? Opening.SEALED
            : word(Opening.class, document.opening(), path + ".opening");
    Logging logging =
        document.log() == null ? Logging.OFF : word(Logging.class, document.log(), path + ".log");
    LocalDate start = day(document.start(), path + ".start");
    LocalDate end = day(document.end(), path + ".end");
    List<String> tags = each(document.tags(), path + ".tags", (tag, at) -> tag);
    return Checked.at(
        path,
        () ->
            new Rule(
                document.id() == null ? idIfNone : document.id(),
                document.name(),
                document.enabled() == null || document.enabled(),
                document.unfinished() != null && document.unfinished(),
                document.observeOnly() != null && document.observeOnly(),
                fromZones,
                fromAddresses,
                toZones,
                toAddresses,
                services,
                terms,
                verdict,
                opening,
                logging,
                document.ratePlan(),
                document.notice(),
                document.hold(),
                document.note() == null ? "" : document.note(),
                new Validity(start, end),
                new Ownership(
                    document.owner() == null ? "" : document.owner(),
                    document.ticket() == null ? "" : document.ticket(),
                    tags)));
  }

  /** A day, or null for none. */
  private static LocalDate day(String text, String path) {
    try {
      return text == null ? null : LocalDate.parse(text);
    } catch (DateTimeException e) {
      throw new InvalidDocument(path, "a day such as 2026-12-24", '"' + text + '"');
    }
  }

  public static Zone zone(ObjectDocument document, String path) {
    List<AddressRange> networks =
        each(
            present(document, path).members(),
            path + ".members",
            (text, at) -> Checked.at(at, () -> AddressRange.parse(text)));
    return Checked.at(path, () -> new Zone(document.name(), networks, note(document)));
  }

  public static AddressObject address(ObjectDocument document, String path) {
    List<AddressItem> members =
        each(
            present(document, path).members(),
            path + ".members",
            (text, at) -> Checked.at(at, () -> AddressItem.parse(text)));
    return Checked.at(path, () -> new AddressObject(document.name(), members, note(document)));
  }

  /**
   * @param kind host list, schedule or device state
   */
  public static TermObject terms(ObjectKind kind, ObjectDocument document, String path) {
    List<String> members =
        each(
            present(document, path).members(),
            path + ".members",
            (text, at) ->
                Checked.at(
                    at,
                    () -> {
                      TermObject.check(kind, text);
                      return text;
                    }));
    return Checked.at(path, () -> new TermObject(kind, document.name(), members, note(document)));
  }

  public static ServiceObject service(ObjectDocument document, String path) {
    List<ServiceItem> members =
        each(
            present(document, path).members(),
            path + ".members",
            (text, at) -> Checked.at(at, () -> ServiceItem.parse(text)));
    return Checked.at(path, () -> new ServiceObject(document.name(), members, note(document)));
  }

  private static String note(ObjectDocument document) {
    return document.note() == null ? "" : document.note();
  }

  private static Criterion<String> names(CriterionDocument document, String path) {
    return criterion(document, path, Function.identity());
  }

  private static <T> Criterion<T> criterion(
      CriterionDocument document, String path, Function<String, T> parse) {
    if (document == null) {
      return Criterion.any();
    }
    List<T> items =
        each(
            document.items(),
            path + ".items",
            (text, at) -> Checked.at(at, () -> parse.apply(text)));
    List<T> except =
        each(
            document.except(),
            path + ".except",
            (text, at) -> Checked.at(at, () -> parse.apply(text)));
    return Checked.at(path, () -> new Criterion<>(items, except));
  }

  private static <E extends Enum<E>> E word(Class<E> type, String word, String path) {
    return Arrays.stream(type.getEnumConstants())
        .filter(constant -> constant.name().toLowerCase(Locale.ROOT).equals(word))
        .findFirst()
        .orElseThrow(
            () ->
                new InvalidDocument(
                    path,
                    Arrays.stream(type.getEnumConstants())
                        .map(constant -> constant.name().toLowerCase(Locale.ROOT))
                        .collect(Collectors.joining(", ", "one of ", "")),
                    word == null ? "nothing" : '"' + word + '"'));
  }

  private interface At<D, M> {
    M read(D document, String path);
  }

  private static <D, M> List<M> each(List<D> documents, String path, At<D, M> reader) {
    List<M> out = new ArrayList<>();
    for (int i = 0; documents != null && i < documents.size(); i++) {
      String at = path + "[" + i + "]";
      out.add(reader.read(present(documents.get(i), at), at));
    }
    return out;
  }

  private static <T> T present(T value, String path) {
    if (value == null) {
      throw new InvalidDocument(path, "a value", "null");
    }
    return value;
  }
}
