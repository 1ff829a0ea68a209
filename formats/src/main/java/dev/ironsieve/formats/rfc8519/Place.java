package dev.ironsieve.formats.rfc8519;

import com.fasterxml.jackson.databind.JsonNode;
import dev.ironsieve.formats.InvalidDocument;
import java.util.ArrayList;
import java.util.Iterator;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/** A value of a document together with its JSON path. Members may carry the module's name. */
record Place(JsonNode node, String path) {
  static final String MODULE = "ietf-access-control-list:";

  /** The member {@code name}, with or without the module's name before it. */
  Optional<Place> member(String name) {
    for (String key : List.of(name, MODULE + name)) {
      if (node.has(key)) {
        return Optional.of(new Place(node.get(key), path + "." + key));
      }
    }
    return Optional.empty();
  }

  Place required(String name) {
    return member(name)
        .orElseThrow(() -> new InvalidDocument(path, "a member \"" + name + "\"", "none"));
  }

  /** This, if it is an object with no members but {@code known}. */
  Place object(Set<String> known) {
    if (!node.isObject()) {
      throw new InvalidDocument(path, "an object", shown());
    }
    for (Iterator<String> names = node.fieldNames(); names.hasNext(); ) {
      String key = names.next();
      String name = key.startsWith(MODULE) ? key.substring(MODULE.length()) : key;
      if (!known.contains(name)) {
        throw new InvalidDocument(
            path + "." + key, "one of " + String.join(", ", known.stream().sorted().toList()), key);
      }
    }
    return this;
  }

  List<Place> array() {
    if (!node.isArray()) {
      throw new InvalidDocument(path, "an array", shown());
    }
    List<Place> out = new ArrayList<>();
    for (int i = 0; i < node.size(); i++) {
      out.add(new Place(node.get(i), path + "[" + i + "]"));
    }
    return out;
  }

  String text() {
    if (!node.isTextual()) {
      throw new InvalidDocument(path, "text", shown());
    }
    return node.asText();
  }

  /** The name of an identity, without the module's name. */
  String identity() {
    String text = text();
    return text.startsWith(MODULE) ? text.substring(MODULE.length()) : text;
  }

  /** A whole number from 0 to {@code most}. */
  int number(int most) {
    boolean fits = node.isIntegralNumber() && node.canConvertToInt();
    if (!fits || node.asInt() < 0 || node.asInt() > most) {
      throw new InvalidDocument(path, "a whole number from 0 to " + most, shown());
    }
    return node.asInt();
  }

  String shown() {
    if (node.isObject()) {
      return "an object";
    }
    if (node.isArray()) {
      return "an array";
    }
    String text = node.toString();
    return text.length() > 80 ? text.substring(0, 80) + "…" : text;
  }
}
