package dev.ironsieve.core.space;

import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.Names;
import dev.ironsieve.core.model.ServiceItem;
import dev.ironsieve.core.model.ServiceLiteral;
import dev.ironsieve.core.model.ServiceObject;
import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.sets.TransportSet;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;

/** Looks up service objects by name. */
final class ServiceNames extends ObjectNames<ServiceItem, List<ResolvedMatch.ServiceConjunct>> {
  private static final ServiceItem USUAL_PORTS = new ServiceItem.UsualPorts();

  private final List<ServiceObject> objects;
  private final ApplicationNames applications;
  private final Map<String, TransportSet> resolved = new ConcurrentHashMap<>(); // by key

  /**
   * @param like of another state with the same applications, or null; if it was made of the same
   *     objects it is returned
   */
  static ServiceNames of(
      List<ServiceObject> objects, ApplicationNames applications, ServiceNames like) {
    return like != null && like.objects == objects
        ? like
        : new ServiceNames(objects, applications, like);
  }

  private ServiceNames(
      List<ServiceObject> objects, ApplicationNames applications, ServiceNames like) {
    super(
        ServiceNames::name,
        byKey(objects, ServiceObject::name, object -> object),
        byKey(objects, ServiceObject::name, ServiceObject::members),
        like);
    this.objects = objects;
    this.applications = applications;
  }

  private static String name(ServiceItem item) {
    return item instanceof ServiceItem.Named named ? named.name() : null;
  }

  /** The services of a criterion: any one of these. */
  List<ResolvedMatch.ServiceConjunct> set(Criterion<ServiceItem> criterion) {
    return criterion.isAny() ? ResolvedMatch.ServiceConjunct.ALL : known(criterion);
  }

  /**
   * The services of a criterion. Usual ports depend on the application:
   *
   * <pre>
   *   any application              the other items, less the other exceptions
   *   applications on ports P      P, less what is there already and the other exceptions
   * </pre>
   *
   * and with usual ports as an exception, on every port that is usual for some application:
   *
   * <pre>
   *   any application              ports that are usual for no application
   *   applications on ports P      ports that are usual for some application, less P
   * </pre>
   *
   * An unidentified application belongs to neither kind in the lower lines.
   */
  @Override
  List<ResolvedMatch.ServiceConjunct> worked(Criterion<ServiceItem> criterion) {
    TransportSet out = services(criterion.except());
    TransportSet in = criterion.items().isEmpty() ? TransportSet.ALL : services(criterion.items());
    TransportSet always = in.minus(out);
    Map<TransportSet, IntSet> byPorts = applications.byUsualPorts();
    List<ResolvedMatch.ServiceConjunct> all = new ArrayList<>();
    if (criterion.except().contains(USUAL_PORTS)) {
      TransportSet usual = TransportSet.EMPTY;
      IntSet others = applications.all();
      for (Map.Entry<TransportSet, IntSet> entry : byPorts.entrySet()) {
        usual = usual.union(entry.getKey());
        others = others.minus(entry.getValue());
      }
      TransportSet never = always.minus(usual);
      TransportSet hanging = always.minus(never);
      add(all, never, null);
      byPorts.forEach((ports, uses) -> add(all, hanging.minus(ports), uses));
      add(all, hanging, others);
    } else {
      add(all, always, null);
      if (criterion.items().contains(USUAL_PORTS)) {
        byPorts.forEach((ports, uses) -> add(all, ports.minus(out).minus(always), uses));
      }
    }
    return List.copyOf(all);
  }

  private static void add(
      List<ResolvedMatch.ServiceConjunct> out, TransportSet services, IntSet applications) {
    if (!services.isEmpty() && (applications == null || !applications.isEmpty())) {
      out.add(new ResolvedMatch.ServiceConjunct(services, applications));
    }
  }

  private TransportSet services(List<ServiceItem> items) {
    TransportSet out = TransportSet.EMPTY;
    for (ServiceItem item : items) {
      out =
          out.union(
              switch (item) {
                case ServiceLiteral literal -> literal.set();
                case ServiceItem.UsualPorts usual -> TransportSet.EMPTY; // see above
                case ServiceItem.Named named -> resolved(Names.key(named.name()));
              });
    }
    return out;
  }

  /** The services of an object, by its name. */
  TransportSet of(String name) {
    return resolved(Names.key(name));
  }

  /** The services of an object; each object is resolved once. */
  private TransportSet resolved(String key) {
    TransportSet known = resolved.get(key);
    if (known == null) {
      known = services(members(key));
      resolved.put(key, known);
    }
    return known;
  }
}
