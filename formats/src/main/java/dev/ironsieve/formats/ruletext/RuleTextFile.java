package dev.ironsieve.formats.ruletext;

import dev.ironsieve.core.model.InvalidModel;
import dev.ironsieve.core.model.Names;
import dev.ironsieve.core.model.ObjectKind;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Section;
import dev.ironsieve.core.model.Zone;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.sets.InvalidText;
import dev.ironsieve.core.text.RuleText;
import dev.ironsieve.formats.Fault;
import dev.ironsieve.formats.InvalidDocument;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * The rules of a rulebase as a text file: a rule in each line, as {@link RuleText} writes it;
 * {@code section "Name"} begins a section, {@code #} a remark.
 *
 * <pre>
 *   # asked for by the harbour master
 *   section "Ticket sales"
 *   allow "Kiosks sell tickets" from Kiosks in terminals to in booking service tcp/443
 * </pre>
 *
 * The file has no objects: those that the rules name are of another rulebase. Zones alone may be
 * missing there, and have any address then.
 */
public final class RuleTextFile {
  private static final String SECTION = "section ";
  private static final int MOST_FAULTS = 20;

  private RuleTextFile() {}

  /** Whether a file may be one: it does not begin as JSON does. */
  public static boolean looksLikeOne(byte[] file) {
    for (byte b : file) {
      if (!Character.isWhitespace(b)) {
        return b != '{' && b != '[' && b != (byte) 0xef; // the last begins a byte order mark
      }
    }
    return false;
  }

  /** The lines of a rulebase's rules; the rules that it has from a common one are among them. */
  public static List<String> write(Rulebase rulebase) {
    List<String> out = new ArrayList<>();
    for (Section section : rulebase.sections()) {
      if (!out.isEmpty()) {
        out.add("");
      }
      out.add(SECTION + '"' + section.name().replace("\\", "\\\\").replace("\"", "\\\"") + '"');
      section.rules().forEach(rule -> out.add(RuleText.format(rule)));
    }
    return out;
  }

  /**
   * Reads a file.
   *
   * @param name of the rulebase
   * @param objects the rulebase whose zones, objects and editions the rules name; its own rules and
   *     checks are left out
   * @throws InvalidDocument with the line and the character of each fault
   */
  public static Rulebase read(byte[] file, String name, Rulebase objects) {
    List<Fault> faults = new ArrayList<>();
    List<Section> sections = new ArrayList<>();
    List<Rule> inside = new ArrayList<>();
    String title = "Rules";
    int number = 0;
    int rules = 0;
    for (String line : new String(file, StandardCharsets.UTF_8).lines().toList()) {
      number++;
      String text = line.strip();
      if (text.isEmpty() || text.startsWith("#") || faults.size() == MOST_FAULTS) {
        continue;
      }
      try {
        if (text.startsWith(SECTION)) {
          String next = title(text);
          if (rules > 0 || !sections.isEmpty() || !inside.isEmpty()) {
            sections.add(new Section("s" + sections.size(), title, inside));
            inside = new ArrayList<>();
          }
          title = next;
        } else {
          inside.add(RuleText.parse(line, "r" + ++rules));
        }
      } catch (InvalidText e) {
        String place = "line %d, character %d".formatted(number, e.offset() + 1);
        faults.add(new Fault(place, e.expected(), e.found()));
      } catch (InvalidModel e) {
        faults.add(new Fault("line " + number, e.expected(), e.found()));
      }
    }
    sections.add(new Section("s" + sections.size(), title, inside));
    if (faults.isEmpty()) {
      try {
        return withZones(objects.withChecks(List.of()), sections)
            .named(name)
            .withSections(sections);
      } catch (InvalidModel e) {
        faults.add(new Fault(e.place(), e.expected(), e.found()));
      }
    }
    throw new InvalidDocument(faults);
  }

  private static String title(String line) {
    String quoted = line.substring(SECTION.length()).strip();
    boolean closed = quoted.length() > 1 && quoted.startsWith("\"") && quoted.endsWith("\"");
    if (!closed) {
      throw new InvalidText(SECTION.length(), "the name of the section in quotes", quoted);
    }
    return Names.checkTitle(
        "section",
        quoted.substring(1, quoted.length() - 1).replace("\\\"", "\"").replace("\\\\", "\\"));
  }

  /** The rulebase with the zones that the rules name and it lacks, and without rules. */
  private static Rulebase withZones(Rulebase objects, List<Section> sections) {
    Map<String, Zone> zones = new LinkedHashMap<>();
    objects.zones().forEach(zone -> zones.put(Names.key(zone.name()), zone));
    for (Section section : sections) {
      for (Rule rule : section.rules()) {
        for (String zone : ObjectKind.ZONE.namesIn(rule)) {
          zones.putIfAbsent(Names.key(zone), new Zone(zone, List.of(), ""));
        }
      }
    }
    List<Section> none = List.of(new Section("none", "None", List.of()));
    return objects.with(List.copyOf(zones.values()), objects.addresses(), objects.services(), none);
  }
}
