package dev.ironsieve.core.analysis;

import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.InvalidModel;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Rulebase;
import dev.ironsieve.core.order.Order;
import dev.ironsieve.core.space.Box;
import dev.ironsieve.core.space.Resolution;
import java.time.LocalDate;
import java.util.Arrays;
import java.util.BitSet;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.IntFunction;
import java.util.stream.IntStream;
import java.util.stream.Stream;

/**
 * Everything that follows from the rules of one rulebase alone, kept up to date through edits:
 * after an edit only those answers are worked out again whose certificate the edit touches. Not
 * safe for use by several threads at once.
 */
public final class LiveAnalysis {
  /** Steps for each question about a rule; a step is one comparison of a box with another. */
  public static final long STEPS = 200_000;

  /** An update that takes away and brings more rules than these is quicker done from the start. */
  private static final int MOST_CHANGES = 200;

  private static final int[] NOBODY = {};

  private final long steps;
  private final LocalDate day;
  private Rulebase rulebase;
  private Order order;
  private Certificates certificates;
  private View.Maker maker;
  private Map<Integer, View> views;
  private Reaches reaches;

  public LiveAnalysis(Rulebase rulebase) {
    this(rulebase, STEPS);
  }

  /**
   * @param steps budget for each question about a rule
   */
  public LiveAnalysis(Rulebase rulebase, long steps) {
    this(rulebase, steps, null);
  }

  /**
   * @param day today by the gateway's clock: only times from then on count; null for ever
   */
  public LiveAnalysis(Rulebase rulebase, LocalDate day) {
    this(rulebase, STEPS, day);
  }

  private LiveAnalysis(Rulebase rulebase, long steps, LocalDate day) {
    this.steps = steps;
    this.day = day;
    start(rulebase);
  }

  private void start(Rulebase next) {
    Order laidOut = new Order(next, day);
    Certificates fresh = new Certificates(laidOut, steps);
    rulebase = next;
    order = laidOut;
    certificates = fresh;
    maker = maker();
    views = new HashMap<>();
    reaches = new Reaches(order, certificates);
  }

  private View.Maker maker() {
    return new View.Maker(order, certificates, steps, rulebase.handling().breadth());
  }

  public Rulebase rulebase() {
    return rulebase;
  }

  /** Today by the gateway's clock; null for ever. */
  public LocalDate day() {
    return day;
  }

  /** The rules as they are laid out here; changes with every update. */
  public Order order() {
    return order;
  }

  private int slot(String id) {
    int slot = order.slot(id);
    if (slot == Order.NONE) {
      throw new IllegalArgumentException("no rule has the id " + id);
    }
    return slot;
  }

  /** Works out all that may be asked about each rule, on several threads, before it is asked. */
  public void answerAll() {
    makeMissing();
    reaches.answerAll();
  }

  private View view(int slot) {
    return views.computeIfAbsent(slot, maker::of);
  }

  /** Where a rule stands, by its id. */
  public Standing standing(String id) {
    return view(slot(id)).standing();
  }

  /** Where every rule stands, by its id, in the rules' order. */
  public Map<String, Standing> standings() {
    makeMissing();
    Map<String, Standing> out = new LinkedHashMap<>();
    for (int i = 0; i < order.size(); i++) {
      int slot = order.slotAt(i);
      out.put(order.rule(slot).id(), view(slot).standing());
    }
    return out;
  }

  /** The findings about a rule, by its id. */
  public List<Finding> findings(String id) {
    return view(slot(id)).findings();
  }

  /** All findings, in the rules' order. */
  public List<Finding> findings() {
    int[] slots = IntStream.range(0, order.size()).map(order::slotAt).toArray();
    return each(slots, this::findings).flatMap(List::stream).toList();
  }

  private List<Finding> findings(int slot) {
    View view = views.get(slot);
    return view == null ? maker.findings(slot) : view.findings();
  }

  /**
   * The other rules of a pair-wise finding.
   *
   * @param rules their ids, in the rules' order
   * @param complete whether these are all; if not, the budget left others open
   */
  public record Partners(List<String> rules, boolean complete) {}

