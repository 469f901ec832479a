package org.mendedleaf.standins;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.net.InetAddress;
import java.net.Socket;
import java.net.URI;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.GeneralSecurityException;
import java.security.KeyStore;
import java.security.MessageDigest;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.List;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.stream.Stream;
import javax.net.ssl.KeyManagerFactory;
import javax.net.ssl.SSLContext;
import javax.net.ssl.SSLServerSocket;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Stands before a stand-in and speaks TLS for it, with a certificate that it signed itself, as the server in a small office does:
 * what comes in decrypted goes on to the stand-in, byte by byte.
 */
public final class TlsFront implements AutoCloseable {

    private static final Logger log = LoggerFactory.getLogger(TlsFront.class);

    /** So many connections at a time; further ones wait. */
    private static final int MOST = 64;

    private static final char[] PASSWORD = "stand-in".toCharArray();

    private final SSLServerSocket server;
    private final URI behind;
    private final String name;
    private final String fingerprint;
    private final ExecutorService threads = Executors.newFixedThreadPool(MOST * 2 + 1, r -> {
        Thread thread = new Thread(r, "tls front");
        thread.setDaemon(true);
        return thread;
    });
    private final Set<Socket> open = ConcurrentHashMap.newKeySet();

    /**
     * Begins to listen.
     *
     * @param behind address of the stand-in
     * @param name for which the certificate is
     * @param port to listen at; 0 for any
     * @param validity further arguments for the tool that makes the certificate, such as {@code -startdate -10d}
     */
    public TlsFront(String behind, String name, int port, String... validity) throws IOException {
        this.behind = URI.create(behind);
        this.name = name;
        Path folder = Files.createTempDirectory("tls-front");
        try {
            KeyStore keys = keys(folder.resolve("keys.p12"), List.of(validity));
            fingerprint = HexFormat.ofDelimiter(":")
                    .withUpperCase()
                    .formatHex(MessageDigest.getInstance("SHA-256")
                            .digest(keys.getCertificate("front").getEncoded()));
            KeyManagerFactory managers = KeyManagerFactory.getInstance(KeyManagerFactory.getDefaultAlgorithm());
            managers.init(keys, PASSWORD);
            SSLContext context = SSLContext.getInstance("TLS");
            context.init(managers.getKeyManagers(), null, null);
            server = (SSLServerSocket)
                    context.getServerSocketFactory().createServerSocket(port, MOST, InetAddress.getLoopbackAddress());
        } catch (GeneralSecurityException e) {
            throw new IOException(e);
        } finally {
            remove(folder);
        }
        threads.execute(this::listen);
    }

    /** A key and its certificate, by the tool of the JDK: the JDK has no other way to make one. */
    private KeyStore keys(Path file, List<String> validity) throws IOException, GeneralSecurityException {
        String password = new String(PASSWORD);
        List<String> command = new ArrayList<>(List.of(
                Path.of(System.getProperty("java.home"), "bin", "keytool").toString(),
                // It is over before a second compiler has made up for its own work.
                "-J-XX:TieredStopAtLevel=1",
                "-J-XX:+UseSerialGC",
                "-genkeypair",
                "-alias",
                "front"));
        command.addAll(List.of("-keyalg", "EC", "-dname", "CN=" + name, "-ext", "SAN=dns:" + name));
        command.addAll(List.of("-storetype", "PKCS12", "-keystore", file.toString(), "-storepass", password));
        command.addAll(validity);
        Process tool = new ProcessBuilder(command).redirectErrorStream(true).start();
        String said = new String(tool.getInputStream().readAllBytes(), java.nio.charset.Charset.defaultCharset());
        try {
            if (tool.waitFor() != 0) {
                throw new IOException("expected a certificate, got: " + said);
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new java.io.InterruptedIOException();
        }
        KeyStore keys = KeyStore.getInstance("PKCS12");
        try (InputStream in = Files.newInputStream(file)) {
            keys.load(in, PASSWORD);
        }
        return keys;
    }

    private static void remove(Path folder) throws IOException {
        try (Stream<Path> files = Files.list(folder)) {
            files.forEach(f -> {
                try {
                    Files.delete(f);
                } catch (IOException e) {
                    throw new UncheckedIOException(e);
                }
            });
        }
        Files.delete(folder);
    }

    /** Where it is reached: by the name of this computer, whatever name the certificate has. */
    public String address() {
        String path = behind.getRawPath();
        return "https://localhost:" + port() + (path == null ? "" : path);
    }

    /** Where it listens. */
    public int port() {
        return server.getLocalPort();
    }

    /** The SHA-256 digest of its certificate, in pairs of hexadecimal digits between colons. */
    public String fingerprint() {
        return fingerprint;
    }

    private void listen() {
        while (!server.isClosed()) {
            try {
                meet(server.accept());
            } catch (IOException e) {
                log.debug("a connection that nothing came of", e);
            }
        }
    }

    private void meet(Socket near) throws IOException {
        Socket far;
        try {
            far = new Socket(behind.getHost(), behind.getPort());
        } catch (IOException e) {
            near.close();
            throw e;
        }
        open.add(near);
        open.add(far);
        threads.execute(() -> pipe(near, far));
        threads.execute(() -> pipe(far, near));
    }

    private void pipe(Socket from, Socket to) {
        try (from;
                to;
                InputStream in = from.getInputStream();
                OutputStream out = to.getOutputStream()) {
            in.transferTo(out);
        } catch (IOException e) {
            log.debug("one side hung up: so does the other", e);
        } finally {
            open.remove(from);
            open.remove(to);
        }
    }

    @Override
    public void close() throws IOException {
        server.close();
        for (Socket each : open) {
            each.close();
        }
        threads.shutdownNow();
    }
}
