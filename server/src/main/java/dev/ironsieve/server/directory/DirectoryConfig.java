package dev.ironsieve.server.directory;

import io.smallrye.config.ConfigMapping;
import io.smallrye.config.WithDefault;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Optional;

/** Settings of the directory: its address, and which entries are read. */
@ConfigMapping(prefix = "iron-sieve.directory")
public interface DirectoryConfig {
  /** {@code ldap://HOST:PORT} or {@code ldaps://HOST:PORT}; without it there is no directory. */
  Optional<String> url();

  /** Whether an {@code ldap} connection changes to TLS as its first step (RFC 4511, 4.14). */
  @WithDefault("false")
  boolean startTls();

  /** Certificates in PEM that vouch for the directory; those that Java trusts if left out. */
  Optional<Path> certificates();

  /** The distinguished name to sign in with; nobody if left out. */
  Optional<String> bindDn();

  Optional<String> password();

  /** Below which everything is looked for. */
  Optional<String> base();

  /** Which entries are people (RFC 4515). */
  @WithDefault("(objectClass=inetOrgPerson)")
  String personFilter();

  /** The attribute that identifies a person permanently. */
  @WithDefault("uid")
  String personId();

  @WithDefault("cn")
  String personName();

  /** Further attributes of people that rules can use. */
  @WithDefault("title,employeeType,departmentNumber")
  List<String> personAttributes();

  /** Which entries are groups (RFC 4515). */
  @WithDefault("(|(objectClass=groupOfNames)(objectClass=groupOfUniqueNames))")
  String groupFilter();

  @WithDefault("cn")
  String groupName();

  /** The attribute with a group's members, by distinguished name or by the id of a person. */
  @WithDefault("member,uniqueMember,memberUid")
  List<String> groupMembers();

  /** Entries of one page (RFC 2696). */
  @WithDefault("500")
  int pageSize();

  /** The time from one reading to the next. */
  Duration every();

  /** The time limit of one answer. */
  @WithDefault("20s")
  Duration timeout();

  /** The time limit of a whole reading. */
  @WithDefault("10m")
  Duration longest();
}
