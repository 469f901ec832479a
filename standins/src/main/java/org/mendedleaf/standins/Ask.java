package org.mendedleaf.standins;

import com.fasterxml.jackson.databind.JsonNode;
import com.sun.net.httpserver.HttpExchange;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.URLDecoder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.DigestInputStream;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.ArrayList;
import java.util.Base64;
import java.util.HashMap;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/** A request, in parts. */
final class Ask {

    /** Bytes of a request that is no content. */
    static final int BODY_MOST = 32 << 20;

    private final HttpExchange exchange;
    private final String who;
    private final Fault fault;
    private final List<String> path = new ArrayList<>();
    private final Map<String, String> query = new HashMap<>();

    Ask(HttpExchange exchange, String who, Fault fault) {
        this.exchange = exchange;
        this.who = who;
        this.fault = fault;
        String raw = exchange.getRequestURI().getRawPath();
        for (String part : raw.substring(1).split("/", -1)) {
            path.add(decode(part));
        }
        String asked = exchange.getRequestURI().getRawQuery();
        if (asked != null) {
            for (String pair : asked.split("&")) {
                int equals = pair.indexOf('=');
                query.put(
                        equals < 0 ? pair : pair.substring(0, equals),
                        equals < 0 ? "" : decode(pair.substring(equals + 1)));
            }
        }
    }

    static String decode(String text) {
        return URLDecoder.decode(text.replace("+", "%2B"), StandardCharsets.UTF_8);
    }

    String method() {
        return exchange.getRequestMethod();
    }

    /** Who asks, by the token. */
    String who() {
        return who;
    }

    /** A part of the path; empty when there is none. */
    String part(int i) {
        return i < path.size() ? path.get(i) : "";
    }

    int parts() {
        return path.size();
    }

    /** The rest of the path from a part on, without a slash at its end. */
    String rest(int from) throws Problem {
        List<String> rest = new ArrayList<>(path.subList(Math.min(from, path.size()), path.size()));
        if (!rest.isEmpty() && rest.get(rest.size() - 1).isEmpty()) {
            rest.remove(rest.size() - 1);
        }
        for (String name : rest) {
            SafePath.name(name);
        }
        return String.join("/", rest);
    }

    String query(String name) {
        return query.getOrDefault(name, "");
    }

    String header(String name) {
        String value = exchange.getRequestHeaders().getFirst(name);
        return value == null ? "" : value;
    }

    @Nullable
    String key() {
        String key = header("Idempotency-Key");
        return key.isEmpty() ? null : key;
    }

    JsonNode json() throws IOException, Problem {
        byte[] bytes = body();
        try {
            return Book.JSON.readTree(bytes);
        } catch (com.fasterxml.jackson.core.JacksonException e) {
            throw Problem.bad("no JSON: " + e.getOriginalMessage());
        }
    }

    /**
     * The body of a request that is no content.
     *
     * @throws Problem when it is larger than any such request
     */
    byte[] body() throws IOException, Problem {
        byte[] bytes = exchange.getRequestBody().readNBytes(BODY_MOST + 1);
        if (bytes.length > BODY_MOST) {
            throw new Problem(413, "too-large", "a request of more than " + BODY_MOST + " bytes");
        }
        return bytes;
    }

    /** Takes a body that nobody needs. */
    void pass() throws IOException {
        exchange.getRequestBody().transferTo(OutputStream.nullOutputStream());
    }

    private static long length(String header) throws Problem {
        try {
            return Long.parseLong(header);
        } catch (NumberFormatException e) {
            throw Problem.bad("the length " + header);
        }
    }

    /** A content that came in. */
    record Upload(Path file, long size, String sha256) {}

