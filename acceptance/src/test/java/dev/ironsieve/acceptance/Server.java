package dev.ironsieve.acceptance;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.ServerSocket;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.Duration;
import java.time.Instant;
import java.util.concurrent.TimeUnit;

/** The packaged server on its own, newly made database. */
final class Server implements AutoCloseable {
  private static final Path JAR = Path.of("../server/target/quarkus-app/quarkus-run.jar");

  /** How long it may take to start. Other users of the machine may leave it little for minutes. */
  private static final Duration PATIENCE = Duration.ofMinutes(3);

  private final String database;
  private final int port;
  private final int logPort;
  private final boolean demo;
  private Process process;

  /**
   * @param name name of the database, which is dropped first
   * @param demo whether it loads the demo's data
   */
  Server(String name, boolean demo) {
    this.demo = demo;
    String url = env("IRON_SIEVE_DB_URL", "jdbc:postgresql://127.0.0.1:5432/ironsieve");
    database = url.substring(0, url.lastIndexOf('/') + 1) + name;
    try (Connection connection = connect(url);
        Statement statement = connection.createStatement()) {
      statement.execute("drop database if exists " + name + " with (force)");
      statement.execute("create database " + name);
    } catch (SQLException e) {
      throw new IllegalStateException("no PostgreSQL for the tests; run ./iron-sieve test", e);
    }
    try (ServerSocket socket = new ServerSocket(0);
        ServerSocket log = new ServerSocket(0)) {
      port = socket.getLocalPort();
      logPort = log.getLocalPort();
    } catch (IOException e) {
      throw new UncheckedIOException("finding free ports", e);
    }
    start();
  }

  private static Connection connect(String url) throws SQLException {
    return DriverManager.getConnection(
        url, env("IRON_SIEVE_DB_USER", "ironsieve"), env("IRON_SIEVE_DB_PASSWORD", ""));
  }

  /** The number that a statement returns, from the server's database. */
  long count(String sql) throws SQLException {
    try (Connection connection = connect(database);
        Statement statement = connection.createStatement();
        ResultSet rows = statement.executeQuery(sql)) {
      rows.next();
      return rows.getLong(1);
    }
  }

  /** The text that a statement returns, from the server's database. */
  String text(String sql) throws SQLException {
    try (Connection connection = connect(database);
        Statement statement = connection.createStatement();
        ResultSet rows = statement.executeQuery(sql)) {
      rows.next();
      return rows.getString(1);
    }
  }

  private static String env(String name, String otherwise) {
    return System.getenv().getOrDefault(name, otherwise);
  }

  String address() {
    return "http://127.0.0.1:" + port;
  }

  /** The TCP port for syslog. */
  int logPort() {
    return logPort;
  }

  /** Starts the server, again if it was stopped, and waits until it answers. */
  void start() {
    String java = Path.of(System.getProperty("java.home"), "bin", "java").toString();
    ProcessBuilder builder =
        new ProcessBuilder(
            java,
            "-XX:TieredStopAtLevel=1", // it ends before the second compiler pays
            "-Dquarkus.datasource.jdbc.acquisition-timeout=3M",
            "-jar",
            JAR.toString());
    builder.environment().put("IRON_SIEVE_DB_URL", database);
    builder.environment().put("IRON_SIEVE_PORT", String.valueOf(port));
    builder.environment().put("IRON_SIEVE_LOG_TCP_PORT", String.valueOf(logPort));
    builder.environment().put("IRON_SIEVE_DEMO", String.valueOf(demo));
    Path log = log();
    builder
        .redirectErrorStream(true)
        .redirectOutput(ProcessBuilder.Redirect.appendTo(log.toFile()));
    try {
      process = builder.start();
      Instant deadline = Instant.now().plus(PATIENCE);
      while (!ready()) {
        if (!process.isAlive() || Instant.now().isAfter(deadline)) {
          throw new IllegalStateException("no answer from the server:\n" + Files.readString(log));
        }
        Thread.sleep(100);
      }
    } catch (IOException e) {
      throw new UncheckedIOException("starting the server", e);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new IllegalStateException("interrupted while starting the server", e);
    }
  }

  private boolean ready() throws InterruptedException {
    HttpRequest request =
        HttpRequest.newBuilder(URI.create(address() + "/api/health/ready")).build();
    try (HttpClient client = HttpClient.newHttpClient()) {
      return client.send(request, HttpResponse.BodyHandlers.discarding()).statusCode() == 200;
    } catch (IOException e) {
      return false;
    }
  }

  private Path log() {
    return Path.of("target", "server-" + port + ".log");
  }

  /** What the server has written so far. */
  String said() throws IOException {
    return Files.readString(log());
  }

  /** Kills the server, as a crash would. */
  void kill() {
    process.destroyForcibly();
    try {
      process.waitFor();
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
  }

  void stop() {
    process.destroy();
    try {
      if (!process.waitFor(20, TimeUnit.SECONDS)) {
        process.destroyForcibly();
      }
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
  }

  @Override
  public void close() {
    stop();
  }
}
