package org.mendedleaf.core.document;

import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Optional;
import org.apache.commons.compress.archivers.zip.ZipArchiveEntry;
import org.apache.commons.compress.archivers.zip.ZipFile;
import org.mendedleaf.core.words.Words;

/** The parts of a document that is a ZIP archive, read by its directory; only what is asked for is unpacked. */
final class Parts implements AutoCloseable {

    private final ZipFile zip;
    private final long[] left;

    /** The parts of these bytes. */
    Parts(byte[] content, Limits limits) throws IOException {
        this.zip = ZipFile.builder().setByteArray(content).get();
        this.left = new long[] {limits.unpacked()};
    }

    /** Names of all parts, in their order in the file. */
    List<String> names() {
        List<String> names = new ArrayList<>();
        for (ZipArchiveEntry e : Collections.list(zip.getEntriesInPhysicalOrder())) {
            names.add(e.getName());
        }
        return names;
    }

    boolean has(String name) {
        return zip.getEntry(name) != null;
    }

    /** A checksum of a part, as the directory says; empty when it is not there. */
    String check(String name) {
        ZipArchiveEntry e = zip.getEntry(name);
        return e == null ? "" : Long.toHexString(e.getCrc());
    }

    /** Opens a part. */
    InputStream open(String name) throws IOException {
        ZipArchiveEntry e = zip.getEntry(name);
        if (e == null) {
            throw new DocumentException(Words.of("document.noPart", name));
        }
        return new Limited(zip.getInputStream(e), left);
    }

    /** A part, if it is there. */
    Optional<byte[]> bytes(String name) throws IOException {
        if (!has(name)) {
            return Optional.empty();
        }
        try (InputStream in = open(name)) {
            return Optional.of(in.readAllBytes());
        }
    }

    @Override
    public void close() throws IOException {
        zip.close();
    }

    /** Ends with an error on what unpacks to far more than any document does. */
    static final class Limited extends FilterInputStream {
        private final long[] left;

        Limited(InputStream in, long[] left) {
            super(in);
            this.left = left;
        }

        @Override
        public int read() throws IOException {
            byte[] one = new byte[1];
            return read(one, 0, 1) < 0 ? -1 : one[0] & 0xff;
        }

        @Override
        public int read(byte[] b, int off, int len) throws IOException {
            if (left[0] <= 0) {
                throw new DocumentException(Words.of("document.tooMuch"));
            }
            int n = super.read(b, off, len);
            left[0] -= Math.max(0, n);
            return n;
        }
    }
}
