package dev.ironsieve.formats.catalogue;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.networknt.schema.InputFormat;
import com.networknt.schema.JsonSchema;
import com.networknt.schema.JsonSchemaFactory;
import com.networknt.schema.SpecVersion;
import dev.ironsieve.core.catalogue.Application;
import dev.ironsieve.core.catalogue.Catalogue;
import dev.ironsieve.core.model.Vocabulary;
import dev.ironsieve.formats.InvalidDocument;
import dev.ironsieve.formats.Json;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashSet;
import java.util.Set;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Catalogues in and out, their published schema, and the demo's catalogue. */
class CataloguesTest {
  private static final Path DEMO = Path.of("../server/src/main/resources/demo/catalogue.json");
  private static JsonSchema schema;
  private static byte[] demo;

  @BeforeAll
  static void readFiles() throws IOException {
    String text = Files.readString(Path.of("../docs/catalogue.schema.json"));
    schema = JsonSchemaFactory.getInstance(SpecVersion.VersionFlag.V202012).getSchema(text);
    demo = Files.readAllBytes(DEMO);
  }

  @Test
  void theDemosCatalogueFitsItsSchemaAndComesBackTheSame() {
    assertThat(schema.validate(new String(demo, StandardCharsets.UTF_8), InputFormat.JSON))
        .isEmpty();
    Catalogue read = Catalogues.read(demo);
    String written = Json.write(Catalogues.document(read));
    assertThat(schema.validate(written, InputFormat.JSON)).isEmpty();
    assertThat(Catalogues.read(written.getBytes(StandardCharsets.UTF_8))).isEqualTo(read);
  }

  @Test
  void theDemosCatalogueIsLargeEnoughToBrowse() {
    Catalogue read = Catalogues.read(demo);
    Set<String> categories = new HashSet<>();
    read.applications().forEach(application -> categories.add(application.category()));
    assertThat(categories).hasSizeGreaterThanOrEqualTo(20);
    assertThat(read.applications().stream().filter(CataloguesTest::isInvented).count())
        .isGreaterThanOrEqualTo(400);
    assertThat(read.applications().stream().filter(a -> !isInvented(a)).count())
        .isGreaterThanOrEqualTo(60);
    assertThat(read.applications().stream().filter(a -> a.features().size() >= 3).count())
        .isGreaterThanOrEqualTo(60);
    assertThat(read.applications().stream().filter(a -> !a.needs().isEmpty()).count())
        .isGreaterThanOrEqualTo(20);
  }

  /** Open protocols have no servers of their own. */
  private static boolean isInvented(Application application) {
    return application.hosts().stream().anyMatch(host -> host.endsWith(".example"));
  }

  @Test
  void everyUseIsInItsCategoryAndNoNameStandsTwice() {
    Catalogue read = Catalogues.read(demo);
    Vocabulary vocabulary = read.vocabulary();
    var meanings = vocabulary.meanings();
    for (Application application : read.applications()) {
      var members = meanings.get(Catalogue.categoryTerm(application.category()).toLowerCase());
      for (String use : application.uses()) {
        assertThat(members.contains(vocabulary.values().indexOf(use))).as(use).isTrue();
      }
    }
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "'ironSieveCatalogue': 2 | $.ironSieveCatalogue",
        "'edition': null | $",
        "'applications': [null] | $.applications[0]",
        "'applications': [{'name': 'Tern: x', 'summary': 's', 'category': 'c', 'risk': 1,"
            + " 'usefulness': 1}] | $.applications[0]",
        "'applications': [{'name': 'Tern', 'summary': 's', 'category': 'c', 'risk': 6,"
            + " 'usefulness': 1}] | $.applications[0]",
        "'applications': [{'name': 'Tern', 'summary': 's', 'category': 'c',"
            + " 'usefulness': 1}] | $.applications[0].risk",
        "'applications': [{'name': 'Tern', 'summary': 's', 'category': 'c', 'risk': 1,"
            + " 'usefulness': 1, 'ports': ['tcp/70000']}] | $.applications[0].ports[0]",
        "'applications': [{'name': 'Tern', 'summary': 's', 'category': 'c', 'risk': 1,"
            + " 'usefulness': 1, 'hosts': ['Not a host']}] | $.applications[0]",
        "'applications': [{'name': 'Tern', 'summary': 's', 'category': 'c', 'risk': 1,"
            + " 'usefulness': 1, 'features': [{'name': 'other use'}]}]"
            + " | $.applications[0].features[0]",
        "'applications': [{'name': 'Tern', 'summary': 's', 'category': 'c', 'risk': 1,"
            + " 'usefulness': 1, 'needs': ['Nobody']}] | $",
        "'applications': [{'name': 'Tern', 'summary': 's', 'category': 'c', 'risk': 1,"
            + " 'usefulness': 1}, {'name': 'TERN', 'summary': 's', 'category': 'c', 'risk': 1,"
            + " 'usefulness': 1}] | $",
      })
  void whatContradictsOrIsMissingIsRefusedWithItsPlace(String member, String path) {
    String rest =
        (member.startsWith("'ironSieveCatalogue'") ? "" : "'ironSieveCatalogue': 1, ")
            + (member.startsWith("'edition'") ? "" : "'edition': 'e', ")
            + (member.startsWith("'applications'")
                ? ""
                : "'applications': [{'name': 'Tern', 'summary': 's', 'category': 'c', 'risk': 1,"
                    + " 'usefulness': 1}], ");
    String json = ("{" + rest + member + "}").replace('\'', '"');
    assertThatThrownBy(() -> Catalogues.read(json.getBytes(StandardCharsets.UTF_8)))
        .isInstanceOfSatisfying(
            InvalidDocument.class,
            e -> assertThat(e.faults().getFirst().path()).as(e.getMessage()).isEqualTo(path));
  }
}
