package org.mendedleaf.core.vault;

import java.io.IOException;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.zip.DataFormatException;
import java.util.zip.Inflater;
import org.mendedleaf.core.deflate.DeflateEncoder;
import org.mendedleaf.core.deflate.DeflateSettings;
import org.mendedleaf.core.deflate.SettingsFinder;

/**
 * Which members of an archive will be stored inflated: those for which settings are found that give their deflated bytes
 * again, proved byte by byte.
 *
 * @param regions the whole content, in order
 */
record UnfoldPlan(List<Region> regions) {

    /** Larger members stay as they are, since all of one is in memory. Bytes, as they are and inflated. */
    private static final int STORED_MOST = 16 << 20;

    /** No more is inflated of one archive, tried or done; members beyond it stay as they are. Bytes. */
    private static final long INFLATED_MOST = 64L << 20;

    /** Larger archives hold no document, and looking through them would mean to read them twice. Bytes. */
    private static final long CONTENT_MOST = 256L << 20;

    /** With more between the larger members than this, nothing is unfolded. Bytes. */
    private static final int FRAME_MOST = 8 << 20;

    /** Inflating must give this much more, or the member stays as it is: pictures that are deflated once more. */
    private static final double WORTH = 1.05;

    /** Unfolding must save something in an archive at all: one member of so many deflated bytes. */
    static final int ALONE_MIN = 512;

    /** So long it is tried for one archive, and so much longer for each megabyte: twice as long as documents take. */
    private static final Duration TRY_FOR = Duration.ofMillis(500);

    private static final Duration TRY_A_MEGABYTE = Duration.ofMillis(120);

    /** So many members of one archive may be in vain before the rest is not tried: it comes from another encoder. */
    private static final int VAIN_MOST = 3;

    /** What is done with a region of the content. */
    enum Way {
        /** Its chunks are stored as they are. */
        AS_IT_IS,
        /** It is one large member, which is stored in chunks of its own; its header belongs to the frame. */
        MEMBER,
        /** It belongs to the frame; small members in it may be inflated. */
        FRAME
    }

    /**
     * A region of the content.
     *
     * @param folds the members in it that are not simply frame, in order
     */
    record Region(long begin, long end, Way way, List<Fold> folds) {}

    /**
     * A member that is not simply frame.
     *
     * @param settings that give its deflated bytes again; empty when it is stored as it is
     */
    record Fold(ZipDirectory.Member member, Optional<DeflateSettings> settings) {

        boolean isInflated() {
            return settings.isPresent();
        }
    }

    /**
     * Plans.
     *
     * @return empty when there is nothing to unfold
     */
    static Optional<UnfoldPlan> of(ZipDirectory directory, ByteSource content, SettingsFinder finder)
            throws IOException {
        if (content.size() > CONTENT_MOST) {
            return Optional.empty();
        }
        List<Fold> folds = folds(directory.members(content), content, finder);
        if (folds.stream().noneMatch(f -> f.isInflated() && f.member().stored() >= ALONE_MIN)) {
            return Optional.empty();
        }
        List<Region> regions = new ArrayList<>();
        long frame = 0;
        int next = 0;
        for (ZipDirectory.Region r : directory.regions(content.size())) {
            List<Fold> inside = new ArrayList<>();
            while (next < folds.size() && folds.get(next).member().end() <= r.end()) {
                inside.add(folds.get(next++));
            }
            Way way = Way.FRAME;
            if (r.isMember()) {
                way = inside.size() == 1 ? Way.MEMBER : Way.AS_IT_IS;
            }
            frame += way == Way.FRAME ? r.end() - r.begin() : 0;
            regions.add(new Region(r.begin(), r.end(), way, inside));
        }
        boolean fits = next == folds.size() && frame <= FRAME_MOST;
        return fits ? Optional.of(new UnfoldPlan(regions)) : Optional.empty();
    }

    private static List<Fold> folds(List<ZipDirectory.Member> members, ByteSource content, SettingsFinder finder)
            throws IOException {
        long all = members.stream().mapToLong(ZipDirectory.Member::length).sum();
        finder.begin(TRY_FOR.plus(TRY_A_MEGABYTE.multipliedBy(Math.min(all, INFLATED_MOST) >> 20)));
        List<Fold> found = new ArrayList<>();
        int vain = 0;
        long inflated = 0;
        boolean any = false;
        for (ZipDirectory.Member m : members) {
            if (m.stored() > STORED_MOST || m.stored() == 0) {
                continue;
            }
            boolean tries =
                    m.isDeflated() && inflated + m.length() <= INFLATED_MOST && m.length() >= m.stored() * WORTH;
            boolean isLarge = m.stored() >= ZipDirectory.MEMBER_MIN;
            if (!tries && !isLarge) {
                continue;
            }
            inflated += tries ? m.length() : 0;
            byte[] bytes = new byte[(int) m.stored()];
            content.read(m.begin(), bytes, bytes.length);
            Optional<DeflateSettings> settings = tries ? settings(m, bytes, finder) : Optional.empty();
            any |= settings.isPresent();
            vain += tries && settings.isEmpty() ? 1 : 0;
            if (vain >= VAIN_MOST && !any) {
                return List.of();
            }
            if (settings.isPresent() || isLarge) {
                found.add(new Fold(m, settings));
            }
        }
        return found;
    }

    private static Optional<DeflateSettings> settings(ZipDirectory.Member m, byte[] deflated, SettingsFinder finder) {
        return inflate(deflated, (int) m.length())
                .flatMap(content -> finder.find(content, (int) m.length(), deflated, 0, deflated.length));
    }

    /** What deflated bytes hold, with {@link DeflateEncoder#PAD} bytes behind; empty when that is not what was said of them. */
    static Optional<byte[]> inflate(byte[] deflated, int length) {
        Inflater inflater = new Inflater(true);
        try {
            inflater.setInput(deflated);
            byte[] out = new byte[length + DeflateEncoder.PAD];
            int n = 0;
            while (!inflater.finished() && n <= length) {
                int got = inflater.inflate(out, n, out.length - n);
                if (got == 0 && !inflater.finished()) {
                    return Optional.empty();
                }
                n += got;
            }
            boolean whole = inflater.finished() && n == length && inflater.getRemaining() == 0;
            Arrays.fill(out, Math.min(n, length), out.length, (byte) 0);
            return whole ? Optional.of(out) : Optional.empty();
        } catch (DataFormatException e) {
            return Optional.empty();
        } finally {
            inflater.end();
        }
    }
}
