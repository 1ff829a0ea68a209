package dev.ironsieve.core.directory;

import java.util.List;

/**
 * One group of a directory.
 *
 * @param id what the directory knows it by; unique, any case
 * @param name what people call it
 * @param people ids of the people who are in it themselves
 * @param groups ids of the groups whose people are in it too
 */
public record Group(String id, String name, List<String> people, List<String> groups) {
  public Group {
    DirectoryNames.checkId("group id", id);
    DirectoryNames.check("group name", name);
    people = List.copyOf(people);
    groups = List.copyOf(groups);
  }
}
