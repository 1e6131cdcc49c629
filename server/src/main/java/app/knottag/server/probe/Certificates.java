package app.knottag.server.probe;

import app.knottag.core.reach.ServiceReply;
import java.net.Socket;
import java.security.GeneralSecurityException;
import java.security.KeyStore;
import java.security.cert.CertificateException;
import java.security.cert.X509Certificate;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.Arrays;
import java.util.Date;
import java.util.Objects;
import javax.net.ssl.SSLContext;
import javax.net.ssl.SSLEngine;
import javax.net.ssl.TrustManager;
import javax.net.ssl.TrustManagerFactory;
import javax.net.ssl.X509ExtendedTrustManager;
import javax.net.ssl.X509TrustManager;

/**
 * Takes any certificate for the time of one talk, to judge it afterwards: nothing secret is sent over that line. Its dates must
 * hold everywhere; who signed it, and for which name, matters outside the site's own ground only.
 */
final class Certificates extends X509ExtendedTrustManager {

    private X509Certificate[] chain = {};

    SSLContext context() {
        try {
            var context = SSLContext.getInstance("TLS");
            context.init(null, new TrustManager[] {this}, null);
            return context;
        } catch (GeneralSecurityException e) {
            throw new IllegalStateException(e);
        }
    }

    /** Whether any was shown. */
    boolean any() {
        return chain.length > 0;
    }

    /** Returns what was shown to a caller of this host. */
    ServiceReply.Certificate shown(String host, boolean ownGround) {
        return new ServiceReply.Certificate(
                any() ? chain[0].getNotAfter().toInstant() : Instant.EPOCH, fault(host, ownGround));
    }

    private String fault(String host, boolean ownGround) {
        if (chain.length == 0) return "none was shown";
        Date now = new Date();
        if (chain[0].getNotAfter().before(now)) return "it ended on " + day(chain[0].getNotAfter());
        if (chain[0].getNotBefore().after(now)) return "it begins only on " + day(chain[0].getNotBefore());
        if (ownGround) return "";
        try {
            // By which key exchange it was shown does not matter to who has signed it.
            known().checkServerTrusted(chain, "UNKNOWN");
        } catch (CertificateException e) {
            return "nobody known has signed it";
        } catch (GeneralSecurityException e) {
            throw new IllegalStateException(e);
        }
        return names(host) ? "" : "it is not for " + host;
    }

    private boolean names(String host) {
        try {
            var names = chain[0].getSubjectAlternativeNames();
            return names != null
                    && names.stream()
                            .map(n -> String.valueOf(n.get(1)))
                            .anyMatch(n -> n.equalsIgnoreCase(host)
                                    || n.startsWith("*.")
                                            && host.contains(".")
                                            && n.substring(1).equalsIgnoreCase(host.substring(host.indexOf('.'))));
        } catch (CertificateException e) {
            return false;
        }
    }

    private static X509TrustManager known() throws GeneralSecurityException {
        var factory = TrustManagerFactory.getInstance(TrustManagerFactory.getDefaultAlgorithm());
        factory.init((KeyStore) null);
        return (X509TrustManager) Objects.requireNonNull(Arrays.stream(factory.getTrustManagers())
                .filter(X509TrustManager.class::isInstance)
                .findFirst()
                .orElseThrow());
    }

    private static LocalDate day(Date date) {
        return LocalDate.ofInstant(date.toInstant(), ZoneOffset.UTC);
    }

    @Override
    public void checkServerTrusted(X509Certificate[] shown, String type, Socket socket) {
        chain = shown;
    }

    @Override
    public void checkServerTrusted(X509Certificate[] shown, String type, SSLEngine engine) {
        chain = shown;
    }

    @Override
    public void checkServerTrusted(X509Certificate[] shown, String type) {
        chain = shown;
    }

    @Override
    public void checkClientTrusted(X509Certificate[] shown, String type, Socket socket) throws CertificateException {
        throw new CertificateException("nobody calls here");
    }

    @Override
    public void checkClientTrusted(X509Certificate[] shown, String type, SSLEngine engine) throws CertificateException {
        throw new CertificateException("nobody calls here");
    }

    @Override
    public void checkClientTrusted(X509Certificate[] shown, String type) throws CertificateException {
        throw new CertificateException("nobody calls here");
    }

    @Override
    public X509Certificate[] getAcceptedIssuers() {
        return new X509Certificate[0];
    }
}
