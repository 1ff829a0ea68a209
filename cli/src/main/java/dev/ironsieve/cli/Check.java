package dev.ironsieve.cli;

import dev.ironsieve.core.analysis.Finding;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.formats.Json;
import dev.ironsieve.formats.report.JUnitReport;
import dev.ironsieve.formats.report.Report;
import dev.ironsieve.formats.report.SarifReport;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Callable;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Tells what follows from the rules of files: which decide nothing, which overlap, and why. */
@Command(
    name = "check",
    mixinStandardHelpOptions = true,
    description = "Tells what is wrong with the order of rules, with causes and examples.",
    footer = "Exit code: 0 nothing found that is severe enough, 1 something, 2 unreadable input.")
final class Check implements Callable<Integer> {
  /** How findings are written. */
  enum Format {
    text,
    json,
    sarif,
    junit
  }

  /** One finding, as {@code --format json} writes it. */
  record Entry(
      String file,
      String finding,
      String severity,
      int rule,
      String name,
      List<Integer> causes,
      String witness,
      Integer decidedBy,
      String message) {}

  @Parameters(
      arity = "1..*",
      paramLabel = "FILE",
      description = "Rulebases to check, or rules as text; - for standard input.")
  private List<Path> files;

  @Option(names = "--format", description = "One of ${COMPLETION-CANDIDATES}.")
  private Format format = Format.text;

  @Option(
      names = "--fail-on",
      paramLabel = "SEVERITY",
      description = "note, warning (if left out) or error: what makes the exit code 1.")
  private Finding.Severity failOn = Finding.Severity.WARNING;

  @Option(
      names = "--objects",
      paramLabel = "FILE.json",
      description = "For rules as text: the rulebase whose objects they name.")
  private Path objects;

  @Option(
      names = "--day",
      paramLabel = "DAY",
      description =
          "The day from which on times count, such as 2026-12-24; today if left out. Rules whose end"
              + " date has passed by then have expired.")
  private LocalDate day;

  @CommandLine.Spec private CommandLine.Model.CommandSpec spec;

  @Override
  public Integer call() {
    PrintWriter out = spec.commandLine().getOut();
    List<Report> reports = new ArrayList<>();
    for (Path file : files) {
      Rulebase rulebase = RulebaseFiles.read(file, objects, spec.commandLine().getErr());
      LocalDate from = day == null ? LocalDate.now(rulebase.gatewaySettings().timeZone()) : day;
      reports.add(Report.of(file.toString(), rulebase, from));
    }
    switch (format) {
      case text -> writeText(reports, out);
      case json -> out.print(Json.write(entries(reports)));
      case sarif -> out.print(Json.write(SarifReport.write(reports)));
      case junit -> JUnitReport.write(reports, failOn, out);
    }
    out.flush();
    boolean found = reports.stream().anyMatch(report -> report.atLeast(failOn) > 0);
    return found ? Main.FOUND : Main.FINE;
  }

  private static void writeText(List<Report> reports, PrintWriter out) {
    int rules = 0;
    int findings = 0;
    for (Report report : reports) {
      rules += report.rules();
      findings += report.entries().size();
      for (Report.Entry entry : report.entries()) {
        out.println(
            "%s: %s: rule %d %s"
                .formatted(
                    report.file(), Main.word(entry.severity()), entry.rule(), entry.message()));
      }
    }
    out.println(findings + " found in " + rules + " rules");
  }

  private static List<Entry> entries(List<Report> reports) {
    List<Entry> out = new ArrayList<>();
    for (Report report : reports) {
      for (Report.Entry e : report.entries()) {
        out.add(
            new Entry(
                report.file(),
                e.kind().word(),
                Main.word(e.severity()),
                e.rule(),
                e.name(),
                e.causes().stream().map(Report.Cause::rule).toList(),
                e.witness(),
                e.decidedBy(),
                e.message()));
      }
    }
    return out;
  }
}
