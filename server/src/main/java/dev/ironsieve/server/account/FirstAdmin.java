package dev.ironsieve.server.account;

import io.quarkus.runtime.StartupEvent;
import jakarta.enterprise.event.Observes;
import org.eclipse.microprofile.config.inject.ConfigProperty;
import org.jboss.logging.Logger;

/**
 * At the start outside of the demo: disables its accounts, and offers a link for the first admin.
 */
public class FirstAdmin {
  private static final Logger LOG = Logger.getLogger(FirstAdmin.class);

  private final Accounts accounts;
  private final boolean demo;

  FirstAdmin(Accounts accounts, @ConfigProperty(name = "iron-sieve.demo") boolean demo) {
    this.accounts = accounts;
    this.demo = demo;
  }

  void onStart(@Observes StartupEvent event) {
    if (!demo) {
      accounts.allowDemo(false);
      accounts.offerSetup().ifPresent(token -> LOG.infof("set-up link: /setup?token=%s", token));
    }
  }
}
