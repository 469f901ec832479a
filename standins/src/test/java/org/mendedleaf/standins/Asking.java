package org.mendedleaf.standins;

import com.fasterxml.jackson.databind.JsonNode;
import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.util.Base64;
import java.util.HexFormat;
import java.util.Map;

/** Asks a stand-in as a client does. */
final class Asking {

    private static final HttpClient CLIENT = HttpClient.newHttpClient();

    private final StandIn system;
    private final String token;

    Asking(StandIn system, String who) {
        this.system = system;
        this.token = system.token(who);
    }

    /** An answer. */
    record Said(int status, String text) {
        JsonNode json() throws IOException {
            return Book.JSON.readTree(text.isEmpty() ? "null" : text);
        }
    }

    Said ask(String method, String path, String body, Map<String, String> headers) throws IOException {
        HttpRequest.Builder request = HttpRequest.newBuilder(URI.create(system.address() + path))
                .header("Authorization", "Bearer " + token)
                .method(
                        method,
                        body.isEmpty()
                                ? HttpRequest.BodyPublishers.noBody()
                                : HttpRequest.BodyPublishers.ofString(body));
        headers.forEach(request::header);
        try {
            HttpResponse<String> answer = CLIENT.send(request.build(), HttpResponse.BodyHandlers.ofString());
            return new Said(answer.statusCode(), answer.body());
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IOException(e);
        }
    }

    Said get(String path) throws IOException {
        return ask("GET", path, "", Map.of());
    }

    Said post(String path, String json) throws IOException {
        return ask("POST", path, json, Map.of());
    }

    /** Puts a content in, with its digest. */
    Said put(String path, String content, Map<String, String> more) throws IOException {
        Map<String, String> headers = new java.util.HashMap<>(more);
        headers.put("Repr-Digest", "sha-256=:" + Base64.getEncoder().encodeToString(sha(content)) + ":");
        headers.put("X-Modified", "2026-05-04T08:00:00Z");
        return ask("PUT", path, content, headers);
    }

    static String hex(String content) {
        return HexFormat.of().formatHex(sha(content));
    }

    private static byte[] sha(String content) {
        MessageDigest sha = Ask.sha256();
        return sha.digest(content.getBytes(StandardCharsets.UTF_8));
    }
}