  /**
   * All earlier rules with which a rule is correlated, or which it generalises.
   *
   * @param kind {@code CORRELATED} or {@code GENERALISED}
   */
  public Partners partners(String id, Finding.Kind kind) {
    if (kind != Finding.Kind.CORRELATED && kind != Finding.Kind.GENERALISED) {
      throw new IllegalArgumentException("no partners for " + kind);
    }
    Pairs.Partners found = certificates.partners(slot(id), kind == Finding.Kind.GENERALISED);
    return new Partners(
        found.slots().stream().map(slot -> order.rule(slot).id()).toList(), found.complete());
  }

  /** What becomes of a rule at every other place in the order. */
  public Slots slots(String id) {
    return certificates.slots(slot(id));
  }

  /**
   * How much of a rule's match no earlier rule takes. Exact at 0 and, where no earlier rule touches
   * the match, at 1; else from a sample that is smaller the more rules there are. It follows from
   * the rules as they are, not from how they came about.
   */
  public Reach reach(String id) {
    return reaches.of(slot(id));
  }

  /**
   * What an update changed.
   *
   * @param answers ids of rules whose standing or findings are new or others than before
   * @param reaches ids of rules of whose match more or less may get through than before; of a few
   *     rules also of those whose sample is another because other values are told apart
   */
  public record Changed(Set<String> answers, Set<String> reaches) {}

  /**
   * Takes over the next state of the rulebase. If that throws, this has the state before.
   *
   * @param moved ids of rules whose place among the others may have changed
   */
  public Changed update(Rulebase next, Set<String> moved) {
    Rulebase before = rulebase;
    try {
      return updated(next, moved);
    } catch (RuntimeException | StackOverflowError e) {
      boolean interrupted = Thread.interrupted();
      start(before); // whatever was taken over half way
      if (interrupted) {
        Thread.currentThread().interrupt();
      }
      throw e;
    }
  }

  private Changed updated(Rulebase next, Set<String> moved) {
    if (views.size() < order.size()) {
      makeMissing(); // what is told after the update is compared with what was told before it
    }
    if (!next.handling().breadth().equals(rulebase.handling().breadth())) {
      return startAgain(next);
    }
    if (!next.tellsApartAsIn(rulebase)) {
      return updateNames(next, moved);
    }
    Order.Change change = change(next(next, moved));
    if (change == null) {
      return startAgain(next);
    }
    rulebase = next;
    List<Event> events = Event.of(change, order);
    BitSet asked = certificates.update(change, events);
    addNeighbours(change, events, asked);
    addOutdated(events, asked);
    Set<Integer> met = slotsWhoseReachMayChange(change, events);
    Set<String> reachable = ids(met);
    reachable.addAll(ids(reaches.update(change, met)));
    Map<String, View> gone = new HashMap<>();
    for (int slot : change.gone().keySet()) {
      View view = views.remove(slot);
      if (view != null) {
        gone.put(order.rule(slot).id(), view);
      }
    }
    Set<String> changed = new LinkedHashSet<>();
    int[] slots = asked.stream().toArray();
    View[] made = views(slots);
    for (int i = 0; i < slots.length; i++) {
      String id = order.rule(slots[i]).id();
      View was = views.put(slots[i], made[i]);
      if (!made[i].equals(was == null ? gone.get(id) : was)) {
        changed.add(id);
      }
    }
    return new Changed(changed, reachable);
  }

  /** What is to be told of some rules now. */
  private View[] views(int[] slots) {
    return each(slots, maker::of).toArray(View[]::new);
  }

  /** Something of some rules, in their order; on several threads if they are many. */
  private static <T> Stream<T> each(int[] slots, IntFunction<T> what) {
    IntStream all = Arrays.stream(slots);
    return (slots.length < Certificates.MANY ? all : all.parallel()).mapToObj(what);
  }

  /** The next state of the rules for the order; its addresses and services may be others. */
  private Order.Next next(Rulebase next, Set<String> moved) {
    if (next.namesMeanAsIn(rulebase)) {
      return order.next(next.rules(), moved);
    }
    return next(next.rules(), moved, new Resolution(next, order.resolution()));
  }