    /** Takes the content of the request into a file, and checks that it is whole. */
    Upload upload(Path folder) throws IOException, Problem {
        Files.createDirectories(folder);
        Path file = Files.createTempFile(folder, "upload", ".part");
        MessageDigest sha = sha256();
        long size = 0;
        long expected = header("Content-Length").isEmpty() ? -1 : length(header("Content-Length"));
        try (InputStream in = new DigestInputStream(exchange.getRequestBody(), sha);
                OutputStream out = Files.newOutputStream(file)) {
            byte[] buffer = new byte[1 << 16];
            for (int n = in.read(buffer); n >= 0; n = in.read(buffer)) {
                out.write(buffer, 0, n);
                size += n;
                if (fault == Fault.HALF_UPLOAD && size >= expected / 2) {
                    throw new IOException("dropped in the middle");
                }
            }
        } catch (IOException e) {
            Files.deleteIfExists(file);
            throw e;
        }
        byte[] digest = sha.digest();
        String claimed = header("Repr-Digest");
        boolean whole = (expected < 0 || expected == size)
                && (claimed.isEmpty()
                        || claimed.contains("sha-256=:" + Base64.getEncoder().encodeToString(digest) + ":"));
        if (!whole) {
            Files.deleteIfExists(file);
            throw new Problem(422, "not-whole", "the content did not arrive whole");
        }
        return new Upload(file, size, HexFormat.of().formatHex(digest));
    }

    static MessageDigest sha256() {
        try {
            return MessageDigest.getInstance("SHA-256");
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException(e);
        }
    }

    void answer(Book.Answer answer) throws IOException {
        byte[] bytes = Book.JSON.writeValueAsBytes(answer.body());
        answer.headers().forEach((k, v) -> exchange.getResponseHeaders().set(k, v));
        answer(answer.status(), "application/json", bytes);
    }

    void answer(int status, String type, byte[] bytes) throws IOException {
        exchange.getResponseHeaders().set("Content-Type", type);
        boolean none = status == 204 || status == 304 || method().equals("HEAD") || bytes.length == 0;
        exchange.sendResponseHeaders(status, none ? -1 : bytes.length);
        if (!none) {
            OutputStream out = exchange.getResponseBody();
            boolean half = fault == Fault.HALF_DOWNLOAD || fault == Fault.STALL;
            out.write(bytes, 0, half ? bytes.length / 2 : bytes.length);
            out.flush();
            dropIf(half);
            out.close();
        }
        exchange.close();
    }

    private static void hang() {
        try {
            Thread.sleep(60_000);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    /** Leaves without closing the answer: closing it in the middle would leave the connection open. */
    private void dropIf(boolean drop) throws IOException {
        if (drop) {
            if (fault == Fault.STALL) {
                hang();
            }
            throw new IOException("dropped in the middle");
        }
    }

    void header(String name, String value) {
        exchange.getResponseHeaders().set(name, value);
    }

    /** Answers with a file, or the range of it that is asked for. */
    void file(Path file, String sha256, String modified) throws IOException, Problem {
        long size = Files.size(file);
        String tag = '"' + sha256 + '"';
        header("ETag", tag);
        header("Accept-Ranges", "bytes");
        header(
                "Repr-Digest",
                "sha-256=:" + Base64.getEncoder().encodeToString(HexFormat.of().parseHex(sha256)) + ":");
        if (!modified.isEmpty()) {
            header("Last-Modified", modified);
        }
        if (!header("If-Match").isEmpty() && !header("If-Match").equals(tag)) {
            throw new Problem(412, "changed", "the content changed meanwhile");
        }
        long from = 0;
        String range = header("Range");
        if (range.matches("bytes=\\d+-")) {
            from = Math.min(size, Long.parseLong(range.substring(6, range.length() - 1)));
            header("Content-Range", "bytes " + from + "-" + (size - 1) + "/" + size);
        }
        exchange.getResponseHeaders().set("Content-Type", "application/octet-stream");
        long length = size - from;
        boolean head = method().equals("HEAD");
        if (head) {
            header("Content-Length", Long.toString(length));
        }
        exchange.sendResponseHeaders(from > 0 ? 206 : 200, head || length == 0 ? -1 : length);
        if (!head && length > 0) {
            boolean half = fault == Fault.HALF_DOWNLOAD || fault == Fault.STALL;
            OutputStream out = exchange.getResponseBody();
            try (InputStream in = Files.newInputStream(file)) {
                in.skipNBytes(from);
                long send = half ? length / 2 : length;
                byte[] buffer = new byte[1 << 16];
                while (send > 0) {
                    int n = in.read(buffer, 0, (int) Math.min(buffer.length, send));
                    if (n < 0) {
                        break;
                    }
                    out.write(buffer, 0, n);
                    send -= n;
                }
            }
            out.flush();
            dropIf(half);
            out.close();
        }
        exchange.close();
    }
}
