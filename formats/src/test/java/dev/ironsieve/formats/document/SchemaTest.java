package dev.ironsieve.formats.document;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.fasterxml.jackson.databind.ObjectMapper;
import com.networknt.schema.InputFormat;
import com.networknt.schema.JsonSchema;
import com.networknt.schema.JsonSchemaFactory;
import com.networknt.schema.SpecVersion;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.RulebaseKind;
import dev.ironsieve.core.model.Section;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.rulebase.CommonRules;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.rulebase.RulebaseBuilder;
import dev.ironsieve.core.twin.SmallWorld;
import dev.ironsieve.formats.InvalidDocument;
import dev.ironsieve.formats.Json;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.IntStream;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** The published JSON Schema against what is written and what is refused. */
class SchemaTest {
  private static JsonSchema schema;

  @BeforeAll
  static void readSchema() throws IOException {
    String text = Files.readString(Path.of("../docs/rulebase.schema.json"));
    schema = JsonSchemaFactory.getInstance(SpecVersion.VersionFlag.V202012).getSchema(text);
  }

  @Test
  void describesEveryDocumentThatIsWritten() {
    for (int seed = 0; seed < 60; seed++) {
      String json = Json.write(FromModel.rulebase(new SmallWorld(seed, seed % 2 == 0).rulebase(9)));
      assertThat(schema.validate(json, InputFormat.JSON)).as("seed " + seed).isEmpty();
    }
  }

  @Test
  void commonRulesComeBackTheSame() {
    Rulebase top = common("top", new SmallWorld(1, false).rulebase(3));
    Rulebase middle =
        common("middle", new SmallWorld(2, false).rulebase(3)).under(CommonRules.of(top, 1));
    Rulebase base =
        new SmallWorld(3, false)
            .rulebase(3)
            .with(List.of(), List.of(), List.of(), section("s", 3))
            .under(CommonRules.of(middle, 7));
    for (Rulebase one : List.of(middle, base)) {
      String json = Json.write(FromModel.rulebase(one));
      assertThat(schema.validate(json, InputFormat.JSON)).isEmpty();
      byte[] bytes = json.getBytes(StandardCharsets.UTF_8);
      Rulebase read = ToModel.rulebase(Json.read(bytes, RulebaseDocument.class));
      assertThat(read).isEqualTo(one);
      assertThat(read.own().sections()).isEqualTo(one.own().sections());
    }
    assertThat(base.sections()).hasSize(5);
  }

  private static Rulebase common(String name, Rulebase objects) {
    List<Section> sections = new ArrayList<>(section(name + "-head", 1));
    Section tail = section(name + "-tail", 1).getFirst();
    sections.add(new Section(tail.id(), tail.name(), tail.rules(), true));
    return new RulebaseBuilder()
        .name(name)
        .kind(RulebaseKind.COMMON)
        .zones(name.equals("top") ? objects.zones() : List.of())
        .sections(sections)
        .build();
  }

  private static List<Section> section(String id, int rules) {
    return List.of(
        new Section(
            id,
            id,
            IntStream.range(0, rules)
                .mapToObj(i -> Rule.matchingAll(id + i, id + i, Verdict.ALLOW))
                .toList()));
  }

  @Test
  void everyRulebaseComesBackTheSame() {
    for (int seed = 0; seed < 60; seed++) {
      var base = new SmallWorld(seed, true).rulebase(9);
      byte[] json = Json.write(FromModel.rulebase(base)).getBytes(StandardCharsets.UTF_8);
      assertThat(ToModel.rulebase(Json.read(json, RulebaseDocument.class))).isEqualTo(base);
    }
  }