  private Order.Next next(List<Rule> rules, Set<String> moved, Resolution names) {
    return new Order.Next(rules, moved, names, names.sayingOthers(rules, order.resolution()));
  }

  /**
   * Takes over the next state of the rules into the order.
   *
   * @return null if that is quicker done from the start
   */
  private Order.Change change(Order.Next next) {
    Order.Change change = order.update(next);
    if (change == null && changed(next.rules()) + next.others().size() <= MOST_CHANGES) {
      change = updateWithMoreRoom(next);
    }
    return change == null || change.gone().size() + change.fresh().size() > MOST_CHANGES
        ? null
        : change;
  }

  /** Spreads the classes again, and lays the rules out anew if that does not do. */
  private Order.Change updateWithMoreRoom(Order.Next next) {
    Order.Anew spread = order.spread();
    if (spread != null) {
      move(spread);
      Order.Change change = order.update(next);
      if (change != null) {
        return change;
      }
    }
    move(order.anew(next));
    return order.update(next);
  }

  /** How many rules are not there yet as they are now; O(rules). */
  private long changed(List<Rule> next) {
    return next.stream()
        .filter(rule -> order.slot(rule.id()) == Order.NONE || order.rule(slot(rule.id())) != rule)
        .count();
  }

  /** Takes over the same rules laid out anew; all else stays. */
  void move(Order.Anew anew) {
    Move move = new Move(order, anew);
    order = move.to();
    certificates = new Certificates(certificates, move, steps);
    maker = maker();
    Map<Integer, View> known = views;
    views = new HashMap<>();
    known.forEach((slot, view) -> views.put(move.slot(slot), view));
    reaches = new Reaches(reaches, move, certificates);
  }

  private Changed startAgain(Rulebase next) {
    Map<String, View> before = viewsById();
    start(next);
    return told(before);
  }

  /** Takes over a state in which rules or objects say other names. */
  private Changed updateNames(Rulebase next, Set<String> moved) {
    Map<String, View> before = viewsById();
    Set<String> reachable = null;
    if (next.hasSourcesOf(rulebase) && changed(next.rules()) <= MOST_CHANGES) {
      reachable = follow(next, moved);
    }
    if (reachable == null) {
      start(next);
    }
    Changed changed = told(before);
    return reachable == null || Reaches.areFew(order)
        ? changed
        : new Changed(changed.answers(), reachable);
  }

  /**
   * Follows rules and objects that say other hosts, times or states of devices: tells apart what is
   * said before and after, takes over the rules, and leaves what is said no longer. What is to be
   * told of rules is left out where it may be otherwise.
   *
   * @param next with the same sources
   * @return ids of rules of whose match more or less may get through than before; null if it was
   *     not possible, then some of it may have been done
   */
  Set<String> follow(Rulebase next, Set<String> moved) {
    Rulebase was = next; // the rules that there are, telling apart also what is to be said
    Rulebase is = next; // the next rules, telling apart also what was said
    try {
      if (!next.hasObjectsOf(rulebase)) {
        was = rulebase.tellingApart(next);
        is = next.tellingApart(rulebase);
      } else if (rulebase.saysAllOf(next)) {
        was = rulebase;
      } else if (!next.saysAllOf(rulebase)) {
        was = next.tellingApart(rulebase);
      }
    } catch (InvalidModel e) {
      return null; // too much to tell apart at once
    }
    reaches = new Reaches(order, certificates); // since values may stand in another order
    if (was != rulebase && !moveIn(was)) {
      return null;
    }
    Resolution names = is == next ? order.resolution() : new Resolution(is, order.resolution());
    if (!names.tellsApartAsIn(order.resolution())) {
      return null;
    }
    Order.Change change = change(next(next.rules(), moved, names));
    if (change == null) {
      return null;
    }
    List<Event> events = Event.of(change, order);
    BitSet asked = certificates.update(change, events);
    addNeighbours(change, events, asked);
    addOutdated(events, asked);
    Set<String> reachable = ids(slotsWhoseReachMayChange(change, events));
    asked.stream().forEach(views::remove);
    change.gone().keySet().forEach(views::remove);
    if ((was != next || is != next) && !moveIn(next)) {
      return null;
    }
    certificates.askNeeds().stream().forEach(views::remove);
    rulebase = next;
    return reachable;
  }

