package dev.ironsieve.formats.document;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import dev.ironsieve.core.analysis.Finding;
import dev.ironsieve.core.analysis.LiveAnalysis;
import dev.ironsieve.core.checks.CheckResult;
import dev.ironsieve.core.difference.Aspect;
import dev.ironsieve.core.difference.Differences;
import dev.ironsieve.core.edit.Edit;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.repair.Repair;
import dev.ironsieve.core.repair.Repairs;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.formats.InvalidDocument;
import dev.ironsieve.formats.Json;
import dev.ironsieve.formats.report.JUnitReport;
import dev.ironsieve.formats.report.Report;
import dev.ironsieve.formats.report.SarifReport;
import java.io.Writer;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.Collections;
import java.util.List;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/**
 * Every size limit of a document: below and at the limit a rulebase loads, is analysed, repaired,
 * compared, reported and written; one above it is refused with a place.
 */
class LimitsTest {
  @ParameterizedTest
  @MethodSource("dev.ironsieve.formats.document.LimitDocuments#limits")
  void everythingWorksUpToALimitAndOneMoreIsRefused(LimitDocuments.Limit limit) {
    work(limit.document().apply(limit.most() - 1));
    work(limit.document().apply(limit.most()));
    RulebaseDocument tooMany = limit.document().apply(limit.most() + 1);
    InvalidDocument refused =
        catchThrowableOfType(InvalidDocument.class, () -> ToModel.rulebase(tooMany));
    assertThat(refused).as(limit.name()).isNotNull();
    assertThat(refused.faults().getFirst().path()).isEqualTo(limit.place());
    assertThat(refused.faults().getFirst().expected()).containsPattern("at most|1 to");
  }

  /** Loads, analyses, repairs and compares; and reads back what it writes. */
  private static void work(RulebaseDocument document) {
    Rulebase base = ToModel.rulebase(document);
    LiveAnalysis analysis = new LiveAnalysis(base);
    for (Finding finding : analysis.findings().stream().limit(20).toList()) {
      for (Repair repair : Repairs.of(finding, analysis)) {
        Rulebase after = repair.edit().apply(base);
        assertThat(repair.edit().inverse(base).orElseThrow().apply(after)).isEqualTo(base);
      }
    }
    Report report = Report.of("limits.json", base, LocalDate.EPOCH);
    assertThat(report.entries()).hasSameSizeAs(analysis.findings());
    assertThat(SarifReport.write(List.of(report)).at("/runs/0/results"))
        .hasSameSizeAs(report.entries());
    JUnitReport.write(List.of(report), Finding.Severity.ERROR, Writer.nullWriter());
    assertThat(CheckResult.of(base, analysis.index())).hasSameSizeAs(base.checks());
    List<Rule> rules = base.rules();
    if (!rules.isEmpty()) {
      Rulebase less = new Edit.DeleteRules(List.of(rules.getLast().id())).apply(base);
      Differences.between(base, less, Aspect.VERDICT, Differences.STEPS);
      analysis.update(less, Collections.singleton(rules.getLast().id()));
    }
    byte[] written = Json.write(FromModel.rulebase(base)).getBytes(StandardCharsets.UTF_8);
    assertThat(ToModel.rulebase(Json.read(written, RulebaseDocument.class))).isEqualTo(base);
  }
}
