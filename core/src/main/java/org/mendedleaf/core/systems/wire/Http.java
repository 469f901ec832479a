package org.mendedleaf.core.systems.wire;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.MissingNode;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublisher;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse;
import java.net.http.HttpResponse.BodyHandlers;
import java.nio.charset.StandardCharsets;
import java.security.cert.CertificateEncodingException;
import java.security.cert.X509Certificate;
import java.time.Duration;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Base64;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.systems.Budget;
import org.mendedleaf.core.systems.Endpoint;
import org.mendedleaf.core.systems.OutsideSystem.Bytes;
import org.mendedleaf.core.systems.Retry;
import org.mendedleaf.core.systems.SystemException;
import org.mendedleaf.core.vault.Digest;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;

/**
 * Requests to one system. Each is tried several times; what changes something carries an {@code Idempotency-Key}, so that
 * a system knows a repetition of what it did already but whose answer was lost. Contents go with their digest ({@code
 * Repr-Digest}, RFC 9530), so that half an upload is never taken for a whole one, and come back in as many ranges (RFC
 * 9110) as the connection makes necessary.
 */
final class Http {

    static final ObjectMapper JSON = new ObjectMapper();

    private static final Duration CONNECT = Duration.ofSeconds(5);

    private final String system;
    private final URI base;
    private final String token;
    private final Retry retry;
    private final HttpClient client;

    /**
     * Requests to a system.
     *
     * @param system what it is called, for messages
     */
    Http(String system, Endpoint at, Retry retry) {
        this.system = system;
        this.base = Systems.address(at.address());
        this.token = at.token();
        this.retry = retry;
        HttpClient.Builder builder = HttpClient.newBuilder()
                .version(HttpClient.Version.HTTP_1_1)
                .connectTimeout(CONNECT.compareTo(retry.patience()) < 0 ? CONNECT : retry.patience())
                .followRedirects(HttpClient.Redirect.NEVER);
        if ("https".equals(base.getScheme())) {
            builder.sslContext(Trust.context(at.certificate()));
        }
        this.client = builder.build();
    }

    /** A request. The path is encoded already. */
    record Call(
            String method,
            String path,
            Map<String, String> headers,
            @Nullable Bytes body) {
        static Call of(String method, String path) {
            return new Call(method, path, Map.of(), null);
        }

        Call with(String name, String value) {
            Map<String, String> more = new java.util.LinkedHashMap<>(headers);
            more.put(name, value);
            return new Call(method, path, more, body);
        }

        Call with(Bytes bytes) {
            return new Call(method, path, headers, bytes);
        }

        Call json(Object value) {
            byte[] bytes;
            try {
                bytes = JSON.writeValueAsBytes(value);
            } catch (com.fasterxml.jackson.core.JsonProcessingException e) {
                throw new IllegalArgumentException(e);
            }
            return with("Content-Type", "application/json").with(bytes(bytes));
        }

        Call key(String key) {
            return with("Idempotency-Key", key);
        }
    }

    /** An answer. */
    record Reply(int status, Map<String, List<String>> headers, byte[] body) {
        String header(String name) {
            return headers.entrySet().stream()
                    .filter(e -> e.getKey().equalsIgnoreCase(name))
                    .flatMap(e -> e.getValue().stream())
                    .findFirst()
                    .orElse("");
        }

        JsonNode json() throws SystemException {
            if (body.length == 0) {
                return MissingNode.getInstance();
            }
            try {
                return JSON.readTree(body);
            } catch (IOException e) {
                throw new SystemException.Garbled(Words.of("system.garbled", e.getMessage()));
            }
        }
    }

    /** These bytes, as often as wanted. */
    static Bytes bytes(byte[] bytes) {
        return new Bytes() {
            @Override
            public long size() {
                return bytes.length;
            }

            @Override
            public InputStream open() {
                return new java.io.ByteArrayInputStream(bytes);
            }
        };
    }

    /** Reads a content, going on where the connection dropped. */
    void download(String path, Optional<Digest> expected, OutputStream out) throws IOException {
        new Download(this, retry, path, expected, out).run();
    }