  /**
   * Lays the rules out where names are those of another rulebase.
   *
   * @return whether that is possible
   */
  private boolean moveIn(Rulebase names) {
    Order before = order;
    Order.Anew anew = before.in(names);
    if (anew == null) {
      return false;
    }
    move(anew);
    Map<Integer, View> kept = new ConcurrentHashMap<>();
    views.entrySet().parallelStream()
        .filter(view -> view.getValue().witnesses().allMatch(w -> isSame(w, before, anew)))
        .forEach(view -> kept.put(view.getKey(), view.getValue()));
    views = new HashMap<>(kept);
    return true;
  }

  /** Whether a connection is still one of those that it stood for. */
  private static boolean isSame(Connection connection, Order before, Order.Anew anew) {
    int[] was = before.space().point(connection);
    int[] is = anew.order().space().point(connection);
    return was != null && is != null && Arrays.equals(anew.points().apply(was), is);
  }

  private Set<String> ids(Set<Integer> slots) {
    Set<String> out = new LinkedHashSet<>();
    slots.forEach(slot -> out.add(order.rule(slot).id()));
    return out;
  }

  private Map<String, View> viewsById() {
    Map<String, View> out = new HashMap<>();
    views.forEach((slot, view) -> out.put(order.rule(slot).id(), view));
    return out;
  }

  /**
   * Makes what is to be told of rules where it is left out.
   *
   * @return slots of these rules
   */
  private int[] makeMissing() {
    int[] slots =
        IntStream.range(0, order.size())
            .map(order::slotAt)
            .filter(slot -> !views.containsKey(slot))
            .toArray();
    View[] made = views(slots);
    for (int i = 0; i < slots.length; i++) {
      views.put(slots[i], made[i]);
    }
    return slots;
  }

  /**
   * Makes what is to be told of rules where it is left out, and tells what is other than before.
   */
  private Changed told(Map<String, View> before) {
    Set<String> changed = new LinkedHashSet<>();
    for (int slot : makeMissing()) {
      String id = order.rule(slot).id();
      if (!views.get(slot).equals(before.get(id))) {
        changed.add(id);
      }
    }
    Set<String> all = new LinkedHashSet<>();
    rulebase.rules().forEach(rule -> all.add(rule.id()));
    return new Changed(changed, all);
  }

  /** Whether two rules can be merged hangs on what stands next to each other. */
  private void addNeighbours(Order.Change change, List<Event> events, BitSet asked) {
    Set<Integer> places = new HashSet<>();
    events.forEach(event -> places.add(event.place()));
    change.reworded().forEach(slot -> places.add(order.position(slot)));
    for (int place : places) {
      int above = Math.min(place, order.size()) - 1;
      while (above >= 0 && !order.rule(order.slotAt(above)).isInForce()) {
        above--;
      }
      if (above >= 0) {
        asked.set(order.slotAt(above));
      }
      if (place < order.size()) {
        asked.set(order.slotAt(place));
      }
    }
  }

  /**
   * A new rule may cut a class in two, and then a connection that was told as an example may lie in
   * the half that the new rule takes, although the certificate's point does not.
   */
  private void addOutdated(List<Event> events, BitSet asked) {
    for (Event event : events) {
      List<Box> region = order.region(event.slot());
      for (int slot : event.fresh() ? event.meeting() : NOBODY) {
        View view = views.get(slot);
        if (view != null && view.witnesses().anyMatch(w -> order.space().mayHold(region, w))) {
          asked.set(slot);
        }
      }
    }
  }

  private Set<Integer> slotsWhoseReachMayChange(Order.Change change, List<Event> events) {
    Set<Integer> out = new LinkedHashSet<>(change.fresh());
    int first = order.size();
    for (int slot : change.fresh()) {
      first = Math.min(first, order.position(slot));
    }
    for (int place : change.gone().values()) {
      first = Math.min(first, place);
    }
    for (Event event : events) {
      for (int slot : event.meeting()) {
        if (order.position(slot) >= first) {
          out.add(slot);
        }
      }
    }
    return out;
  }
}
