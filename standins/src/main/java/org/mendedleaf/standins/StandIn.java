package org.mendedleaf.standins;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.BindException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.security.MessageDigest;
import java.security.SecureRandom;
import java.time.Duration;
import java.time.Instant;
import java.util.Base64;
import java.util.HexFormat;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.ThreadPoolExecutor;
import java.util.concurrent.TimeUnit;
import org.jspecify.annotations.Nullable;

/**
 * What all stand-ins have: a port on 127.0.0.1, tokens, a clock, faults, and answers that are remembered by the key of
 * the request. {@code stand-in.json} in its folder holds port and tokens, so that it is found again where it was.
 *
 * <p>Its own knobs are {@code POST /-/faults}, {@code /-/clock} and, for a drive, {@code /-/plug}; the outside original
 * has nothing of the kind.
 */
public abstract class StandIn implements AutoCloseable {

    static {
        // Without this each small answer waits for the acknowledgement of the one before.
        System.setProperty("sun.net.httpserver.nodelay", "true");
        // Who connects and then says nothing, or says it byte by byte, is let go of. Seconds.
        System.setProperty("sun.net.httpserver.maxReqTime", System.getProperty("sun.net.httpserver.maxReqTime", "60"));
    }

    /** Requests at a time; connections on which nothing is said yet take one each, and are let go of after a while. */
    private static final int THREADS = 256;

    private final String kind;
    private final Path folder;
    private final OwnClock clock = new OwnClock();
    private final Faults faults = new Faults();
    private final Book book;
    private final Map<String, String> tokens = new LinkedHashMap<>();
    private final HttpServer server;
    private volatile Instant ticked = Instant.EPOCH;
    private final ThreadPoolExecutor threads =
            new ThreadPoolExecutor(THREADS, THREADS, 10, TimeUnit.SECONDS, new LinkedBlockingQueue<>(), r -> {
                Thread thread = new Thread(r, "stand-in");
                thread.setDaemon(true);
                return thread;
            });

    StandIn(String kind, Path folder, String owner) throws IOException {
        this.kind = kind;
        this.folder = folder;
        this.book = new Book(folder);
        JsonNode known = read(folder.resolve("stand-in.json"));
        known.path("tokens")
                .properties()
                .forEach(e -> tokens.put(e.getKey(), e.getValue().asText()));
        clock.offset(Duration.parse(known.path("clock").asText("PT0S")));
        token(owner);
        this.server = bind(known.path("port").asInt(0));
        threads.allowCoreThreadTimeOut(true);
        server.setExecutor(threads);
        server.createContext("/", this::receive);
        server.start();
        remember();
    }

    private static JsonNode read(Path file) throws IOException {
        return Files.exists(file) ? Book.JSON.readTree(file.toFile()) : Book.JSON.createObjectNode();
    }

    /** The port of the last time if nobody has it now, else a free one. */
    private static HttpServer bind(int port) throws IOException {
        InetAddress loopback = InetAddress.getByAddress(new byte[] {127, 0, 0, 1});
        try {
            return HttpServer.create(new InetSocketAddress(loopback, port), 128);
        } catch (BindException e) {
            return HttpServer.create(new InetSocketAddress(loopback, 0), 128);
        }
    }

    private synchronized void remember() throws IOException {
        ObjectNode node = Book.JSON
                .createObjectNode()
                .put("port", server.getAddress().getPort())
                .put("clock", clock.offset().toString());
        tokens.forEach((who, token) -> node.withObject("/tokens").put(who, token));
        Path beside = folder.resolve("stand-in.json.new");
        Files.write(beside, Book.JSON.writerWithDefaultPrettyPrinter().writeValueAsBytes(node));
        Files.move(beside, folder.resolve("stand-in.json"), StandardCopyOption.ATOMIC_MOVE);
    }

    /** What it is, as its state says. */
    public String kind() {
        return kind;
    }

    /** Where it is reached. */
    public String address() {
        return "http://127.0.0.1:" + server.getAddress().getPort();
    }

    /** The token of somebody; made when there is none yet. */
    public final synchronized String token(String who) {
        return tokens.computeIfAbsent(who, w -> {
            byte[] random = new byte[16];
            new SecureRandom().nextBytes(random);
            return HexFormat.of().formatHex(random);
        });
    }

    /** What goes wrong. */
    public Faults faults() {
        return faults;
    }

    /** Lets its clock go on from this moment, also after it was started again. */
    public void setClock(Instant now) throws IOException {
        clock.set(now);
        remember();
    }

    Instant now() {
        return clock.instant();
    }

    Book book() {
        return book;
    }

    Path folder() {
        return folder;
    }