    /** A path with each of its parts encoded. */
    static String encode(String path) {
        List<String> parts = new ArrayList<>();
        for (String part : path.split("/", -1)) {
            parts.add(encodePart(part));
        }
        return String.join("/", parts);
    }

    /** One part of a path, or a value of a query. */
    static String encodePart(String part) {
        String encoded = URLEncoder.encode(part, StandardCharsets.UTF_8).replace("+", "%20");
        // Names of one or two dots would be taken for steps.
        return encoded.equals(".") ? "%2E" : encoded.equals("..") ? "%2E%2E" : encoded;
    }

    /** What stands in a {@code Repr-Digest} header. */
    static String reprDigest(Digest sha256) {
        return "sha-256=:" + Base64.getEncoder().encodeToString(sha256.bytes()) + ":";
    }

    /** The digest that such a header says; empty when it says none. */
    static Optional<Digest> reprDigest(String header) {
        int from = header.indexOf("sha-256=:");
        int to = header.indexOf(':', from + 9);
        if (from < 0 || to < 0) {
            return Optional.empty();
        }
        try {
            return Optional.of(Digest.of(Base64.getDecoder().decode(header.substring(from + 9, to))));
        } catch (IllegalArgumentException e) {
            return Optional.empty();
        }
    }

    JsonNode get(String path) throws IOException {
        return send(Call.of("GET", path)).json();
    }

    /** A list of entries, not more of them than are taken. */
    JsonNode list(String path) throws IOException {
        JsonNode list = get(path);
        listing().more(list.size());
        return list;
    }

    /** Sends a request as often as needed; returns the answer to it when it was done. */
    Reply send(Call call) throws IOException {
        SystemException last = null;
        for (int attempt = 0; attempt < retry.attempts(); attempt++) {
            if (attempt > 0) {
                retry.sleep(attempt - 1);
            }
            try {
                HttpResponse<InputStream> response = exchange(call);
                Reply reply =
                        new Reply(response.statusCode(), response.headers().map(), all(response.body()));
                if (reply.status() < 300) {
                    return reply;
                }
                SystemException e = failure(reply.status(), reply.body());
                if (!(e instanceof SystemException.Unreachable)) {
                    throw e;
                }
                last = e;
            } catch (SystemException e) {
                throw e;
            } catch (Upload.SourceFailed e) {
                throw e.why();
            } catch (IOException e) {
                last = unreachable(e);
                if (last instanceof SystemException.Untrusted) {
                    throw last;
                }
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
                throw new java.io.InterruptedIOException();
            }
        }
        throw last == null ? unreachable(new IOException()) : last;
    }

    /** Sends a request once. */
    HttpResponse<InputStream> exchange(Call call) throws IOException, InterruptedException {
        Bytes body = call.body();
        if (body == null) {
            return client.send(
                    request(call, BodyPublishers.noBody())
                            .timeout(retry.patience())
                            .build(),
                    BodyHandlers.ofInputStream());
        }
        Upload upload = new Upload(body, retry.patience());
        return upload.send(client, request(call, upload.publisher()).build());
    }

    /** What the system is called, for messages. */
    String system() {
        return system;
    }

    /** A listing that begins now. */
    Budget.Listing listing() {
        return retry.budget().listing(system);
    }

    /** Whether a path lies deeper than is followed. */
    boolean isTooDeep(String path) {
        return retry.budget().isTooDeep(path);
    }

    /** The answer that a listing does not go on. */
    SystemException noEnd() {
        return new SystemException.Garbled(Words.of("system.noEnd", system));
    }

    private byte[] all(InputStream body) throws IOException {
        java.io.ByteArrayOutputStream out = new java.io.ByteArrayOutputStream();
        Budget budget = retry.budget();
        Budget.Listing time = listing();
        try (InputStream in = body;
                StallWatch stall = new StallWatch(in, retry.patience())) {
            byte[] buffer = new byte[1 << 14];
            for (int n = in.read(buffer); n >= 0; n = in.read(buffer)) {
                stall.moved(n);
                out.write(buffer, 0, n);
                if (out.size() > budget.bytes()) {
                    throw new SystemException.Garbled(Words.of("system.tooLong", system, Formats.size(budget.bytes())));
                }
                time.onTime();
            }
        }
        return out.toByteArray();
    }

