package org.mendedleaf.core.service;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.OutputStreamWriter;
import java.io.Writer;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.channels.OverlappingFileLockException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.security.MessageDigest;
import java.security.SecureRandom;
import java.util.HexFormat;
import java.util.Optional;
import java.util.function.Supplier;
import org.mendedleaf.core.disk.Access;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * How the background service of a user is asked how it stands, and ended, by other programs of the same user: over a port of this
 * computer alone, with a word that stands in a file which only the owner of the settings can read. One service at a time has the
 * lock beside it; the lock goes with its process, however that ends.
 *
 * <p>Each connection is one line that asks, {@code WORD status} or {@code WORD stop}, and one line of JSON that answers.
 */
public final class ServiceChannel implements AutoCloseable {

    private static final Logger log = LoggerFactory.getLogger(ServiceChannel.class);

    private static final ObjectMapper JSON = new ObjectMapper();
    private static final String FILE = "service.json";
    private static final String LOCK = "service-lock";
    private static final int CONNECT_MILLIS = 1_000;
    private static final int ANSWER_MILLIS = 5_000;

    /** A line that asks is no longer. Characters. */
    private static final int LINE_MOST = 200;

    private final Path file;
    private final FileChannel lockFile;
    private final ServerSocket server;
    private final String word;
    private final Supplier<ObjectNode> status;
    private final Runnable stop;

    private ServiceChannel(
            Path settings, FileChannel lockFile, ServerSocket server, Supplier<ObjectNode> status, Runnable stop) {
        this.file = settings.resolve(FILE);
        this.lockFile = lockFile;
        this.server = server;
        this.status = status;
        this.stop = stop;
        byte[] random = new byte[24];
        new SecureRandom().nextBytes(random);
        this.word = HexFormat.of().formatHex(random);
    }

    /**
     * Opens it for the service of these settings.
     *
     * @param status how the service stands, asked from another thread
     * @param stop told when somebody wants it to end
     * @return empty when another service of this user runs
     */
    public static Optional<ServiceChannel> open(Path settings, Supplier<ObjectNode> status, Runnable stop)
            throws IOException {
        Access.OWNER.createFolders(settings);
        Path lock = settings.resolve(LOCK);
        Access.OWNER.createFile(lock);
        FileChannel lockFile = FileChannel.open(lock, StandardOpenOption.WRITE);
        try {
            FileLock taken = lockFile.tryLock();
            if (taken == null) {
                lockFile.close();
                return Optional.empty();
            }
        } catch (OverlappingFileLockException e) {
            lockFile.close();
            return Optional.empty();
        }
        ServerSocket server = new ServerSocket();
        try {
            server.bind(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0));
            ServiceChannel channel = new ServiceChannel(settings, lockFile, server, status, stop);
            channel.announce();
            Thread thread = new Thread(channel::serve, "asked how the service stands");
            thread.setDaemon(true);
            thread.start();
            return Optional.of(channel);
        } catch (IOException | RuntimeException e) {
            server.close();
            lockFile.close();
            throw e;
        }
    }

    /** An object to answer with. */
    public static ObjectNode answer() {
        return JSON.createObjectNode();
    }

    private void announce() throws IOException {
        ObjectNode node = JSON.createObjectNode()
                .put("port", server.getLocalPort())
                .put("word", word)
                .put("process", ProcessHandle.current().pid());
        Path beside = file.resolveSibling(FILE + ".new");
        Files.deleteIfExists(beside);
        Access.OWNER.createFile(beside);
        Files.writeString(beside, JSON.writeValueAsString(node));
        Files.move(beside, file, StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
    }

    private void serve() {
        while (!server.isClosed()) {
            try (Socket socket = server.accept()) {
                socket.setSoTimeout(ANSWER_MILLIS);
                answer(socket);
            } catch (IOException | RuntimeException e) {
                // Whoever asks and goes away leaves the others their answer.
                if (!server.isClosed()) {
                    log.debug("not answered", e);
                }
            }
        }
    }

    private void answer(Socket socket) throws IOException {
        String line = line(socket);
        int space = line.indexOf(' ');
        String given = space < 0 ? "" : line.substring(0, space);
        // In a time that does not tell how much of it was right.
        if (!MessageDigest.isEqual(given.getBytes(StandardCharsets.UTF_8), word.getBytes(StandardCharsets.UTF_8))) {
            return;
        }
        String asked = line.substring(space + 1);
        ObjectNode said = asked.equals("status") || asked.equals("stop") ? status.get() : JSON.createObjectNode();
        Writer out = new OutputStreamWriter(socket.getOutputStream(), StandardCharsets.UTF_8);
        out.write(JSON.writeValueAsString(said) + "\n");
        out.flush();
        if (asked.equals("stop")) {
            stop.run();
        }
    }

    private static String line(Socket socket) throws IOException {
        InputStreamReader in = new InputStreamReader(socket.getInputStream(), StandardCharsets.UTF_8);
        StringBuilder line = new StringBuilder();
        for (int c = in.read(); c >= 0 && c != '\n' && line.length() < LINE_MOST; c = in.read()) {
            line.append((char) c);
        }
        return line.toString();
    }

    /** How the service of these settings stands; empty when none runs. */
    public static Optional<JsonNode> status(Path settings) {
        return ask(settings, "status");
    }

    /** Asks the service of these settings to end; empty when none runs. It ends what it is doing first. */
    public static Optional<JsonNode> stop(Path settings) {
        return ask(settings, "stop");
    }

    private static Optional<JsonNode> ask(Path settings, String what) {
        Path file = settings.resolve(FILE);
        if (!Files.isRegularFile(file)) {
            return Optional.empty();
        }
        try (Socket socket = new Socket()) {
            JsonNode at = JSON.readTree(Files.readString(file));
            socket.connect(
                    new InetSocketAddress(
                            InetAddress.getLoopbackAddress(), at.path("port").asInt()),
                    CONNECT_MILLIS);
            socket.setSoTimeout(ANSWER_MILLIS);
            Writer out = new OutputStreamWriter(socket.getOutputStream(), StandardCharsets.UTF_8);
            out.write(at.path("word").asText() + " " + what + "\n");
            out.flush();
            BufferedReader in =
                    new BufferedReader(new InputStreamReader(socket.getInputStream(), StandardCharsets.UTF_8));
            String line = in.readLine();
            return line == null ? Optional.empty() : Optional.of(JSON.readTree(line));
        } catch (IOException | IllegalArgumentException e) {
            // It was killed, and its file is still there.
            log.debug("no service answers", e);
            return Optional.empty();
        }
    }

    @Override
    public void close() throws IOException {
        server.close();
        Files.deleteIfExists(file);
        lockFile.close();
    }
}
