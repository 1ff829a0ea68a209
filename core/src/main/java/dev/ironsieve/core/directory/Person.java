package dev.ironsieve.core.directory;

import dev.ironsieve.core.model.InvalidModel;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;

/**
 * One person of a directory.
 *
 * @param id what the directory knows them by, such as a uid; unique, any case
 * @param name what people call them; several may be called the same
 * @param attributes further attributes in the directory: values by attribute, each attribute with
 *     at least one
 */
public record Person(String id, String name, Map<String, List<String>> attributes) {
  private static final int MAX_ATTRIBUTES = 40;
  private static final int MAX_VALUES = 40;

  public Person {
    DirectoryNames.checkId("person id", id);
    DirectoryNames.check("person name", name);
    String place = "person \"" + id + "\"";
    if (attributes.size() > MAX_ATTRIBUTES) {
      throw new InvalidModel(
          place, "at most " + MAX_ATTRIBUTES + " attributes", attributes.size() + "");
    }
    Map<String, List<String>> sorted = new TreeMap<>();
    attributes.forEach(
        (attribute, values) -> {
          DirectoryNames.check(place + ", attribute", attribute);
          if (values.isEmpty() || values.size() > MAX_VALUES) {
            throw new InvalidModel(
                place + ", " + attribute, "1 to " + MAX_VALUES + " values", values.size() + "");
          }
          values.forEach(value -> DirectoryNames.check(place + ", " + attribute, value));
          sorted.put(attribute, List.copyOf(values));
        });
    attributes = Collections.unmodifiableMap(sorted);
  }
}
