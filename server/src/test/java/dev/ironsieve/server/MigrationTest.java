package dev.ironsieve.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import org.flywaydb.core.Flyway;
import org.flywaydb.core.api.MigrationVersion;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** Runs the database migrations in a new schema, with rows inserted after the first one. */
class MigrationTest {
  private static final String SCHEMA = "migrations_of_data";

  private Connection connection;

  private static String env(String name, String otherwise) {
    return System.getenv().getOrDefault(name, otherwise);
  }

  private static String url() {
    return env("IRON_SIEVE_DB_URL", "jdbc:postgresql://127.0.0.1:5432/ironsieve");
  }

  private static String user() {
    return env("IRON_SIEVE_DB_USER", "ironsieve");
  }

  private static String password() {
    return env("IRON_SIEVE_DB_PASSWORD", "");
  }

  @BeforeEach
  void emptySchema() throws SQLException {
    connection = DriverManager.getConnection(url(), user(), password());
    run("drop schema if exists " + SCHEMA + " cascade");
    run("create schema " + SCHEMA);
    run("set search_path to " + SCHEMA);
  }

  @AfterEach
  void dropSchema() throws SQLException {
    run("drop schema " + SCHEMA + " cascade");
    connection.close();
  }

  private void run(String sql) throws SQLException {
    try (Statement statement = connection.createStatement()) {
      statement.execute(sql);
    }
  }

  private String value(String sql) throws SQLException {
    try (Statement statement = connection.createStatement();
        ResultSet row = statement.executeQuery(sql)) {
      assertThat(row.next()).as(sql).isTrue();
      return row.getString(1);
    }
  }

  private static int migrate(String version) {
    return Flyway.configure()
        .dataSource(url(), user(), password())
        .schemas(SCHEMA)
        .defaultSchema(SCHEMA)
        .target(version == null ? MigrationVersion.LATEST : MigrationVersion.fromVersion(version))
        .load()
        .migrate()
        .migrationsExecuted;
  }

  @Test
  void whatWasStoredByTheFirstVersionIsThereInTheLast() throws SQLException {
    migrate("1");
    run(
        "insert into account (name, display_name, role, password_hash)"
            + " values ('ruth', 'Ruth', 'publisher', 'x')");
    run("insert into sign_in_failure (name, failures) values ('ruth', 2), ('nobody', 3)");
    run("insert into rulebase (name, created_by) values ('quay', 1)");
    run(
        "insert into revision (rulebase_id, number, content, digest, created_by)"
            + " values (1, 1, '{}', '\\x00', 1)");
    run("insert into draft (rulebase_id, base_revision, version) values (1, 1, 1)");
    run(
        "insert into change (rulebase_id, version, base_revision, kind, edit, inverse, touched,"
            + " account_id) values (1, 1, 1, 'edit', '{}', '{}', '{rule a}', 1)");
    assertThat(migrate(null)).isGreaterThanOrEqualTo(8);
    assertThat(value("select display_name from account where name = 'ruth'")).isEqualTo("Ruth");
    assertThat(value("select disabled from account where name = 'ruth'")).isEqualTo("f");
    assertThat(value("select content from revision where number = 1")).isEqualTo("{}");
    assertThat(value("select note from revision where number = 1")).isEmpty();
    assertThat(value("select version from draft")).isEqualTo("1");
    assertThat(value("select touched[1] from change")).isEqualTo("rule a");
    assertThat(value("select count(*) from gateway")).isEqualTo("0");
    assertThatThrownBy(() -> run("update revision set note = 'other'"))
        .hasMessageContaining("never changed");
    assertThatThrownBy(() -> run("delete from change")).hasMessageContaining("never changed");
  }

  @Test
  void eachMigrationFollowsTheOneBefore() {
    int all = migrate(null);
    assertThat(all).isGreaterThanOrEqualTo(9);
    assertThat(migrate(null)).isZero();
  }
}
