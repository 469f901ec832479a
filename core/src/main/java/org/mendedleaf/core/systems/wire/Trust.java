package org.mendedleaf.core.systems.wire;

import java.net.Socket;
import java.security.GeneralSecurityException;
import java.security.KeyStore;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.security.cert.CertificateEncodingException;
import java.security.cert.CertificateException;
import java.security.cert.CertificateExpiredException;
import java.security.cert.CertificateNotYetValidException;
import java.security.cert.X509Certificate;
import javax.net.ssl.SSLContext;
import javax.net.ssl.SSLEngine;
import javax.net.ssl.TrustManager;
import javax.net.ssl.TrustManagerFactory;
import javax.net.ssl.X509ExtendedTrustManager;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.systems.Endpoint;

/**
 * By whose certificate a system is known: one that was chosen by its fingerprint, whatever it says and whoever signed it, and no
 * other then; or any that those have signed whom this computer trusts, for the name that was asked (RFC 6125).
 */
final class Trust extends X509ExtendedTrustManager {

    private final X509ExtendedTrustManager platform;
    private final String chosen;

    private Trust(X509ExtendedTrustManager platform, String chosen) {
        this.platform = platform;
        this.chosen = chosen;
    }

    /** Why a certificate is not enough. */
    enum Why {
        /** Nobody whom this computer trusts has signed it. */
        SIGNER,
        /** It is for another name. */
        NAME,
        /** It counts no more, or not yet. */
        DATE,
        /** Another one was chosen. */
        OTHER
    }

    /** The certificate that a system showed, and that is not enough. */
    static final class Untrusted extends CertificateException {
        private static final long serialVersionUID = 1;
        private final transient X509Certificate shown;
        private final Why why;

        private Untrusted(X509Certificate shown, Why why, @Nullable Throwable cause) {
            super(why.name(), cause);
            this.shown = shown;
            this.why = why;
        }

        X509Certificate shown() {
            return shown;
        }

        Why why() {
            return why;
        }

        /** The one that made a connection fail; null when something else did. */
        static @Nullable Untrusted in(Throwable failure) {
            for (Throwable at = failure; at != null; at = at.getCause()) {
                if (at instanceof Untrusted u) {
                    return u;
                }
            }
            return null;
        }
    }

    /** What connections are made with. */
    static SSLContext context(String chosen) {
        try {
            TrustManagerFactory factory = TrustManagerFactory.getInstance(TrustManagerFactory.getDefaultAlgorithm());
            factory.init((KeyStore) null);
            for (TrustManager manager : factory.getTrustManagers()) {
                if (manager instanceof X509ExtendedTrustManager platform) {
                    SSLContext context = SSLContext.getInstance("TLS");
                    context.init(null, new TrustManager[] {new Trust(platform, chosen)}, null);
                    return context;
                }
            }
        } catch (GeneralSecurityException e) {
            throw new IllegalStateException(e);
        }
        throw new IllegalStateException("expected a trust manager of the platform, got none");
    }

    /** The fingerprint of a certificate: the SHA-256 digest of all of it, as people compare it. */
    static String fingerprint(X509Certificate certificate) throws CertificateEncodingException {
        try {
            return Endpoint.fingerprint(MessageDigest.getInstance("SHA-256").digest(certificate.getEncoded()));
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException(e);
        }
    }

    private interface Check {
        void run() throws CertificateException;
    }

    private void check(X509Certificate[] chain, String type, Check whole) throws CertificateException {
        if (!chosen.isEmpty()) {
            if (!fingerprint(chain[0]).equals(chosen)) {
                throw new Untrusted(chain[0], Why.OTHER, null);
            }
            return;
        }
        try {
            whole.run();
        } catch (CertificateException e) {
            throw new Untrusted(chain[0], why(chain, type), e);
        }
    }

    private Why why(X509Certificate[] chain, String type) {
        try {
            chain[0].checkValidity();
            platform.checkServerTrusted(chain, type);
            // The signer is trusted: what was wrong is the name.
            return Why.NAME;
        } catch (CertificateExpiredException | CertificateNotYetValidException e) {
            return Why.DATE;
        } catch (CertificateException e) {
            return Why.SIGNER;
        }
    }

    @Override
    public void checkServerTrusted(X509Certificate[] chain, String type, SSLEngine engine) throws CertificateException {
        check(chain, type, () -> platform.checkServerTrusted(chain, type, engine));
    }

    @Override
    public void checkServerTrusted(X509Certificate[] chain, String type, Socket socket) throws CertificateException {
        check(chain, type, () -> platform.checkServerTrusted(chain, type, socket));
    }

    @Override
    public void checkServerTrusted(X509Certificate[] chain, String type) throws CertificateException {
        check(chain, type, () -> platform.checkServerTrusted(chain, type));
    }

    @Override
    public void checkClientTrusted(X509Certificate[] chain, String type, SSLEngine engine) throws CertificateException {
        platform.checkClientTrusted(chain, type, engine);
    }

    @Override
    public void checkClientTrusted(X509Certificate[] chain, String type, Socket socket) throws CertificateException {
        platform.checkClientTrusted(chain, type, socket);
    }

    @Override
    public void checkClientTrusted(X509Certificate[] chain, String type) throws CertificateException {
        platform.checkClientTrusted(chain, type);
    }

    @Override
    public X509Certificate[] getAcceptedIssuers() {
        return platform.getAcceptedIssuers();
    }
}
