package org.mendedleaf.core.deflate;

import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.mendedleaf.core.deflate.DeflateSettings.Encoder;

/**
 * Finds the settings that give exactly the deflated bytes at hand, by trying. What is found is proved: the whole content
 * was deflated again, and each byte compared. Not safe for several threads.
 */
public final class SettingsFinder {

    /** Levels as they are met: the usual one first, then the thorough and the fast end. */
    private static final int[] LEVELS = {6, 9, 1, 8, 7, 5, 4, 3, 2};

    /** The time for one archive when nothing else is said. */
    private static final Duration DEFAULT = Duration.ofSeconds(10);

    private final DeflateEncoder encoder = new DeflateEncoder();
    private Optional<DeflateSettings> last = Optional.empty();
    private long deadline = ProcessorTime.nanos() + DEFAULT.toNanos();

    /**
     * Begins with another archive: forgets what was found last, since its members come from another program.
     *
     * @param within so much processor time may be spent on its members, by this thread; what is not found by then is taken not to be found
     */
    public void begin(Duration within) {
        last = Optional.empty();
        deadline = ProcessorTime.nanos() + within.toNanos();
    }

    /**
     * Finds them.
     *
     * @param content inflated, with {@link DeflateEncoder#PAD} bytes behind its end
     * @param length of the content
     * @param bytes the deflated bytes, between {@code from} and {@code to}
     * @return empty when nothing that is known here gives these bytes
     */
    public Optional<DeflateSettings> find(byte[] content, int length, byte[] bytes, int from, int to) {
        if (ProcessorTime.nanos() - deadline > 0) {
            return Optional.empty();
        }
        Optional<FirstBlock> block = FirstBlock.of(bytes, from, to);
        if (block.isEmpty()) {
            return Optional.empty();
        }
        encoder.giveUpAt(deadline);
        List<DeflateSettings> candidates = new ArrayList<>();
        last.ifPresent(candidates::add);
        for (Encoder e : encoders(block.get(), length)) {
            for (int level : LEVELS) {
                candidates.add(new DeflateSettings(level, e));
            }
        }
        for (DeflateSettings s : candidates) {
            if (encoder.isSame(s, content, length, bytes, from, to, block.get())) {
                last = Optional.of(s);
                return last;
            }
            if (encoder.hasGivenUp()) {
                break;
            }
        }
        return Optional.empty();
    }

    /** Encoders by where the first block ends. */
    private static List<Encoder> encoders(FirstBlock block, int length) {
        if (block.isLast()) {
            return List.of(Encoder.ZLIB, Encoder.ZLIB_LARGE, Encoder.INFO_ZIP);
        }
        List<Encoder> found = new ArrayList<>();
        if (block.count() == Encoder.ZLIB.symbols - 1) {
            found.add(Encoder.ZLIB);
        }
        if (block.count() == Encoder.ZLIB_LARGE.symbols - 1) {
            found.add(Encoder.ZLIB_LARGE);
        }
        if (block.count() == Encoder.INFO_ZIP.symbols - 1 || block.count() % 4096 == 0) {
            found.add(Encoder.INFO_ZIP);
        }
        if (length > Encoder.ZLIB_PIECES.piece) {
            found.add(Encoder.ZLIB_PIECES);
        }
        return found;
    }
}
