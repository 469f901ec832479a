package org.mendedleaf.core.findings;

import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.Comparator;
import java.util.HexFormat;
import java.util.List;
import org.mendedleaf.core.vault.Digest;
import org.mendedleaf.core.words.Words;

/**
 * Something that looks wrong and that somebody should see to.
 *
 * @param place its id
 * @param kind what it is
 * @param sure how sure
 * @param from when it began
 * @param to when it ended
 * @param marks the files
 * @param evidence why it is thought so, in all languages: {@link #why} has it in the one that is used
 */
public record Finding(
        long place, Kind kind, Certainty sure, Instant from, Instant to, List<Mark> marks, List<String> evidence) {

    /** Copies the lists. */
    public Finding {
        marks = List.copyOf(marks);
        evidence = List.copyOf(evidence);
    }

    /** What can look wrong. */
    public enum Kind {
        /** A file was saved over by something unrelated. */
        SAVED_OVER,
        /** A file was emptied. */
        EMPTIED,
        /** The end of a file is gone. */
        CUT_SHORT,
        /** A file no longer opens as what its name says. */
        UNREADABLE,
        /** Many files were harmed within minutes. */
        BURST,
        /** Many files got the same new ending, or the same new beginning. */
        ALIKE,
        /** Many files were removed within minutes. */
        REMOVED,
        /** A content changed while time and size of the file did not. */
        CHANGED_UNSEEN,
        /** Somebody saved over what somebody else had just saved. */
        CROSSED
    }

    /** How sure. */
    public enum Certainty {
        /** There is hardly another explanation. */
        CERTAIN,
        /** Most likely. */
        LIKELY,
        /** It may be meant. */
        POSSIBLE;

        /** In words. */
        public String words() {
            return Words.of("findings.sure." + this);
        }
    }

    /**
     * A file of a finding.
     *
     * @param line its id
     * @param path it had
     * @param number of the version that looks wrong; of a removal, of the last one
     * @param good number of the last good version before it; 0 when there is none
     * @param goodPath the path that it had
     * @param at when it happened
     * @param who did it, as far as known
     */
    public record Mark(long line, String path, int number, int good, String goodPath, Instant at, String who) {}

    /** A finding about one file. */
    public static Finding of(long place, Kind kind, Certainty sure, Mark mark, String... evidence) {
        return new Finding(place, kind, sure, mark.at(), mark.at(), List.of(mark), List.of(evidence));
    }

    /** The same every time it is found, and of no other: six digits, by which people call it. */
    public String id() {
        Mark first = marks.stream()
                .min(Comparator.comparing(Mark::line).thenComparing(Mark::number))
                .orElseThrow();
        String text = place + "/" + kind + "/" + first.line() + "/" + first.number();
        byte[] digest = Digest.sha256().digest(text.getBytes(StandardCharsets.UTF_8));
        return HexFormat.of().formatHex(digest).substring(0, 6);
    }

    /** The same with its files by their paths. */
    Finding byPath() {
        List<Mark> sorted =
                marks.stream().sorted(Comparator.comparing(Mark::path)).toList();
        return new Finding(place, kind, sure, from, to, sorted, evidence);
    }

    /** Why it is thought so, as a message. */
    public List<String> why() {
        return evidence.stream().map(Words::told).toList();
    }

    /** What happened, as a message. */
    public String words() {
        String name = marks.get(0).path();
        name = name.substring(name.lastIndexOf('/') + 1);
        return marks.size() == 1
                ? Words.of("findings.one." + kind, name)
                : Words.of("findings.many." + kind, marks.size());
    }
}
