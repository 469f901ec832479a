package org.mendedleaf.core.systems;

import java.io.FilterOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;

/**
 * Takes a content of which its system says how large it is, and no more than that: a drive is not filled by one that never
 * ends.
 */
final class SizedOutput extends FilterOutputStream {

    private final String system;
    private final long size;
    private long taken;

    /**
     * A content that is on its way.
     *
     * @param system what it is called, for the message
     * @param size that it was announced with, bytes; negative when none was
     */
    SizedOutput(OutputStream out, String system, long size) {
        super(out);
        this.system = system;
        this.size = size;
    }

    @Override
    public void write(int b) throws IOException {
        write(new byte[] {(byte) b}, 0, 1);
    }

    /** @throws SystemException.Garbled when more came than was announced */
    @Override
    public void write(byte[] bytes, int from, int length) throws IOException {
        taken += length;
        if (size >= 0 && taken > size) {
            throw new SystemException.Garbled(Words.of("system.longer", system, Formats.size(size)));
        }
        out.write(bytes, from, length);
    }
}
