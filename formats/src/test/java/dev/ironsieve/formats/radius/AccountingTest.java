package dev.ironsieve.formats.radius;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.ironsieve.core.sets.Address;
import dev.ironsieve.formats.InvalidDocument;
import dev.ironsieve.formats.radius.Accounting.Status;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.util.Arrays;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;

class AccountingTest {
  private static final byte[] SECRET = "between us".getBytes(StandardCharsets.US_ASCII);

  private static byte[] request(String address) {
    return Accounting.request(
        7, Status.START, "maya.lind", Address.parse(address), "managed", "s-1", SECRET);
  }

  @Test
  void readsWhoIsWhere() throws Exception {
    for (String address : new String[] {"10.4.2.9", "2001:db8:4::9"}) {
      byte[] packet = request(address);
      Accounting read = Accounting.read(Arrays.copyOf(packet, packet.length + 9), SECRET);
      assertThat(read.status()).isEqualTo(Status.START);
      assertThat(read.user()).isEqualTo("maya.lind");
      assertThat(read.address()).hasToString(address);
      assertThat(read.session()).isEqualTo("s-1");
      assertThat(read.device()).isEqualTo("managed");
      // RFC 2866, section 3: MD5(Code + ID + Length + Request Authenticator + Secret).
      byte[] answer = read.answer();
      MessageDigest md5 = MessageDigest.getInstance("MD5");
      md5.update(new byte[] {5, 7, 0, 20});
      md5.update(packet, 4, 16);
      assertThat(Arrays.copyOf(answer, 4)).isEqualTo(new byte[] {5, 7, 0, 20});
      assertThat(Arrays.copyOfRange(answer, 4, 20)).isEqualTo(md5.digest(SECRET));
    }
  }

  @ParameterizedTest
  @EnumSource(Status.class)
  void everyStatusIsReadBack(Status status) {
    byte[] packet =
        Accounting.request(1, status, "ben.holm", Address.parse("10.4.2.9"), null, "s", SECRET);
    assertThat(Accounting.read(packet, SECRET).status()).isEqualTo(status);
    assertThat(Accounting.read(packet, SECRET).device()).isNull();
    assertThat(packet[25] & 0xff).isEqualTo(new int[] {1, 2, 3, 7}[status.ordinal()]);
  }

  @Test
  void anotherSecretIsNoSecret() {
    assertThatThrownBy(() -> Accounting.read(request("10.4.2.9"), new byte[] {1}))
        .isInstanceOf(InvalidDocument.class)
        .hasMessageContaining("made with the shared secret");
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      textBlock =
          """
          0  | 1   | code 4, an accounting request, found 1
          3  | 200 | byte 2: expected 20 to
          3  | 19  | byte 2: expected 20 to
          21 | 7   | shared secret
          """)
  void saysWhichByteIsWrong(int at, int value, String says) {
    byte[] packet = request("10.4.2.9");
    packet[at] = (byte) value;
    assertThatThrownBy(() -> Accounting.read(packet, SECRET)).hasMessageContaining(says);
  }

  /** Whoever knows the secret can still send nonsense. */
  @Test
  void nonsenseWithTheRightSecretIsRefusedOrRead() throws Exception {
    Random random = new Random(31);
    int refused = 0;
    for (int i = 0; i < 20_000; i++) {
      byte[] packet = request("10.4.2.9");
      for (int changes = 1 + random.nextInt(3); changes > 0; changes--) {
        packet[20 + random.nextInt(packet.length - 20)] = (byte) random.nextInt(256);
      }
      Arrays.fill(packet, 4, 20, (byte) 0);
      MessageDigest md5 = MessageDigest.getInstance("MD5");
      md5.update(packet);
      System.arraycopy(md5.digest(SECRET), 0, packet, 4, 16);
      try {
        assertThat(Accounting.read(packet, SECRET).status()).isNotNull();
      } catch (InvalidDocument e) {
        refused++;
      }
    }
    assertThat(refused).isBetween(1000, 19_000);
  }
}