    private void receive(HttpExchange exchange) throws IOException {
        try {
            String who = who(exchange);
            if (exchange.getRequestURI().getPath().startsWith("/-/")) {
                knob(new Ask(exchange, who == null ? "" : who, Fault.NONE), who);
                return;
            }
            if (faults.isAway()) {
                throw new IOException("away");
            }
            Fault fault = faults.take();
            pause(faults.delayMillis());
            if (fault == Fault.DROP_BEFORE) {
                throw new IOException("dropped before");
            }
            Ask ask = new Ask(exchange, who == null ? "" : who, fault);
            if (fault == Fault.REFUSE) {
                ask.answer(Book.Answer.error(503, "busy", "too busy just now"));
            } else if (who == null) {
                exchange.getResponseHeaders().set("WWW-Authenticate", "Basic realm=\"" + kind + "\"");
                ask.answer(Book.Answer.error(401, "token", "no such token"));
            } else if (faults.refuses(
                    exchange.getRequestMethod(), exchange.getRequestURI().getPath())) {
                ask.pass();
                ask.answer(Book.Answer.error(403, "refused", "this is not taken"));
            } else {
                answer(ask, fault);
            }
        } catch (IOException | RuntimeException e) {
            org.slf4j.LoggerFactory.getLogger(StandIn.class).debug("{} {}", exchange.getRequestURI(), e.toString());
            // What a handler throws makes the server close the connection; closing the exchange alone would not.
            throw e;
        }
    }

    private static void pause(long millis) {
        if (millis > 0) {
            try {
                Thread.sleep(millis);
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
            }
        }
    }

    private synchronized @Nullable String who(HttpExchange exchange) {
        String header = exchange.getRequestHeaders().getFirst("Authorization");
        String found = null;
        for (Map.Entry<String, String> e : tokens.entrySet()) {
            String basic = Base64.getEncoder()
                    .encodeToString((e.getKey() + ":" + e.getValue()).getBytes(StandardCharsets.UTF_8));
            if (isSame("Bearer " + e.getValue(), header) || isSame("Basic " + basic, header)) {
                found = e.getKey();
            }
        }
        return found;
    }

    /** How long it takes does not tell how much of a guess is right. */
    private static boolean isSame(String secret, @Nullable String told) {
        return told != null
                && MessageDigest.isEqual(
                        secret.getBytes(StandardCharsets.UTF_8), told.getBytes(StandardCharsets.UTF_8));
    }

    private void answer(Ask ask, Fault fault) throws IOException {
        Book.Answer answer;
        try {
            String key = ask.key();
            Optional<Book.Answer> done = key == null ? Optional.empty() : book.answered(key);
            Book.Answer ready = done.orElse(null);
            if (ready == null) {
                tickWhenDue();
                ready = handle(ask);
            } else {
                ask.pass();
            }
            if (ready == null) {
                return;
            }
            answer = ready;
        } catch (Problem e) {
            answer = e.answer();
        }
        if (fault == Fault.DROP_AFTER) {
            throw new IOException("dropped after");
        }
        ask.answer(answer);
    }

    private void tickWhenDue() throws IOException {
        Instant now = now();
        Instant last = ticked;
        if (now.isBefore(last) || now.isAfter(last.plusMillis(500))) {
            ticked = now;
            tick();
        }
    }

    private void knob(Ask ask, @Nullable String who) throws IOException {
        try {
            if (who == null) {
                throw new Problem(401, "token", "no such token");
            }
            JsonNode json = ask.json();
            switch (ask.part(1)) {
                case "faults" -> {
                    faults.clear();
                    faults.delay(json.path("delay").asLong(0));
                    faults.away(json.path("away").asBoolean(false));
                    for (JsonNode f : json.path("next")) {
                        faults.schedule(java.util.List.of(Fault.valueOf(f.asText())));
                    }
                }
                case "clock" -> setClock(Instant.parse(json.path("now").asText()));
                default -> ownKnob(ask.part(1), json);
            }
            ask.answer(Book.Answer.of(200));
        } catch (IllegalArgumentException | java.time.DateTimeException e) {
            ask.answer(Problem.bad(String.valueOf(e.getMessage())).answer());
        } catch (Problem e) {
            ask.answer(e.answer());
        }
    }

    void ownKnob(String name, JsonNode json) throws IOException, Problem {
        throw Problem.missing(name);
    }

    /** What it does by itself as time goes on; called before each request, and every second while it runs. */
    abstract void tick() throws IOException;

    /** Answers a request; null when it was answered already. */
    abstract Book.@Nullable Answer handle(Ask ask) throws IOException, Problem;

    /** How it stands. */
    ObjectNode state(long used, long total) {
        return Book.JSON
                .createObjectNode()
                .put("kind", kind)
                .put("clock", now().toString())
                .put("used", used)
                .put("total", total);
    }

    /** Commits with the key of the request, and gives the answer. */
    Book.Answer done(Ask ask, Book.Change change, Book.Answer answer) throws IOException {
        book.commit(change, ask.key(), answer);
        return answer;
    }

    /** Removes files that were only on their way. */
    static void discard(Path file) {
        try {
            Files.deleteIfExists(file);
        } catch (IOException e) {
            org.slf4j.LoggerFactory.getLogger(StandIn.class).debug("{} stays", file, e);
        }
    }

    @Override
    public void close() throws IOException {
        server.stop(0);
        threads.shutdownNow();
        book.close();
    }
}
