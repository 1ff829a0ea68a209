package dev.ironsieve.server.demo;

import dev.ironsieve.core.model.Rulebase;
import dev.ironsieve.formats.Json;
import dev.ironsieve.formats.document.RulebaseDocument;
import dev.ironsieve.formats.document.ToModel;
import dev.ironsieve.server.account.Accounts;
import dev.ironsieve.server.account.Role;
import dev.ironsieve.server.rulebase.Rulebases;
import io.quarkus.runtime.StartupEvent;
import jakarta.enterprise.event.Observes;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import org.eclipse.microprofile.config.inject.ConfigProperty;
import org.jboss.logging.Logger;

/** What happens once at the start: the demo's data, or the link for the first admin. */
public class Start {
  private static final Logger LOG = Logger.getLogger(Start.class);

  /** The demo's password for every account. It exists in the demo only. */
  private static final String PASSWORD = "brindlemere-demo";

  private final Accounts accounts;
  private final Rulebases rulebases;
  private final boolean demo;

  Start(
      Accounts accounts,
      Rulebases rulebases,
      @ConfigProperty(name = "iron-sieve.demo") boolean demo) {
    this.accounts = accounts;
    this.rulebases = rulebases;
    this.demo = demo;
  }

  void onStart(@Observes StartupEvent event) {
    if (demo) {
      loadDemo();
    } else {
      accounts.offerSetup().ifPresent(token -> LOG.infof("set-up link: /setup?token=%s", token));
    }
  }

  private void loadDemo() {
    if (accounts.offerSetup().isPresent()) {
      accounts.add("ruth.okell", "Ruth Okell", Role.PUBLISHER, PASSWORD);
      accounts.add("tomas.wren", "Tomas Wren", Role.EDITOR, PASSWORD);
      accounts.add("ines.calder", "Ines Calder", Role.VIEWER, PASSWORD);
      accounts.add("odile.marsh", "Odile Marsh", Role.ADMIN, PASSWORD);
    }
    if (rulebases.none()) {
      rulebases.add(read("/demo/harbour.json"), null);
    }
  }

  private static Rulebase read(String resource) {
    try (InputStream in = Start.class.getResourceAsStream(resource)) {
      return ToModel.rulebase(Json.read(in.readAllBytes(), RulebaseDocument.class));
    } catch (IOException e) {
      throw new UncheckedIOException(resource, e);
    }
  }
}