    private HttpRequest.Builder request(Call call, BodyPublisher body) throws SystemException {
        HttpRequest.Builder request =
                HttpRequest.newBuilder(address(call.path())).method(call.method(), body);
        if (!token.isEmpty()) {
            request.header("Authorization", authorization(token));
        }
        call.headers().forEach(request::header);
        return request;
    }

    /** Where a request goes. What a system says of its files leads to that system and nowhere else: the token goes along. */
    private URI address(String path) throws SystemException {
        try {
            URI address = base.resolve(base.getRawPath() + path);
            if (Objects.equals(address.getScheme(), base.getScheme())
                    && Objects.equals(address.getRawAuthority(), base.getRawAuthority())) {
                return address;
            }
        } catch (IllegalArgumentException e) {
            org.slf4j.LoggerFactory.getLogger(Http.class).debug("{}", system, e);
        }
        throw new SystemException.Garbled(Words.of("system.garbled", path));
    }

    /** A token, or where it has a colon, name and password. */
    private static String authorization(String token) {
        return token.indexOf(':') < 0
                ? "Bearer " + token
                : "Basic " + Base64.getEncoder().encodeToString(token.getBytes(StandardCharsets.UTF_8));
    }

    /** What it means that no whole answer came. */
    SystemException unreachable(IOException e) {
        Trust.Untrusted untrusted = Trust.Untrusted.in(e);
        if (untrusted != null) {
            return untrusted(untrusted);
        }
        String why = e instanceof java.net.ConnectException || e instanceof java.net.http.HttpConnectTimeoutException
                ? Words.of("system.why.connect", base.getAuthority())
                : e instanceof java.net.http.HttpTimeoutException
                        ? Words.of("system.why.time")
                        : Words.of("system.why.dropped");
        org.slf4j.LoggerFactory.getLogger(Http.class).debug("{}", system, e);
        return new SystemException.Unreachable(Words.of("system.unreachable", system, why), e);
    }

    private SystemException untrusted(Trust.Untrusted e) {
        X509Certificate shown = e.shown();
        String fingerprint;
        try {
            fingerprint = Trust.fingerprint(shown);
        } catch (CertificateEncodingException other) {
            fingerprint = "";
        }
        return new SystemException.Untrusted(
                Words.of(
                        "system.untrusted",
                        system,
                        Words.of("system.untrusted." + e.why()),
                        shown.getSubjectX500Principal().getName(),
                        LocalDate.ofInstant(shown.getNotAfter().toInstant(), ZoneOffset.UTC)
                                .toString(),
                        fingerprint),
                fingerprint,
                e);
    }

    /** What an answer means that is no success. */
    SystemException failure(int status, byte[] body) {
        String code = "";
        String detail = "";
        try {
            JsonNode node = JSON.readTree(body);
            code = node.path("error").asText("");
            detail = node.path("detail").asText("");
        } catch (IOException e) {
            detail = "";
        }
        if (code.equals("unplugged")) {
            return new SystemException.Unplugged(Words.of("system.unplugged", system));
        }
        String told = detail.isEmpty() ? Integer.toString(status) : detail;
        return switch (status) {
            case 401 -> new SystemException.Refused(Words.of("system.badToken", system));
            case 403 -> new SystemException.Refused(Words.of("system.refused", system, told));
            case 404, 410 -> new SystemException.Missing(Words.of("system.missing", system, told));
            case 409, 412, 423 -> new SystemException.Conflict(Words.of("system.conflict", system, told));
            case 413, 507 -> new SystemException.Full(Words.of("system.full", system, told));
            case 400 -> new SystemException.Garbled(Words.of("system.badRequest", system, told));
            // An upload that came through in part is one to try again.
            case 408, 422, 425, 429, 500, 502, 503, 504 ->
                new SystemException.Unreachable(Words.of("system.unreachable", system, told));
            default -> new SystemException.Garbled(Words.of("system.badAnswer", system, status));
        };
    }
}
