package dev.ironsieve.bench.peers;

import com.microsoft.z3.ArithExpr;
import com.microsoft.z3.BoolExpr;
import com.microsoft.z3.Context;
import com.microsoft.z3.IntSort;
import com.microsoft.z3.Solver;
import com.microsoft.z3.Status;
import dev.ironsieve.core.model.AddressItem;
import dev.ironsieve.core.model.ApplicationFact;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.FeedSet;
import dev.ironsieve.core.model.Names;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.ServiceItem;
import dev.ironsieve.core.model.ServiceLiteral;
import dev.ironsieve.core.model.Vocabulary;
import dev.ironsieve.core.model.Zone;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.sets.Address;
import dev.ironsieve.core.sets.AddressRange;
import dev.ironsieve.core.sets.Family;
import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.sets.Transport;
import java.math.BigInteger;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import java.util.stream.Stream;

/**
 * An SMT solver over whole numbers (Z3; de Moura, Bjørner: Z3: An Efficient SMT Solver, TACAS
 * 2008). Each rule is written down from what people wrote, item by item, without a class of the
 * core's space; each is asked for with the denials of all rules above it.
 */
public final class SolverPeer implements Peer {
  private static final BigInteger WORD = BigInteger.ONE.shiftLeft(Long.SIZE);

  private final Rulebase rulebase;
  private final Context context = new Context();
  private final Solver solver = context.mkSolver();
  private final ArithExpr<IntSort> family = number("family");
  private final End from = new End("from");
  private final End to = new End("to");
  private final ArithExpr<IntSort> protocol = number("protocol");
  private final ArithExpr<IntSort> detail = number("detail");
  private final ArithExpr<IntSort> sourcePort = number("source port");
  private final Map<Coordinate, ArithExpr<IntSort>> terms = new EnumMap<>(Coordinate.class);
  private final Map<Coordinate, Map<String, IntSet>> meanings = new EnumMap<>(Coordinate.class);
  private int next;

  private final class End {
    final ArithExpr<IntSort> zone;
    final ArithExpr<IntSort> address;

    End(String name) {
      zone = number(name + " zone");
      address = number(name + " address");
    }
  }

  public SolverPeer(Rulebase rulebase) {
    this.rulebase = rulebase;
    for (Vocabulary vocabulary : rulebase.vocabularies()) {
      Coordinate coordinate = vocabulary.coordinate();
      terms.put(coordinate, number(coordinate.word()));
      meanings.put(coordinate, vocabulary.meanings());
      add(between(terms.get(coordinate), 0, vocabulary.values().size() - 1));
    }
    add(between(family, 0, 1));
    add(between(protocol, 0, Transport.MAX_PROTOCOL));
    add(between(detail, 0, Transport.MAX_DETAIL));
    add(between(sourcePort, 0, Transport.MAX_DETAIL));
    List<BoolExpr> plain = new ArrayList<>();
    for (int number = 0; number <= Transport.MAX_PROTOCOL; number++) {
      if (Transport.maxDetail(number) == 0) {
        plain.add(is(protocol, number));
      }
    }
    add(context.mkImplies(any(plain), is(detail, 0)));
    for (End end : List.of(from, to)) {
      List<BoolExpr> whole = new ArrayList<>();
      for (Family each : Family.values()) {
        whole.add(in(AddressRange.all(each), end));
      }
      add(any(whole));
      feasible(end);
    }
  }

  private void feasible(End end) {
    List<Zone> zones = rulebase.zones();
    add(between(end.zone, 0, Math.max(0, zones.size() - 1)));
    for (int i = 0; i < zones.size(); i++) {
      List<BoolExpr> networks =
          zones.get(i).networks().stream().map(range -> in(range, end)).toList();
      if (!networks.isEmpty()) {
        add(context.mkImplies(is(end.zone, i), any(networks)));
      }
    }
  }

  @Override
  public Answer next() {
    Rule rule = rulebase.rules().get(next++);
    if (!rule.enabled()) {
      return Answer.DOES_NOT;
    }
    BoolExpr holds = holds(rule);
    solver.push();
    add(holds);
    Status status = solver.check();
    solver.pop();
    add(context.mkNot(holds));
    return switch (status) {
      case SATISFIABLE -> Answer.DECIDES;
      case UNSATISFIABLE -> Answer.DOES_NOT;
      case UNKNOWN -> Answer.GAVE_UP;
    };
  }

  @Override
  public void close() {
    context.close();
  }

