package org.mendedleaf.core.systems;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;

/** A WebDAV server of one folder, which keeps no versions and can be interrupted between two requests. */
final class SmallDav implements AutoCloseable {

    /** What the server says to tell files apart. */
    enum Tags {
        STRONG,
        WEAK,
        NONE
    }

    private record File(String text, int revision) {}

    private final Map<String, File> files = new TreeMap<>();
    private final List<String> requests = new ArrayList<>();
    private final Tags tags;
    private final HttpServer server;
    private int revisions;
    private @Nullable Runnable before;
    private boolean answersLost;

    SmallDav(Tags tags) throws IOException {
        this.tags = tags;
        server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        server.createContext("/", this::answer);
        server.start();
    }

    String address() {
        return "http://127.0.0.1:" + server.getAddress().getPort();
    }

    /** What somebody else does right before the next request that changes something. */
    synchronized void beforeNextChange(Runnable what) {
        before = what;
    }

    /** The next change is made, and its answer does not come through. */
    synchronized void loseNextAnswer() {
        answersLost = true;
    }

    synchronized void save(String path, String text) {
        files.put(path, new File(text, ++revisions));
    }

    synchronized @Nullable String text(String path) {
        File file = files.get(path);
        return file == null ? null : file.text();
    }

    synchronized List<String> requests() {
        return List.copyOf(requests);
    }

    private String etag(File file) {
        return switch (tags) {
            case STRONG -> "\"r" + file.revision() + "\"";
            case WEAK -> "W/\"r" + file.revision() + "\"";
            case NONE -> "";
        };
    }

    private synchronized void answer(HttpExchange exchange) throws IOException {
        String method = exchange.getRequestMethod();
        String path = exchange.getRequestURI().getPath().substring(1);
        byte[] body = exchange.getRequestBody().readAllBytes();
        boolean changes = method.equals("PUT") || method.equals("DELETE");
        Runnable now = before;
        if (changes && now != null) {
            before = null;
            now.run();
        }
        String ifMatch = exchange.getRequestHeaders().getFirst("If-Match");
        String ifNoneMatch = exchange.getRequestHeaders().getFirst("If-None-Match");
        requests.add(method + " " + path + (ifMatch == null ? "" : " if " + ifMatch)
                + (ifNoneMatch == null ? "" : " if none"));
        File there = files.get(path);
        boolean differs = ifMatch != null && (there == null || !ifMatch.equals(etag(there)) || tags == Tags.WEAK);
        if (changes && (differs || (ifNoneMatch != null && there != null))) {
            send(exchange, 412, "");
            return;
        }
        switch (method) {
            case "PROPFIND" -> send(exchange, 207, listing());
            case "GET" -> send(exchange, there == null ? 404 : 200, there == null ? "" : there.text());
            case "PUT" -> {
                save(path, new String(body, StandardCharsets.UTF_8));
                finish(exchange, 201);
            }
            case "DELETE" -> {
                files.remove(path);
                finish(exchange, there == null ? 404 : 204);
            }
            default -> send(exchange, 405, "");
        }
    }

    private void finish(HttpExchange exchange, int status) throws IOException {
        if (answersLost) {
            answersLost = false;
            throw new IOException("the line drops");
        }
        send(exchange, status, "");
    }

    private String listing() {
        StringBuilder xml = new StringBuilder("<?xml version=\"1.0\"?><D:multistatus xmlns:D=\"DAV:\">");
        xml.append("<D:response><D:href>/</D:href><D:propstat><D:prop><D:resourcetype><D:collection/></D:resourcetype>"
                + "</D:prop><D:status>HTTP/1.1 200 OK</D:status></D:propstat></D:response>");
        files.forEach((path, file) -> xml.append("<D:response><D:href>/")
                .append(path)
                .append("</D:href><D:propstat><D:prop><D:resourcetype/><D:getcontentlength>")
                .append(file.text().length())
                .append("</D:getcontentlength><D:getlastmodified>")
                .append(DateTimeFormatter.RFC_1123_DATE_TIME.format(Instant.parse("2026-05-04T08:00:00Z")
                        .plusSeconds(60L * file.revision())
                        .atOffset(ZoneOffset.UTC)))
                .append("</D:getlastmodified>")
                .append(tags == Tags.NONE ? "" : "<D:getetag>" + etag(file) + "</D:getetag>")
                .append("</D:prop><D:status>HTTP/1.1 200 OK</D:status></D:propstat></D:response>"));
        return xml.append("</D:multistatus>").toString();
    }

    private static void send(HttpExchange exchange, int status, String text) throws IOException {
        byte[] bytes = text.getBytes(StandardCharsets.UTF_8);
        exchange.sendResponseHeaders(status, bytes.length == 0 ? -1 : bytes.length);
        if (bytes.length > 0) {
            exchange.getResponseBody().write(bytes);
        }
        exchange.close();
    }

    @Override
    public void close() {
        server.stop(0);
    }
}
