package org.mendedleaf.core.systems.wire;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.http.HttpResponse;
import java.security.DigestOutputStream;
import java.security.MessageDigest;
import java.util.Optional;
import org.mendedleaf.core.systems.Retry;
import org.mendedleaf.core.systems.SystemException;
import org.mendedleaf.core.vault.Digest;
import org.mendedleaf.core.words.Words;

/**
 * One content that is read, in as many ranges (RFC 9110, 14) as the connection makes necessary, and proved by its digest at
 * the end. It is given up when tries in a row bring hardly anything.
 */
final class Download {

    /** A try that brought less than this brought nothing. Bytes. */
    private static final long HEADWAY = 4096;

    /** So much of the words of a refusal is read. Bytes. */
    private static final int WORDS = 1 << 16;

    private static final int PARTIAL = 206;
    private static final int FAILED = 300;

    private final Http http;
    private final Retry retry;
    private final String path;
    private final MessageDigest sha = Digest.sha256();
    private final OutputStream out;
    private Optional<Digest> wanted;
    private String tag = "";
    private long have;

    /**
     * A content.
     *
     * @param expected digest of it; empty to go by what the system says
     * @param out takes the bytes, each once; what it throws ends the download
     */
    Download(Http http, Retry retry, String path, Optional<Digest> expected, OutputStream out) {
        this.http = http;
        this.retry = retry;
        this.path = path;
        this.wanted = expected;
        this.out = new DigestOutputStream(out, sha);
    }

    /** Reads all of it. */
    void run() throws IOException {
        int failed = 0;
        while (true) {
            long before = have;
            try {
                once();
                break;
            } catch (SystemException e) {
                throw e;
            } catch (SinkFailed e) {
                throw e.cause;
            } catch (IOException e) {
                failed = have - before >= HEADWAY ? 0 : failed + 1;
                SystemException why = http.unreachable(e);
                if (failed >= retry.attempts() || why instanceof SystemException.Untrusted) {
                    throw why;
                }
                retry.sleep(failed);
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
                throw new java.io.InterruptedIOException();
            }
        }
        out.flush();
        if (wanted.isPresent() && !wanted.get().equals(Digest.of(sha.digest()))) {
            throw new SystemException.Garbled(Words.of("system.badBytes", http.system()));
        }
    }

    /** Asks for what is missing, and takes what comes. */
    private void once() throws IOException, InterruptedException {
        HttpResponse<InputStream> response = http.exchange(call());
        try (InputStream in = response.body();
                StallWatch stall = new StallWatch(in, retry.patience())) {
            if (response.statusCode() >= FAILED) {
                throw refused(response.statusCode(), in.readNBytes(WORDS));
            }
            if (have > 0 && response.statusCode() != PARTIAL) {
                skip(in, stall);
            }
            tag = response.headers().firstValue("ETag").orElse("");
            wanted =
                    wanted.or(() -> response.headers().firstValue("Repr-Digest").flatMap(Http::reprDigest));
            byte[] buffer = new byte[1 << 16];
            for (int n = in.read(buffer); n >= 0; n = in.read(buffer)) {
                stall.moved(n);
                write(buffer, n);
                have += n;
            }
        }
    }

    private Http.Call call() {
        Http.Call call = Http.Call.of("GET", path);
        if (have == 0) {
            return call;
        }
        Http.Call rest = call.with("Range", "bytes=" + have + "-");
        return tag.isEmpty() ? rest : rest.with("If-Match", tag);
    }

    private IOException refused(int status, byte[] body) {
        SystemException e = http.failure(status, body);
        if (have > 0 && e instanceof SystemException.Conflict) {
            return new SystemException.Garbled(Words.of("system.changedMeanwhile", http.system()));
        }
        return e instanceof SystemException.Unreachable ? new IOException(e.words()) : e;
    }

    /** The system sent all of it anew; what is here already is passed over. */
    private void skip(InputStream in, StallWatch stall) throws IOException {
        byte[] buffer = new byte[1 << 16];
        for (long left = have; left > 0; ) {
            int n = in.read(buffer, 0, (int) Math.min(buffer.length, left));
            if (n < 0) {
                throw new java.io.EOFException();
            }
            stall.moved(n);
            left -= n;
        }
    }

    private void write(byte[] buffer, int n) throws SinkFailed {
        try {
            out.write(buffer, 0, n);
        } catch (IOException e) {
            throw new SinkFailed(e);
        }
    }

    /** What takes the bytes failed, which no other try at the connection mends. */
    private static final class SinkFailed extends IOException {
        private static final long serialVersionUID = 1;
        private final IOException cause;

        SinkFailed(IOException cause) {
            super(cause);
            this.cause = cause;
        }
    }
}
