package org.mendedleaf.standins;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.security.cert.X509Certificate;
import java.util.HexFormat;
import java.util.Locale;
import javax.net.ssl.SSLContext;
import javax.net.ssl.SSLSocket;
import javax.net.ssl.TrustManager;
import javax.net.ssl.X509TrustManager;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Before a stand-in, encrypted: what is asked goes on to it and what it answers comes back, under the certificate that is told. */
class TlsFrontTest {

    @TempDir
    Path temp;

    /** Trusts anybody, and remembers whom. */
    private static final class Anybody implements X509TrustManager {
        private X509Certificate[] seen = {};

        @Override
        public void checkClientTrusted(X509Certificate[] chain, String type) {
            throw new UnsupportedOperationException();
        }

        @Override
        public void checkServerTrusted(X509Certificate[] chain, String type) {
            seen = chain.clone();
        }

        @Override
        public X509Certificate[] getAcceptedIssuers() {
            return new X509Certificate[0];
        }
    }

    private static SSLSocket connect(TlsFront front, Anybody trust) throws Exception {
        SSLContext context = SSLContext.getInstance("TLS");
        context.init(null, new TrustManager[] {trust}, null);
        return (SSLSocket) context.getSocketFactory().createSocket("localhost", front.port());
    }

    private static String ask(SSLSocket socket, String request) throws IOException {
        try (OutputStream out = socket.getOutputStream();
                InputStream in = socket.getInputStream()) {
            out.write(request.getBytes(StandardCharsets.US_ASCII));
            out.flush();
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        }
    }

    @Test
    void whatIsAskedIsAnsweredUnderTheCertificateThatIsTold() throws Exception {
        try (ObjectStore store = new ObjectStore(temp, "ines");
                TlsFront front = new TlsFront(store.address(), "nas.example", 0)) {
            assertThat(URI.create(front.address()).getPort()).isEqualTo(front.port());
            Anybody trust = new Anybody();
            String answer;
            try (SSLSocket socket = connect(front, trust)) {
                answer = ask(
                        socket,
                        "GET /state HTTP/1.1\r\nHost: localhost\r\nConnection: close\r\nAuthorization: Bearer "
                                + store.token("ines") + "\r\n\r\n");
            }
            assertThat(answer).startsWith("HTTP/1.1 200").contains("object-store");
            assertThat(trust.seen[0].getSubjectX500Principal().getName()).isEqualTo("CN=nas.example");
            assertThat(front.fingerprint().replace(":", "").toLowerCase(Locale.ROOT))
                    .isEqualTo(HexFormat.of()
                            .formatHex(MessageDigest.getInstance("SHA-256").digest(trust.seen[0].getEncoded())));
        }
    }

    @Test
    void whereTheStandInIsAwayTheConnectionEndsAndTheNextOneIsTaken() throws Exception {
        String address;
        try (ObjectStore store = new ObjectStore(temp, "ines")) {
            address = store.address();
        }
        try (TlsFront front = new TlsFront(address, "localhost", 0)) {
            for (int i = 0; i < 3; i++) {
                assertThatThrownBy(() -> {
                            try (SSLSocket socket = connect(front, new Anybody())) {
                                assertThat(ask(socket, "GET / HTTP/1.1\r\n\r\n"))
                                        .isEmpty();
                                throw new IOException("nothing came");
                            }
                        })
                        .isInstanceOf(IOException.class);
            }
            try (ObjectStore store = new ObjectStore(temp, "ines");
                    SSLSocket socket = connect(front, new Anybody())) {
                assertThat(store.address()).isEqualTo(address);
                assertThat(ask(socket, "GET /state HTTP/1.1\r\nHost: a\r\nConnection: close\r\n\r\n"))
                        .startsWith("HTTP/1.1 401");
            }
        }
    }

    @Test
    void afterItsEndNobodyListensThere() throws Exception {
        int port;
        try (ObjectStore store = new ObjectStore(temp, "ines");
                TlsFront front = new TlsFront(store.address(), "localhost", 0)) {
            port = front.port();
        }
        assertThatThrownBy(() -> new java.net.Socket("localhost", port).close()).isInstanceOf(IOException.class);
    }

    @Test
    void aCertificateThatCannotBeMadeSaysWhy() {
        assertThatThrownBy(() -> new TlsFront("http://127.0.0.1:1", "localhost", 0, "-no-such-option"))
                .isInstanceOf(IOException.class)
                .hasMessageContaining("expected a certificate");
    }
}
