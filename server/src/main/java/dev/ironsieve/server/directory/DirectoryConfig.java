package dev.ironsieve.server.directory;

import io.smallrye.config.ConfigMapping;
import io.smallrye.config.WithDefault;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Optional;

/** Where the directory is and what in it is of interest. */
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

  /** What a person is known by, for ever. */
  @WithDefault("uid")
  String personId();

  @WithDefault("cn")
  String personName();

  /** What else is read of people and can be said in rules. */
  @WithDefault("title,employeeType,departmentNumber")
  List<String> personAttributes();

  /** Which entries are groups (RFC 4515). */
  @WithDefault("(|(objectClass=groupOfNames)(objectClass=groupOfUniqueNames))")
  String groupFilter();

  @WithDefault("cn")
  String groupName();

  /** What names a group's members, by distinguished name or by the id of a person. */
  @WithDefault("member,uniqueMember,memberUid")
  List<String> groupMembers();

  /** Entries of one page (RFC 2696). */
  @WithDefault("500")
  int pageSize();

  /** How long after one reading the next begins. */
  Duration every();

  /** How long one answer may take. */
  @WithDefault("20s")
  Duration timeout();

  /** How long the whole reading may take. */
  @WithDefault("10m")
  Duration longest();
}
