package dev.ironsieve.bench;

import com.fasterxml.jackson.databind.JsonNode;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.sets.Address;
import dev.ironsieve.core.sets.Family;
import dev.ironsieve.formats.Json;
import dev.ironsieve.formats.syslog.DecisionRecord;
import dev.ironsieve.formats.syslog.DecisionRecord.Origin;
import dev.ironsieve.formats.syslog.SyslogWriter;
import java.io.BufferedOutputStream;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.net.Socket;
import java.net.URI;
import java.net.http.HttpClient;
import java.nio.charset.StandardCharsets;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import java.util.concurrent.Callable;
import java.util.function.IntFunction;
import org.postgresql.PGConnection;
import org.postgresql.copy.CopyManager;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** How fast a running server takes log records in, and finds some among many. */
@Command(
    name = "log",
    mixinStandardHelpOptions = true,
    description = {
      "Sends log records over TCP to a running server of the demo, as fast as it takes them, and",
      "copies the same rows into a table with the same indexes as the peer. Then fills the log of",
      "a week, and asks for the first page of filters."
    })
final class LogIntake implements Callable<Integer> {
  private static final String PASSWORD = "brindlemere-demo";
  private static final String GATEWAY = "Bench";
  private static final double NANOS_PER_SECOND = 1e9;
  private static final int RULES = 1_000;
  private static final int PEOPLE = 2_000;
  private static final int DAYS = 7;
  private static final int ASKED = 40; // times for each kind of filter

  @Parameters(paramLabel = "ADDRESS", description = "Of the server, such as http://127.0.0.1:8080.")
  private URI server;

  @Option(names = "--syslog", required = true, description = "The TCP port for syslog.")
  private int syslog;

  @Option(names = "--records", description = "To send in each of the rounds; 200,000 if left out.")
  private int records = 200_000;

  @Option(names = "--rounds", description = "5 if left out.")
  private int rounds = 5;

  @Option(names = "--stored", description = "In the log that is searched; 5,000,000 if left out.")
  private int stored = 5_000_000;

  private final Random random = new Random(42);

  @Override
  public Integer call() throws Exception {
    try (HttpClient http = HttpClient.newHttpClient();
        Connection database =
            DriverManager.getConnection(
                System.getenv("IRON_SIEVE_DB_URL"),
                System.getenv("IRON_SIEVE_DB_USER"),
                System.getenv("IRON_SIEVE_DB_PASSWORD"))) {
      LoadClient admin = new LoadClient(http, server, "log bench");
      admin.signIn("odile.marsh", PASSWORD);
      long rulebase = rulebase(admin);
      double[] intake = new double[rounds];
      double[] copy = new double[rounds];
      for (int round = 0; round < rounds; round++) {
        intake[round] = takeIn(admin, rulebase, round);
        copy[round] = copyAgain(database);
        System.out.printf(
            "round %d: %,.0f records a second taken in, %,.0f rows a second by COPY%n",
            round + 1, intake[round], copy[round]);
      }
      Arrays.sort(intake);
      Arrays.sort(copy);
      double median = intake[rounds / 2];
      System.out.printf(
          "median: %,.0f records a second, %.2f of COPY%n", median, median / copy[rounds / 2]);
      fill(database, rulebase);
      ask(admin, rulebase);
    }
    return 0;
  }

  private static long rulebase(LoadClient admin) {
    String empty = "{\"name\": \"Log bench\"}";
    long id = number(admin.post("/api/rulebases", empty).expected(), "id");
    String gateway = "{\"name\": \"%s\"}".formatted(GATEWAY);
    admin.post("/api/rulebases/%d/gateways".formatted(id), gateway).expected();
    return id;
  }

  private static JsonNode json(String text) {
    return Json.read(text.getBytes(StandardCharsets.UTF_8), JsonNode.class);
  }

  private static long number(String text, String field) {
    return json(text).get(field).asLong();
  }

  private byte[] frame(String run, long number) {
    int rule = random.nextInt(RULES);
    return SyslogWriter.frame(
        new DecisionRecord(
                new Origin(GATEWAY, run, number),
                "end",
                1,
                "r" + rule,
                rule % 10 == 0 ? Verdict.DROP : Verdict.ALLOW,
                null,
                null,
                Instant.now(),
                random.nextInt(60_000),
                random.nextInt(1_000),
                random.nextInt(1_000_000),
                "inside",
                new Address(Family.IPV4, 0, 0x0a00_0000L + random.nextInt(1 << 20)),
                "internet",
                new Address(Family.IPV4, 0, 0xc633_6400L + random.nextInt(1 << 8)),
                6,
                443,
                1024 + random.nextInt(60_000),
                "person" + random.nextInt(PEOPLE),
                null,
                "www.quay.example",
                "Lanternreel: view",
                null,
                "handshake")
            .message(Instant.now()));
  }

