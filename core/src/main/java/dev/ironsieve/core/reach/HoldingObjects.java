package dev.ironsieve.core.reach;

import dev.ironsieve.core.model.AddressItem;
import dev.ironsieve.core.model.AddressObject;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.ServiceLiteral;
import dev.ironsieve.core.model.ServiceObject;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.sets.AddressSet;
import dev.ironsieve.core.sets.TransportSet;
import dev.ironsieve.core.space.Resolution;
import java.util.List;

/**
 * Finds the objects of a rulebase that hold an address or a service, also through other objects.
 * The resolution is that of the rulebase.
 */
public final class HoldingObjects {
  private HoldingObjects() {}

  /** The names of the address objects that hold all of some addresses. O(objects · ranges). */
  public static List<String> withAddresses(
      Rulebase rulebase, Resolution resolution, AddressItem.Literal literal) {
    AddressSet wanted = AddressSet.of(literal.range());
    return rulebase.addresses().stream()
        .map(AddressObject::name)
        .filter(
            name ->
                resolution.addresses(Criterion.of(new AddressItem.Named(name))).containsAll(wanted))
        .toList();
  }

  /** The names of the service objects that hold all of some services. O(objects · parts). */
  public static List<String> withServices(
      Rulebase rulebase, Resolution resolution, ServiceLiteral literal) {
    TransportSet wanted = literal.set();
    return rulebase.services().stream()
        .map(ServiceObject::name)
        .filter(name -> wanted.minus(resolution.servicesOf(name)).isEmpty())
        .toList();
  }
}