  private BoolExpr holds(Rule rule) {
    List<BoolExpr> all = new ArrayList<>();
    all.add(criterion(rule.fromZones(), name -> is(from.zone, zone(name))));
    all.add(criterion(rule.fromAddresses(), item -> in(item, from)));
    all.add(criterion(rule.toZones(), name -> is(to.zone, zone(name))));
    all.add(criterion(rule.toAddresses(), item -> in(item, to)));
    all.add(criterion(rule.services(), this::in));
    rule.terms()
        .forEach(
            (coordinate, criterion) ->
                all.add(criterion(criterion, name -> means(coordinate, name))));
    return context.mkAnd(all.toArray(BoolExpr[]::new));
  }

  private <T> BoolExpr criterion(Criterion<T> criterion, Function<T, BoolExpr> item) {
    BoolExpr in =
        criterion.items().isEmpty()
            ? context.mkTrue()
            : any(criterion.items().stream().map(item).toList());
    BoolExpr out = any(criterion.except().stream().map(item).toList());
    return allOf(in, context.mkNot(out));
  }

  private int zone(String name) {
    for (int i = 0; i < rulebase.zones().size(); i++) {
      if (rulebase.zones().get(i).name().equalsIgnoreCase(name)) {
        return i;
      }
    }
    throw new IllegalStateException("no zone " + name);
  }

  private BoolExpr in(AddressItem item, End end) {
    return switch (item) {
      case AddressItem.Literal literal -> in(literal.range(), end);
      case AddressItem.Named named ->
          any(
              Stream.concat(
                      rulebase.addresses().stream()
                          .filter(object -> object.name().equalsIgnoreCase(named.name()))
                          .flatMap(object -> object.members().stream())
                          .map(member -> in(member, end)),
                      rulebase.feeds().stream()
                          .map(feed -> feed.set(named.name()))
                          .filter(FeedSet.Addresses.class::isInstance)
                          .flatMap(set -> ((FeedSet.Addresses) set).addresses().ranges().stream())
                          .map(range -> in(range, end)))
                  .toList());
    };
  }

  private BoolExpr in(AddressRange range, End end) {
    return allOf(
        is(family, range.family().ordinal()),
        context.mkGe(end.address, context.mkInt(number(range.first()).toString())),
        context.mkLe(end.address, context.mkInt(number(range.last()).toString())));
  }

  private BoolExpr in(ServiceItem item) {
    return switch (item) {
      case ServiceLiteral literal ->
          allOf(
              is(protocol, literal.protocol()),
              between(detail, literal.firstDetail(), literal.lastDetail()),
              Transport.hasPorts(literal.protocol())
                  ? between(sourcePort, literal.firstSource(), literal.lastSource())
                  : context.mkTrue());
      case ServiceItem.UsualPorts usual -> usualPorts();
      case ServiceItem.Named named ->
          any(
              rulebase.services().stream()
                  .filter(object -> object.name().equalsIgnoreCase(named.name()))
                  .flatMap(object -> object.members().stream())
                  .map(this::in)
                  .toList());
    };
  }

  private BoolExpr usualPorts() {
    List<BoolExpr> out = new ArrayList<>();
    for (Vocabulary vocabulary : rulebase.vocabularies()) {
      for (ApplicationFact fact : vocabulary.applications()) {
        BoolExpr listens = any(fact.ports().stream().map(this::in).toList());
        out.add(allOf(among(vocabulary.coordinate(), fact.uses()), listens));
      }
    }
    return any(out);
  }

  private BoolExpr means(Coordinate coordinate, String name) {
    return among(coordinate, meanings.get(coordinate).get(Names.key(name)));
  }

  private BoolExpr among(Coordinate coordinate, IntSet values) {
    List<BoolExpr> out = new ArrayList<>();
    for (int i = 0; i < values.intervals(); i++) {
      out.add(between(terms.get(coordinate), values.first(i), values.last(i)));
    }
    return any(out);
  }

  private static BigInteger number(Address address) {
    return unsigned(address.high()).multiply(WORD).add(unsigned(address.low()));
  }

  private static BigInteger unsigned(long bits) {
    return new BigInteger(Long.toUnsignedString(bits));
  }

  private ArithExpr<IntSort> number(String name) {
    return context.mkIntConst(name);
  }

  private BoolExpr is(ArithExpr<IntSort> number, int value) {
    return context.mkEq(number, context.mkInt(value));
  }

  private BoolExpr between(ArithExpr<IntSort> number, int first, int last) {
    return allOf(
        context.mkGe(number, context.mkInt(first)), context.mkLe(number, context.mkInt(last)));
  }

  private void add(BoolExpr holds) {
    solver.add(new BoolExpr[] {holds});
  }

  private BoolExpr allOf(BoolExpr... all) {
    return context.mkAnd(all);
  }

  private BoolExpr any(List<BoolExpr> alternatives) {
    return context.mkOr(alternatives.toArray(BoolExpr[]::new));
  }
}
