package dev.ironsieve.server.demo;

import com.unboundid.ldap.listener.InMemoryDirectoryServer;
import com.unboundid.ldap.listener.InMemoryDirectoryServerConfig;
import com.unboundid.ldap.listener.InMemoryListenerConfig;
import com.unboundid.ldap.sdk.LDAPException;
import com.unboundid.ldif.LDIFException;
import com.unboundid.ldif.LDIFReader;
import dev.ironsieve.server.directory.Directory;
import dev.ironsieve.server.directory.DirectoryConfig;
import dev.ironsieve.server.directory.DirectorySource;
import jakarta.annotation.PreDestroy;
import jakarta.enterprise.context.ApplicationScoped;
import java.io.IOException;
import java.io.InputStream;
import java.net.InetAddress;
import java.util.Optional;

/** Brindlemere's people in a directory of their own: an LDAP server in memory, on loopback. */
@ApplicationScoped
public class DemoDirectory {
  private static final String BASE = "dc=brindlemere,dc=example";

  private final Directory directory;
  private final DirectoryConfig config;
  private InMemoryDirectoryServer server;

  DemoDirectory(Directory directory, DirectoryConfig config) {
    this.directory = directory;
    this.config = config;
  }

  /** Starts it and has the directory read from there, if no other is configured. */
  void start() {
    if (config.url().isPresent()) {
      return;
    }
    try {
      InMemoryDirectoryServerConfig own = new InMemoryDirectoryServerConfig(BASE);
      InetAddress loopback = InetAddress.getLoopbackAddress();
      own.setListenerConfigs(InMemoryListenerConfig.createLDAPConfig("demo", loopback, 0, null));
      server = new InMemoryDirectoryServer(own);
      try (LDIFReader entries = ldif("/demo/directory.ldif")) {
        server.importFromLDIF(true, entries);
      }
      server.startListening();
    } catch (LDAPException | IOException e) {
      throw new IllegalStateException("the demo's directory does not start", e);
    }
    String url = "ldap://127.0.0.1:" + server.getListenPort();
    directory.use(DirectorySource.of(config, Optional.of(url)).orElseThrow());
  }

  /** Lets a week pass: people come, go, and change places. */
  void later() {
    if (server == null) {
      return;
    }
    try (LDIFReader changes = ldif("/demo/directory-later.ldif")) {
      for (var change = changes.readChangeRecord();
          change != null;
          change = changes.readChangeRecord()) {
        change.processChange(server);
      }
    } catch (LDIFException | LDAPException | IOException e) {
      throw new IllegalStateException("the demo's directory does not change", e);
    }
  }

  private static LDIFReader ldif(String name) {
    InputStream in = DemoDirectory.class.getResourceAsStream(name);
    return new LDIFReader(in);
  }

  @PreDestroy
  void stop() {
    if (server != null) {
      server.shutDown(true);
    }
  }
}
