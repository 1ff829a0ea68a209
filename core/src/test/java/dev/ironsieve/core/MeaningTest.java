package dev.ironsieve.core;

import static org.assertj.core.api.Assertions.assertThat;

import dev.ironsieve.core.analysis.Finding;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.MatchResult;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;

/** The table of docs/meaning.md names an existing class for each paragraph and each finding. */
class MeaningTest {
  private static final Pattern PARAGRAPH = Pattern.compile("(?m)^\\*\\*(.+?)\\.?\\*\\*");
  private static final Pattern ROW = Pattern.compile("(?m)^\\| ([^|]+) \\| (`[^|]+`) \\|$");
  private static final Pattern FINDING =
      Pattern.compile("(?m)^\\| ([^|]+) \\|[^|]+\\| (error|warning|note) \\|$");

  private final String text;
  private final Map<String, String> classes = new LinkedHashMap<>();

  MeaningTest() throws IOException {
    text = Files.readString(Path.of("../docs/meaning.md"));
    ROW.matcher(text).results().forEach(row -> classes.put(row.group(1), row.group(2)));
  }

  @Test
  void everyParagraphAndFindingHasARowAndNothingElseHasOne() {
    List<String> expected = new ArrayList<>();
    for (MatchResult paragraph : PARAGRAPH.matcher(text).results().toList()) {
      expected.add(paragraph.group(1));
      if (paragraph.group(1).equals("Findings")) {
        FINDING.matcher(text).results().forEach(finding -> expected.add(finding.group(1)));
      }
    }
    assertThat(expected).hasSizeGreaterThan(30);
    assertThat(classes.keySet()).containsExactlyElementsOf(expected);
  }

  @Test
  void everyKindOfFindingIsDescribedWithItsSeverity() {
    List<String> described =
        FINDING
            .matcher(text)
            .results()
            .map(finding -> finding.group(1) + ": " + finding.group(2))
            .toList();
    assertThat(described)
        .containsExactlyInAnyOrderElementsOf(
            Arrays.stream(Finding.Kind.values())
                .map(kind -> kind.word().replace('-', ' ') + ": " + kind.severity().word())
                .toList());
  }

  @Test
  void everyClassOfTheTableExists() {
    for (String names : classes.values()) {
      for (String name : names.split(", ")) {
        String source = name.replace("`", "").replace('.', '/') + ".java";
        assertThat(Path.of("src/main/java/dev/ironsieve/core", source)).exists();
      }
    }
  }
}
