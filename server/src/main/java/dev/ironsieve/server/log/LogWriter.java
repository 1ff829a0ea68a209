package dev.ironsieve.server.log;

import dev.ironsieve.server.jdbc.Database;
import dev.ironsieve.server.jdbc.DatabaseFailure;
import dev.ironsieve.server.log.LogSenders.Kind;
import dev.ironsieve.server.log.LogStore.KnownGateway;
import io.quarkus.runtime.StartupEvent;
import io.quarkus.scheduler.Scheduled;
import jakarta.annotation.PreDestroy;
import jakarta.enterprise.context.ApplicationScoped;
import jakarta.enterprise.event.Observes;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import org.jboss.logging.Logger;

/**
 * Stores the waiting records, many in one transaction, from one thread. While the database is away
 * it tries again; then records wait in the queue.
 */
@ApplicationScoped
class LogWriter {
  private static final Logger LOG = Logger.getLogger(LogWriter.class);
  private static final Duration BETWEEN_TRIES = Duration.ofMillis(500);
  private static final Duration GATEWAYS_KNOWN = Duration.ofSeconds(5);

  /** Records outside of these bounds around the time of receipt get that time instead. */
  private static final Duration OLDEST = Duration.ofDays(8);

  private static final Duration NEWEST = Duration.ofHours(1);

  private final LogQueue queue;
  private final LogSenders senders;
  private final Database database;
  private final LogConfig config;
  private final Thread thread = Thread.ofPlatform().daemon().name("log").unstarted(this::run);
  private final Set<LocalDate> partitions = new HashSet<>(); // those that surely exist
  private Map<String, KnownGateway> gateways = Map.of(); // by lower-case name
  private Instant gatewaysRead = Instant.EPOCH;
  private volatile boolean stopped;

  LogWriter(LogQueue queue, LogSenders senders, Database database, LogConfig config) {
    this.queue = queue;
    this.senders = senders;
    this.database = database;
    this.config = config;
  }

  void onStart(@Observes StartupEvent event) {
    thread.start();
  }

  @PreDestroy
  void stop() throws InterruptedException {
    stopped = true;
    thread.join(Duration.ofSeconds(5));
  }

  private void run() {
    try {
      while (!stopped || queue.size() > 0) {
        List<LogEntry> batch = queue.next();
        if (!batch.isEmpty()) {
          store(batch);
        }
      }
    } catch (InterruptedException e) {
      // The server ends.
    }
  }

  private void store(List<LogEntry> batch) throws InterruptedException {
    while (true) {
      try {
        write(batch);
        return;
      } catch (DatabaseFailure e) {
        if (!e.isAway()) {
          storeEach(batch, e);
          return;
        }
        if (stopped) {
          LOG.errorf("%d log records are lost: %s", batch.size(), e.getMessage());
          return;
        }
        LOG.warnf("%d log records wait: %s", batch.size() + queue.size(), e.getMessage());
        Thread.sleep(BETWEEN_TRIES);
      }
    }
  }

  /** One of the records is refused; stores the others. */
  private void storeEach(List<LogEntry> batch, DatabaseFailure failure)
      throws InterruptedException {
    if (batch.size() == 1) {
      senders.count(batch.getFirst().sender(), Kind.REFUSED, failure.getMessage());
      LOG.warnf("A log record is refused: %s", failure.getMessage());
      return;
    }
    int half = batch.size() / 2;
    store(batch.subList(0, half));
    store(batch.subList(half, batch.size()));
  }

  private void write(List<LogEntry> batch) {
    List<LogStore.Located> located = locate(batch);
    if (located.isEmpty()) {
      return;
    }
    Set<LocalDate> days = new HashSet<>();
    located.stream()
        .filter(one -> one.entry().decision() != null)
        .forEach(one -> days.add(one.at().atZone(ZoneOffset.UTC).toLocalDate()));
    days.removeAll(partitions);
    database.inTransaction(
        "storing log records",
        sql -> {
          for (LocalDate day : days) {
            LogStore.addPartition(sql, day);
          }
          LogStore.store(sql, located);
          return null;
        });
    partitions.addAll(days);
  }

  /** The records of known gateways. */
  private List<LogStore.Located> locate(List<LogEntry> batch) {
    Instant oldest = Instant.now().minus(GATEWAYS_KNOWN);
    boolean unknown =
        batch.stream()
            .anyMatch(entry -> gateway(entry) == null && gatewaysRead.isBefore(entry.receivedAt()));
    if (unknown || gatewaysRead.isBefore(oldest)) {
      Instant now = Instant.now();
      gateways = database.inTransaction("listing gateways", LogStore::gateways);
      gatewaysRead = now;
    }
    List<LogStore.Located> out = new ArrayList<>();
    for (LogEntry entry : batch) {
      KnownGateway gateway = gateway(entry);
      if (gateway == null) {
        String fault = "No gateway is called \"" + entry.origin().gateway() + "\".";
        senders.count(entry.sender(), Kind.UNKNOWN_GATEWAY, fault);
      } else {
        out.add(new LogStore.Located(entry, gateway, at(entry)));
      }
    }
    return out;
  }

  private KnownGateway gateway(LogEntry entry) {
    return gateways.get(entry.origin().gateway().toLowerCase(Locale.ROOT));
  }

  private static Instant at(LogEntry entry) {
    Instant at = entry.decision() == null ? entry.hits().lastAt() : entry.decision().startedAt();
    boolean plausible =
        at.isAfter(entry.receivedAt().minus(OLDEST))
            && at.isBefore(entry.receivedAt().plus(NEWEST));
    return plausible ? at : entry.receivedAt();
  }

  /** Drops the days that are older than the log is kept. */
  @Scheduled(every = "1h", delayed = "1m")
  void dropOld() {
    LocalDate oldest = LocalDate.now(ZoneOffset.UTC).minusDays(config.keep().toDays());
    database.inTransaction(
        "dropping old log records",
        sql -> {
          LogStore.dropBefore(sql, oldest);
          return null;
        });
  }
}
