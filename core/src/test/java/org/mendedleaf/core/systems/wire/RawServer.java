package org.mendedleaf.core.systems.wire;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.util.Locale;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicInteger;

/** A server that answers whatever a test wants, sound or not: one request for each connection, which it drops after that. */
public final class RawServer implements AutoCloseable {

    /** What it writes; gets the request line, with the word range when a part is asked for. */
    public interface Answer {
        /** Writes an answer, or a part of one. */
        void to(String line, OutputStream out) throws IOException;
    }

    /** How often it was asked. */
    public final AtomicInteger asked = new AtomicInteger();

    /** How it answers. */
    public volatile Answer answer = (line, out) -> head(out, 404, "Content-Length: 0");

    private final ServerSocket socket;
    private final Set<Socket> open = ConcurrentHashMap.newKeySet();

    /** Begins to listen. */
    public RawServer() throws IOException {
        socket = new ServerSocket(0, 50, InetAddress.getLoopbackAddress());
        thread(() -> {
            while (!socket.isClosed()) {
                try {
                    Socket one = socket.accept();
                    open.add(one);
                    thread(() -> serve(one));
                } catch (IOException e) {
                    return;
                }
            }
        });
    }

    private static void thread(Runnable work) {
        Thread thread = new Thread(work, "raw server");
        thread.setDaemon(true);
        thread.start();
    }

    /** Its address. */
    public String address() {
        return "http://127.0.0.1:" + socket.getLocalPort();
    }

    private void serve(Socket one) {
        try (one) {
            InputStream in = one.getInputStream();
            String line = line(in);
            long length = 0;
            boolean range = false;
            for (String header = line(in); !header.isEmpty(); header = line(in)) {
                String lower = header.toLowerCase(Locale.ROOT);
                range |= lower.startsWith("range:");
                length = lower.startsWith("content-length:")
                        ? Long.parseLong(lower.substring(15).strip())
                        : length;
            }
            in.readNBytes((int) length);
            asked.incrementAndGet();
            answer.to(range ? line + " range" : line, one.getOutputStream());
        } catch (IOException e) {
            // Whoever asked has gone, which is what the tests are about.
        } finally {
            open.remove(one);
        }
    }

    private static String line(InputStream in) throws IOException {
        StringBuilder text = new StringBuilder();
        for (int c = in.read(); c >= 0 && c != '\n'; c = in.read()) {
            text.append(c == '\r' ? "" : String.valueOf((char) c));
        }
        return text.toString();
    }

    /** Writes a status line and headers. */
    public static void head(OutputStream out, int status, String... headers) throws IOException {
        StringBuilder text = new StringBuilder("HTTP/1.1 " + status + " so\r\nConnection: close\r\n");
        for (String header : headers) {
            text.append(header).append("\r\n");
        }
        out.write(text.append("\r\n").toString().getBytes(StandardCharsets.US_ASCII));
        out.flush();
    }

    /** Waits, unless the test is over. */
    public static void pause(int millis) {
        try {
            Thread.sleep(millis);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    @Override
    public void close() throws IOException {
        socket.close();
        for (Socket one : open) {
            one.close();
        }
    }
}