  /** What the schema refuses, the reader refuses too. */
  @ParameterizedTest
  @ValueSource(
      strings = {
        "{'name': 'n'}",
        "{'ironSieve': 2, 'name': 'n'}",
        "{'ironSieve': 1, 'name': 'n', 'colour': 'red'}",
        "{'ironSieve': 1, 'name': 'n', 'sections': [{'name': 's', 'rules': [{'name': 'r'}]}]}",
        "{'ironSieve': 1, 'name': 'n', 'sections': [{'name': 's', 'rules': "
            + "[{'name': 'r', 'verdict': 'permit'}]}]}",
        "{'ironSieve': 1, 'name': 'n', 'sections': [{'name': 's', 'rules': "
            + "[{'name': 'r', 'verdict': 'allow', 'terms': {'mood': {'items': ['good']}}}]}]}",
        "{'ironSieve': 1, 'name': 'n', 'vocabularies': [{'coordinate': 'mood', 'edition': 'e', "
            + "'values': ['good']}]}",
        "{'ironSieve': 1, 'name': 'n', 'vocabularies': [{'coordinate': 'person', 'edition': 'e', "
            + "'values': []}]}",
        "{'ironSieve': 1, 'name': 'n', 'sections': [{'name': 's', 'rules': "
            + "[{'name': 'r', 'verdict': 'allow', 'opening': 'ajar'}]}]}",
        "{'ironSieve': 1, 'name': 'n', 'vocabularies': [{'coordinate': 'application', "
            + "'edition': 'e', 'values': ['a'], 'applications': [{'name': 'a', 'uses': []}]}]}",
        "{'ironSieve': 1, 'name': 'n', 'lineCapacity': '20 MB/s'}",
        "{'ironSieve': 1, 'name': 'n', 'ratePlans': [{'name': 'p', 'counted': 'all rules'}]}",
        "{'ironSieve': 1, 'name': 'n', 'ratePlans': [{'name': 'p', 'counted': 'nobody', "
            + "'floor': '1 Mbit/s'}]}",
        "{'ironSieve': 1, 'name': 'n', 'notices': [{'name': 'p', 'heading': 'h', 'text': ''}]}",
        "{'ironSieve': 1, 'name': 'n', 'feeds': [{'name': 'f', 'kind': 'moods', 'edition': 'e', "
            + "'sets': []}]}",
        "{'ironSieve': 1, 'name': 'n', 'feeds': [{'name': 'f', 'kind': 'countries', "
            + "'edition': 'e', 'sets': [{'name': '', 'members': []}]}]}",
      })
  void refusesWhatTheReaderRefuses(String quoted) throws IOException {
    String json = quoted.replace('\'', '"');
    new ObjectMapper().readTree(json);
    assertThat(schema.validate(json, InputFormat.JSON)).isNotEmpty();
    assertThatThrownBy(
            () ->
                ToModel.rulebase(
                    Json.read(json.getBytes(StandardCharsets.UTF_8), RulebaseDocument.class)))
        .isInstanceOf(InvalidDocument.class);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "'uses': ['b'] | $.vocabularies[0].applications[0].uses[0] | the name of a value",
        "'uses': ['a'], 'ports': ['tcp/x'] | $.vocabularies[0].applications[0].ports[0] | a port",
        "'uses': ['a'], 'needs': ['b'] | $.vocabularies[0] | the name of an application",
      })
  void aFaultInWhatIsKnownOfAnApplicationIsNamed(String member, String path, String expected) {
    String json =
        """
        {"ironSieve": 1, "name": "n",
         "vocabularies": [{"coordinate": "application", "edition": "e", "values": ["a"],
                           "applications": [{"name": "a", %s}]}]}
        """
            .formatted(member.replace('\'', '"'));
    assertThatThrownBy(
            () ->
                ToModel.rulebase(
                    Json.read(json.getBytes(StandardCharsets.UTF_8), RulebaseDocument.class)))
        .isInstanceOf(InvalidDocument.class)
        .hasMessageContaining(path)
        .hasMessageContaining(expected);
  }

  @Test
  void aTermThatNoVocabularyHasIsRefusedWithItsPlace() {
    String json =
        """
        {"ironSieve": 1, "name": "n",
         "vocabularies": [{"coordinate": "person", "edition": "day 1", "values": ["ann"],
                           "sets": [{"name": "crew", "members": ["ann", "bob"]}]}]}
        """;
    assertThatThrownBy(
            () ->
                ToModel.rulebase(
                    Json.read(json.getBytes(StandardCharsets.UTF_8), RulebaseDocument.class)))
        .isInstanceOf(InvalidDocument.class)
        .hasMessageContaining("$.vocabularies[0].sets[0].members[1]")
        .hasMessageContaining("bob");
  }
}
