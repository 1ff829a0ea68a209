package dev.ironsieve.core.signature;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HexFormat;
import java.util.List;
import java.util.Random;
import javax.crypto.Cipher;
import javax.crypto.spec.GCMParameterSpec;
import javax.crypto.spec.SecretKeySpec;
import org.junit.jupiter.api.Test;

class QuicInitialTest {
  private static final HexFormat HEX = HexFormat.of();
  private static final byte[] ID = HEX.parseHex("8394c8f03e515708");

  /** RFC 9001, appendix A.1. */
  @Test
  void derivesTheKeysOfTheStandard() throws Exception {
    QuicInitial.Keys keys = QuicInitial.keys(ID);
    assertThat(HEX.formatHex(keys.key())).isEqualTo("1f369613dd76d5467730efcbe3b1a22d");
    assertThat(HEX.formatHex(keys.iv())).isEqualTo("fa044b2f42a3fd3b46fb255c");
    assertThat(HEX.formatHex(keys.protection())).isEqualTo("9f50449e04a0e810283a1e9933adedd2");
  }

  /** An Initial packet around some frames, protected as RFC 9001, section 5 says. */
  private static byte[] packet(int number, byte[] frames, int size) throws Exception {
    QuicInitial.Keys keys = QuicInitial.keys(ID);
    int head = 1 + 4 + 1 + ID.length + 1 + 1 + 2;
    byte[] plain = Arrays.copyOf(frames, size - head - 2 - 16); // padding frames are zeros
    byte[] header = new byte[head + 2];
    header[0] = (byte) 0xc1; // a packet number of two bytes
    header[4] = 1;
    header[5] = (byte) ID.length;
    System.arraycopy(ID, 0, header, 6, ID.length);
    int length = 2 + plain.length + 16;
    header[head - 2] = (byte) (0x40 | length >> 8);
    header[head - 1] = (byte) length;
    header[head] = (byte) (number >> 8);
    header[head + 1] = (byte) number;
    byte[] nonce = keys.iv().clone();
    nonce[10] ^= (byte) (number >> 8);
    nonce[11] ^= (byte) number;
    Cipher gcm = Cipher.getInstance("AES/GCM/NoPadding");
    gcm.init(
        Cipher.ENCRYPT_MODE,
        new SecretKeySpec(keys.key(), "AES"),
        new GCMParameterSpec(128, nonce));
    gcm.updateAAD(header);
    byte[] out = Arrays.copyOf(header, header.length + plain.length + 16);
    gcm.doFinal(plain, 0, plain.length, out, header.length);
    Cipher ecb = Cipher.getInstance("AES/ECB/NoPadding");
    ecb.init(Cipher.ENCRYPT_MODE, new SecretKeySpec(keys.protection(), "AES"));
    byte[] mask = ecb.doFinal(out, head + 4, 16);
    out[0] ^= (byte) (mask[0] & 0x0f);
    out[head] ^= mask[1];
    out[head + 1] ^= mask[2];
    return out;
  }

  /** CRYPTO frames of some pieces of a message, in the order of the pieces. */
  private static byte[] frames(byte[] message, int... cuts) {
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    for (int i = 0; i + 1 < cuts.length; i += 2) {
      int length = cuts[i + 1] - cuts[i];
      out.write(6);
      out.write(0x40 | cuts[i] >> 8);
      out.write(cuts[i]);
      out.write(0x40 | length >> 8);
      out.write(length);
      out.write(message, cuts[i], length);
      out.write(1); // a ping between them
    }
    return out.toByteArray();
  }

  @Test
  void readsTheNameOutOfPacketsThatAreCutAndTurned() throws Exception {
    byte[] hello = Hello.message("meet.brassbell.example", 900, "h3");
    byte[] first = packet(0, frames(hello, 300, 600, 0, 300), 1200);
    byte[] second = packet(1, frames(hello, 600, hello.length), 1200);
    TlsHello expected = new TlsHello("meet.brassbell.example", List.of("h3"));
    assertThat(QuicInitial.of(List.of(first, second))).isEqualTo(expected);
    assertThat(QuicInitial.of(List.of(first))).isNull();
    byte[] whole = packet(7, frames(hello, 0, hello.length), 1252);
    assertThat(QuicInitial.of(List.of(whole))).isEqualTo(expected);
  }

  @Test
  void whatIsNotProtectedByTheKeysSaysNothing() throws Exception {
    byte[] hello = Hello.message("a.example", 0, "h3");
    byte[] good = packet(0, frames(hello, 0, hello.length), 1200);
    Random random = new Random(5);
    for (int i = 0; i < 2000; i++) {
      byte[] bad = good.clone();
      bad[random.nextInt(bad.length)] ^= (byte) (1 + random.nextInt(255));
      assertThat(QuicInitial.of(List.of(bad))).isNull();
    }
    List<byte[]> noise = new ArrayList<>();
    for (int i = 0; i < 3; i++) {
      byte[] bytes = new byte[1200];
      random.nextBytes(bytes);
      System.arraycopy(good, 0, bytes, 0, 18);
      noise.add(bytes);
    }
    assertThat(QuicInitial.of(noise)).isNull();
  }
}
