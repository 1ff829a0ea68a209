package dev.ironsieve.server.directory;

import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Optional;

/** Where the directory is and what in it is of interest; see {@link DirectoryConfig}. */
public record DirectorySource(
    String url,
    boolean startTls,
    Optional<Path> certificates,
    Optional<String> bindDn,
    Optional<String> password,
    String base,
    String personFilter,
    String personId,
    String personName,
    List<String> personAttributes,
    String groupFilter,
    String groupName,
    List<String> groupMembers,
    int pageSize,
    Duration timeout,
    Duration longest) {

  /** The configured directory, if any; at {@code url} instead, if it is given. */
  public static Optional<DirectorySource> of(DirectoryConfig config, Optional<String> url) {
    return url.or(config::url)
        .map(
            at ->
                new DirectorySource(
                    at,
                    config.startTls(),
                    config.certificates(),
                    config.bindDn(),
                    config.password(),
                    config.base().orElse(""),
                    config.personFilter(),
                    config.personId(),
                    config.personName(),
                    config.personAttributes(),
                    config.groupFilter(),
                    config.groupName(),
                    config.groupMembers(),
                    config.pageSize(),
                    config.timeout(),
                    config.longest()));
  }
}
