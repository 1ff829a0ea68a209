package dev.ironsieve.server.directory;

import static org.assertj.core.api.Assertions.assertThat;

import dev.ironsieve.server.presence.RadiusConfig;
import io.smallrye.config.EnvConfigSource;
import io.smallrye.config.PropertiesConfigSource;
import io.smallrye.config.SmallRyeConfig;
import io.smallrye.config.SmallRyeConfigBuilder;
import java.nio.file.Path;
import java.time.Duration;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;

/** The settings of the README's table, from the environment. */
class SettingsTest {
  private static SmallRyeConfig config(Map<String, String> environment) {
    return new SmallRyeConfigBuilder()
        .addDefaultInterceptors()
        .withConverter(Duration.class, 200, text -> Duration.ofMinutes(15))
        .withMapping(DirectoryConfig.class)
        .withMapping(RadiusConfig.class)
        .withSources(
            new PropertiesConfigSource(Map.of("iron-sieve.directory.every", "15m"), "own", 100))
        .withSources(new EnvConfigSource(environment, 300))
        .build();
  }

  @Test
  void comeFromTheEnvironment() {
    SmallRyeConfig config =
        config(
            Map.ofEntries(
                Map.entry("IRON_SIEVE_DIRECTORY_URL", "ldap://directory.example"),
                Map.entry("IRON_SIEVE_DIRECTORY_START_TLS", "true"),
                Map.entry("IRON_SIEVE_DIRECTORY_CERTIFICATES", "/etc/directory.pem"),
                Map.entry("IRON_SIEVE_DIRECTORY_BIND_DN", "cn=reader"),
                Map.entry("IRON_SIEVE_DIRECTORY_PASSWORD", "secret"),
                Map.entry("IRON_SIEVE_DIRECTORY_BASE", "dc=brindlemere"),
                Map.entry("IRON_SIEVE_DIRECTORY_PERSON_FILTER", "(objectClass=person)"),
                Map.entry("IRON_SIEVE_DIRECTORY_PERSON_ID", "mail"),
                Map.entry("IRON_SIEVE_DIRECTORY_PERSON_NAME", "displayName"),
                Map.entry("IRON_SIEVE_DIRECTORY_PERSON_ATTRIBUTES", "title,room"),
                Map.entry("IRON_SIEVE_DIRECTORY_GROUP_FILTER", "(objectClass=group)"),
                Map.entry("IRON_SIEVE_DIRECTORY_GROUP_NAME", "ou"),
                Map.entry("IRON_SIEVE_DIRECTORY_GROUP_MEMBERS", "member"),
                Map.entry("IRON_SIEVE_RADIUS_PORT", "1813"),
                Map.entry("IRON_SIEVE_RADIUS_HOST", "10.40.0.5"),
                Map.entry("IRON_SIEVE_RADIUS_SECRET", "between us")));
    DirectorySource source =
        DirectorySource.of(config.getConfigMapping(DirectoryConfig.class), Optional.empty())
            .orElseThrow();
    assertThat(source.url()).isEqualTo("ldap://directory.example");
    assertThat(source.startTls()).isTrue();
    assertThat(source.certificates()).contains(Path.of("/etc/directory.pem"));
    assertThat(source.bindDn()).contains("cn=reader");
    assertThat(source.password()).contains("secret");
    assertThat(source.base()).isEqualTo("dc=brindlemere");
    assertThat(source.personFilter()).isEqualTo("(objectClass=person)");
    assertThat(source.personId()).isEqualTo("mail");
    assertThat(source.personName()).isEqualTo("displayName");
    assertThat(source.personAttributes()).containsExactly("title", "room");
    assertThat(source.groupFilter()).isEqualTo("(objectClass=group)");
    assertThat(source.groupName()).isEqualTo("ou");
    assertThat(source.groupMembers()).containsExactly("member");
    RadiusConfig radius = config.getConfigMapping(RadiusConfig.class);
    assertThat(radius.port()).hasValue(1813);
    assertThat(radius.host()).isEqualTo("10.40.0.5");
    assertThat(radius.secret()).contains("between us");
  }

  @Test
  void areThoseOfTheReadmeIfNothingIsSaid() {
    SmallRyeConfig config = config(Map.of());
    DirectoryConfig directory = config.getConfigMapping(DirectoryConfig.class);
    assertThat(DirectorySource.of(directory, Optional.empty())).isEmpty();
    assertThat(directory.personFilter()).isEqualTo("(objectClass=inetOrgPerson)");
    assertThat(directory.personId()).isEqualTo("uid");
    assertThat(directory.personName()).isEqualTo("cn");
    assertThat(directory.personAttributes())
        .containsExactly("title", "employeeType", "departmentNumber");
    assertThat(directory.groupName()).isEqualTo("cn");
    assertThat(directory.groupMembers()).containsExactly("member", "uniqueMember", "memberUid");
    assertThat(config.getConfigMapping(RadiusConfig.class).port()).isEmpty();
  }
}
