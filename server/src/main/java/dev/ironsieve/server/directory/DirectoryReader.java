package dev.ironsieve.server.directory;

import com.unboundid.asn1.ASN1OctetString;
import com.unboundid.ldap.sdk.DN;
import com.unboundid.ldap.sdk.Entry;
import com.unboundid.ldap.sdk.ExtendedResult;
import com.unboundid.ldap.sdk.LDAPConnection;
import com.unboundid.ldap.sdk.LDAPConnectionOptions;
import com.unboundid.ldap.sdk.LDAPException;
import com.unboundid.ldap.sdk.LDAPURL;
import com.unboundid.ldap.sdk.ResultCode;
import com.unboundid.ldap.sdk.SearchRequest;
import com.unboundid.ldap.sdk.SearchResult;
import com.unboundid.ldap.sdk.SearchScope;
import com.unboundid.ldap.sdk.controls.SimplePagedResultsControl;
import com.unboundid.ldap.sdk.extensions.StartTLSExtendedRequest;
import com.unboundid.util.ssl.AggregateTrustManager;
import com.unboundid.util.ssl.HostNameTrustManager;
import com.unboundid.util.ssl.JVMDefaultTrustManager;
import com.unboundid.util.ssl.PEMFileTrustManager;
import com.unboundid.util.ssl.SSLUtil;
import dev.ironsieve.core.directory.Snapshot;
import java.io.IOException;
import java.security.GeneralSecurityException;
import java.security.KeyStoreException;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import javax.net.ssl.TrustManager;
import javax.net.ssl.X509TrustManager;

/** Reads a directory over LDAP (RFC 4511), page by page (RFC 2696). It never writes. */
public final class DirectoryReader implements AutoCloseable {
  private static final int LDAP = 389;
  private static final int LDAPS = 636;

  private final DirectorySource source;
  private final LDAPConnection connection;
  private final long until;

  private DirectoryReader(DirectorySource source) throws DirectoryFault {
    this.source = source;
    until = System.nanoTime() + source.longest().toNanos();
    connection = connected();
  }

  /**
   * Reads all people and groups.
   *
   * @param edition what to call the snapshot
   * @throws DirectoryFault if anything is missing in the end; no part of it is then of use
   */
  public static Snapshot read(DirectorySource source, String edition) throws DirectoryFault {
    try (DirectoryReader reader = new DirectoryReader(source)) {
      Set<String> wanted = new LinkedHashSet<>(source.personAttributes());
      wanted.add(source.personId());
      wanted.add(source.personName());
      List<Entry> people =
          reader.entries("people", source.personFilter(), wanted, Snapshot.MAX_PEOPLE);
      wanted.clear();
      wanted.addAll(source.groupMembers());
      wanted.add(source.groupName());
      List<Entry> groups =
          reader.entries("groups", source.groupFilter(), wanted, Snapshot.MAX_GROUPS);
      return new DirectoryEntries(source, people, groups).snapshot(edition);
    }
  }

  @Override
  public void close() {
    connection.close();
  }

  private LDAPConnection connected() throws DirectoryFault {
    LDAPURL url;
    try {
      url = new LDAPURL(source.url());
    } catch (LDAPException e) {
      throw new DirectoryFault(
          "Its address: expected ldap://HOST:PORT, found \"" + source.url() + "\".", e);
    }
    boolean secure = url.getScheme().equals("ldaps");
    int port = url.portProvided() ? url.getPort() : secure ? LDAPS : LDAP;
    String step = "Connecting to " + url.getHost() + " port " + port;
    LDAPConnection made = null;
    try {
      SSLUtil tls = new SSLUtil(trust(url.getHost()));
      made = secure ? new LDAPConnection(tls.createSSLSocketFactory()) : new LDAPConnection();
      made.setConnectionOptions(options());
      made.connect(url.getHost(), port, (int) source.timeout().toMillis());
      if (source.startTls() && !secure) {
        step = "Turning to TLS";
        ExtendedResult answer =
            made.processExtendedOperation(new StartTLSExtendedRequest(tls.createSSLContext()));
        if (answer.getResultCode() != ResultCode.SUCCESS) {
          throw new LDAPException(answer.getResultCode(), answer.getDiagnosticMessage());
        }
      }
      step = "Signing in";
      if (source.bindDn().isPresent()) {
        made.bind(source.bindDn().get(), source.password().orElse(""));
      }
      return made;
    } catch (LDAPException e) {
      if (made != null) {
        made.close();
      }
      throw failed(step, e);
    } catch (GeneralSecurityException | IOException e) {
      throw new DirectoryFault(step + ": " + e.getMessage(), e);
    }
  }

  /** A certificate has to be vouched for and to be that of the host, under StartTLS too. */
  private TrustManager trust(String host) throws IOException, KeyStoreException {
    X509TrustManager vouching =
        source.certificates().isPresent()
            ? new PEMFileTrustManager(source.certificates().get().toFile())
            : JVMDefaultTrustManager.getInstance();
    return new AggregateTrustManager(true, vouching, new HostNameTrustManager(false, host));
  }

  private LDAPConnectionOptions options() {
    LDAPConnectionOptions options = new LDAPConnectionOptions();
    options.setConnectTimeoutMillis((int) source.timeout().toMillis());
    options.setResponseTimeoutMillis(source.timeout().toMillis());
    options.setFollowReferrals(false);
    options.setAbandonOnTimeout(true);
    return options;
  }

  private List<Entry> entries(String what, String filter, Set<String> attributes, int most)
      throws DirectoryFault {
    List<Entry> out = new ArrayList<>();
    ASN1OctetString cookie = null;
    do {
      String step = "Reading " + what + " after " + out.size() + " of them";
      if (System.nanoTime() > until) {
        throw new DirectoryFault(
            step + ": it took longer than " + source.longest().toSeconds() + " s in all.");
      }
      int before = out.size();
      ASN1OctetString next;
      try {
        SearchRequest request =
            new SearchRequest(
                source.base(), SearchScope.SUB, filter, attributes.toArray(String[]::new));
        request.addControl(new SimplePagedResultsControl(source.pageSize(), cookie, true));
        SearchResult result = connection.search(request);
        out.addAll(result.getSearchEntries());
        SimplePagedResultsControl page = SimplePagedResultsControl.get(result);
        next = page != null && page.moreResultsToReturn() ? page.getCookie() : null;
      } catch (LDAPException e) {
        throw failed(step, e);
      }
      if (out.size() > most) {
        throw new DirectoryFault(step + ": expected at most " + most + ", found more.");
      }
      if (next != null && out.size() == before) {
        throw new DirectoryFault(step + ": the directory promises more and sends nothing.");
      }
      cookie = next;
    } while (cookie != null);
    return out;
  }

  private static DirectoryFault failed(String step, LDAPException e) {
    return new DirectoryFault(
        step + ": " + e.getResultCode().getName() + " (" + e.getMessage() + ")", e);
  }

  /** The one form of a distinguished name, so that two ways to write it are the same. */
  static String normal(String dn) {
    try {
      return new DN(dn).toNormalizedString();
    } catch (LDAPException e) {
      return null;
    }
  }
}
