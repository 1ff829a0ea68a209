package dev.ironsieve.core.model;

import dev.ironsieve.core.sets.AddressSet;
import java.util.Collections;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;

/** One named set of a feed, which rules mean by its name. */
public sealed interface FeedSet {
  String name();

  /** The number of its ranges or hosts. */
  int size();

  /** Its ranges or hosts as text, in order. */
  List<String> members();

  /** The name must not be that of an address object. */
  record Addresses(String name, AddressSet addresses) implements FeedSet {
    public Addresses {
      Names.checkObject("address", name);
    }

    @Override
    public int size() {
      return addresses.ranges().size();
    }

    @Override
    public List<String> members() {
      return addresses.ranges().stream().map(Object::toString).toList();
    }
  }

  /** The name must not be that of a host list. */
  record Hosts(String name, Set<SitePattern> hosts) implements FeedSet {
    public Hosts {
      Names.checkObject("host list", name);
      if (SitePattern.isOne(name)) {
        throw new InvalidModel(
            "host list name", "a name that does not read like a host", Names.quoted(name));
      }
      hosts = Collections.unmodifiableSet(new LinkedHashSet<>(hosts));
    }

    @Override
    public int size() {
      return hosts.size();
    }

    @Override
    public List<String> members() {
      return hosts.stream().map(SitePattern::toString).toList();
    }
  }
}