  /** Sends the records of a round; returns how many were stored a second. */
  private double takeIn(LoadClient admin, long rulebase, int round) throws Exception {
    List<byte[]> frames = new ArrayList<>(records);
    for (int i = 1; i <= records; i++) {
      frames.add(frame("round" + round, i));
    }
    long before = taken(admin, rulebase);
    long start = System.nanoTime();
    try (Socket socket = new Socket(server.getHost(), syslog);
        OutputStream out = new BufferedOutputStream(socket.getOutputStream(), 1 << 16)) {
      for (byte[] frame : frames) {
        out.write(frame);
      }
    }
    while (taken(admin, rulebase) < before + records) {
      Thread.sleep(20);
    }
    return records / ((System.nanoTime() - start) / NANOS_PER_SECOND);
  }

  private static long taken(LoadClient admin, long rulebase) {
    String state = admin.get("/api/rulebases/%d/log/state".formatted(rulebase)).expected();
    long out = 0;
    for (JsonNode run : json(state).get("runs")) {
      out += run.get("stored").asLong();
      if (run.get("lost").asLong() + run.get("repeated").asLong() > 0) {
        throw new IllegalStateException("records were lost: " + run);
      }
    }
    return out;
  }

  /** Copies the newest rows into a table like the log; returns how many a second. */
  private double copyAgain(Connection database) throws SQLException, IOException {
    CopyManager copies = database.unwrap(PGConnection.class).getCopyAPI();
    try (Statement sql = database.createStatement()) {
      sql.execute("drop table if exists copied");
      sql.execute("create table copied (like log_record including all)");
      ByteArrayOutputStream rows = new ByteArrayOutputStream();
      copies.copyOut(
          "copy (select * from log_record order by id desc limit %d) to stdout".formatted(records),
          rows);
      byte[] bytes = rows.toByteArray();
      sql.execute("alter table copied alter column id drop identity");
      long start = System.nanoTime();
      copies.copyIn("copy copied from stdin", new ByteArrayInputStream(bytes));
      double seconds = (System.nanoTime() - start) / NANOS_PER_SECOND;
      sql.execute("drop table copied");
      return records / seconds;
    }
  }

  /** Adds rows of a week to the log. */
  private void fill(Connection database, long rulebase) throws SQLException {
    try (Statement sql = database.createStatement()) {
      LocalDate today = LocalDate.now(ZoneOffset.UTC);
      for (int day = 0; day <= DAYS; day++) {
        LocalDate of = today.minusDays(day);
        sql.execute(
            "create table if not exists log_record_%s partition of log_record for values from ('%s 00:00Z') to ('%s 00:00Z')"
                .formatted(of.toString().replace("-", ""), of, of.plusDays(1)));
      }
      System.out.printf("adding %,d rows …%n", stored);
      sql.execute(
          """
          insert into log_record (at, received_at, rulebase_id, gateway_id, number, revision, rule,
            verdict, phase, millis, packets, bytes, from_zone, from_address, to_zone, to_address,
            protocol, port, source_port, person, site, application)
          select now() - g * interval '%2$d days' / %1$d, now(), %3$d,
            (select id from gateway where name = '%4$s' and rulebase_id = %3$d), g, 1,
            'r' || (random() * %5$d)::int, case when random() < 0.1 then 'drop' else 'allow' end,
            'end', 100, 10, 1000, 'inside', '10.0.0.0'::inet + (random() * 1048575)::bigint,
            'internet', '198.51.100.0'::inet + (random() * 255)::bigint, 6, 443, 1024,
            'person' || (random() * %6$d)::int, 'www.quay.example', 'Lanternreel: view'
          from generate_series(1, %1$d) g"""
              .formatted(stored, DAYS, rulebase, GATEWAY, RULES - 1, PEOPLE - 1));
      sql.execute("analyze log_record");
      try (ResultSet count = sql.executeQuery("select count(*) from log_record")) {
        count.next();
        System.out.printf("%,d records in the log%n", count.getLong(1));
      }
    }
  }

  private void ask(LoadClient admin, long rulebase) {
    time(admin, rulebase, "no filter", i -> "");
    time(admin, rulebase, "a rule", i -> "&rule=r" + random.nextInt(RULES));
    time(admin, rulebase, "a person", i -> "&person=person" + random.nextInt(PEOPLE));
    time(
        admin,
        rulebase,
        "an address",
        i -> "&address=10.%d.%d.%d".formatted(random.nextInt(16), octet(), octet()));
    time(
        admin,
        rulebase,
        "a rule, refused, six days ago",
        i ->
            "&verdict=refused&rule=r%d&until=%s"
                .formatted(random.nextInt(RULES), Instant.now().minusSeconds(6 * 24 * 3600)));
  }

  private int octet() {
    return random.nextInt(256);
  }

  private static void time(
      LoadClient admin, long rulebase, String what, IntFunction<String> filter) {
    String path = "/api/rulebases/%d/log?limit=200".formatted(rulebase);
    Timings times =
        Timings.of(ASKED, i -> admin.get(path + filter.apply(i).replace(":", "%3A")).expected());
    System.out.printf("first page of %s: %s%n", what, times);
  }
}
