package dev.ironsieve.acceptance;

import static com.tngtech.archunit.core.domain.JavaCall.Predicates.target;
import static com.tngtech.archunit.core.domain.JavaClass.Predicates.resideInAPackage;
import static com.tngtech.archunit.core.domain.properties.HasName.Predicates.name;
import static com.tngtech.archunit.core.domain.properties.HasOwner.Predicates.With.owner;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.classes;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.Architectures.layeredArchitecture;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;

import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import java.nio.file.Path;
import java.time.Clock;
import java.util.List;
import org.junit.jupiter.api.Test;

/** The arrows between modules and packages, which never turn back. */
class ModulesTest {
  private static final JavaClasses CLASSES =
      new ClassFileImporter()
          .withImportOption(new ImportOption.DoNotIncludeTests())
          .importPaths(
              List.of("core", "formats", "server", "cli", "gateway", "bench").stream()
                  .map(module -> Path.of("..", module, "target", "classes"))
                  .toList());

  @Test
  void modulesUseWhatStandsBelowThem() {
    layeredArchitecture()
        .consideringOnlyDependenciesInAnyPackage("dev.ironsieve..")
        .layer("core")
        .definedBy("dev.ironsieve.core..")
        .layer("formats")
        .definedBy("dev.ironsieve.formats..")
        .layer("server")
        .definedBy("dev.ironsieve.server..")
        .layer("cli")
        .definedBy("dev.ironsieve.cli..")
        .layer("gateway")
        .definedBy("dev.ironsieve.gateway..")
        .layer("bench")
        .definedBy("dev.ironsieve.bench..")
        .whereLayer("formats")
        .mayOnlyBeAccessedByLayers("server", "cli", "gateway", "bench")
        .whereLayer("server")
        .mayOnlyBeAccessedByLayers("bench") // which reads a directory as the server does
        .whereLayer("cli")
        .mayNotBeAccessedByAnyLayer()
        .whereLayer("gateway")
        .mayOnlyBeAccessedByLayers("bench") // which measures its decisions
        .whereLayer("bench")
        .mayNotBeAccessedByAnyLayer()
        .whereLayer("core")
        .mayOnlyBeAccessedByLayers("formats", "server", "cli", "gateway", "bench")
        .check(CLASSES);
  }

  @Test
  void theCoreIsPlainJavaWithoutInputOutputOrAClock() {
    classes()
        .that()
        .resideInAPackage("dev.ironsieve.core..")
        .and()
        .resideOutsideOfPackage("dev.ironsieve.core.signature")
        .should()
        .onlyDependOnClassesThat()
        .resideInAnyPackage(
            "dev.ironsieve.core..",
            "java.lang..",
            "java.math",
            "java.util..",
            "java.time",
            "java.time.zone")
        .check(CLASSES);
    // Bytes of the wire have encodings, QUIC has ciphers, and patterns that users write are RE2's.
    classes()
        .that()
        .resideInAPackage("dev.ironsieve.core.signature")
        .should()
        .onlyDependOnClassesThat()
        .resideInAnyPackage(
            "dev.ironsieve.core..",
            "java.lang..",
            "java.util..",
            "java.nio.charset",
            "java.security",
            "java.security.spec",
            "javax.crypto..",
            "com.google.re2j")
        .check(CLASSES);
    noClasses()
        .that()
        .resideInAPackage("dev.ironsieve.core..")
        .should()
        .callMethod(System.class, "currentTimeMillis")
        .orShould()
        .callMethod(System.class, "nanoTime")
        .check(CLASSES);
    // Dates are values; what the date is, is not the core's to ask.
    noClasses()
        .that()
        .resideInAPackage("dev.ironsieve.core..")
        .should()
        .callMethodWhere(target(name("now")).and(target(owner(resideInAPackage("java.time")))))
        .orShould()
        .dependOnClassesThat()
        .areAssignableTo(Clock.class)
        .check(CLASSES);
  }

  @Test
  void packagesOfTheCoreFormNoCircle() {
    slices().matching("dev.ironsieve.core.(*)..").should().beFreeOfCycles().check(CLASSES);
    noClasses()
        .that()
        .resideInAPackage("dev.ironsieve.core.sets..")
        .should()
        .dependOnClassesThat()
        .resideInAnyPackage(
            "dev.ironsieve.core.model..",
            "dev.ironsieve.core.space..",
            "dev.ironsieve.core.analysis..")
        .check(CLASSES);
    noClasses()
        .that()
        .resideInAPackage("dev.ironsieve.core.space..")
        .should()
        .dependOnClassesThat()
        .resideInAnyPackage(
            "dev.ironsieve.core.ruleindex..",
            "dev.ironsieve.core.matcher..",
            "dev.ironsieve.core.analysis..",
            "dev.ironsieve.core.difference..",
            "dev.ironsieve.core.edit..",
            "dev.ironsieve.core.text..")
        .check(CLASSES);
    noClasses()
        .that()
        .resideInAPackage("dev.ironsieve.core.ruleindex..")
        .should()
        .dependOnClassesThat()
        .resideInAnyPackage(
            "dev.ironsieve.core.matcher..",
            "dev.ironsieve.core.analysis..",
            "dev.ironsieve.core.difference..")
        .check(CLASSES);
  }

  @Test
  void resourcesUseUseCasesAndTheseUseStores() {
    noClasses()
        .that()
        .haveNameMatching("dev.ironsieve.server..*Resource(\\$.*)?")
        .should()
        .dependOnClassesThat()
        .haveNameMatching("dev.ironsieve.server..*Store(\\$.*)?")
        .check(CLASSES);
    noClasses()
        .that()
        .resideInAPackage("dev.ironsieve.server..")
        .and()
        .haveNameNotMatching("dev.ironsieve.server..*Resource(\\$.*)?")
        .should()
        .dependOnClassesThat()
        .haveNameMatching("dev.ironsieve.server..*Resource(\\$.*)?")
        .check(CLASSES);
    noClasses()
        .that()
        .haveSimpleNameEndingWith("Store")
        .should()
        .dependOnClassesThat()
        .resideInAnyPackage("dev.ironsieve.server.http..", "jakarta.ws.rs..")
        .check(CLASSES);
    noClasses()
        .that()
        .resideInAPackage("dev.ironsieve.server.refusal..")
        .should()
        .dependOnClassesThat()
        .resideInAnyPackage("dev.ironsieve.server.http..", "jakarta.ws.rs..")
        .check(CLASSES);
    noClasses()
        .that()
        .resideOutsideOfPackages("dev.ironsieve.server.http..", "dev.ironsieve.core..")
        .should()
        .dependOnClassesThat()
        .haveFullyQualifiedName("dev.ironsieve.server.http.Problem")
        .check(CLASSES);
  }

  @Test
  void onlyStoresSpeakSql() {
    noClasses()
        .that()
        .resideInAPackage("dev.ironsieve.server..")
        .and()
        .haveSimpleNameNotEndingWith("Store")
        .and()
        .resideOutsideOfPackage("dev.ironsieve.server.jdbc..")
        .should()
        .dependOnClassesThat()
        .haveFullyQualifiedName("java.sql.ResultSet")
        .check(CLASSES);
  }
}
