package org.mendedleaf.core.compare;

import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.document.Document;
import org.mendedleaf.core.document.Document.Block;
import org.mendedleaf.core.document.Document.Form;
import org.mendedleaf.core.document.Document.Member;
import org.mendedleaf.core.document.Document.Row;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;

/** What changed from one content to another, the earlier one first. */
public sealed interface Comparison {

    /** What changed, in a few words. */
    String words();

    /** The single changes, numbered from 1 in their order; empty where they cannot be told apart. */
    List<Change> changes();

    /** What happened to a line, a row, a paragraph or a member. */
    enum Mark {
        /** It is the same in both. */
        SAME,
        /** Only the later one has it. */
        ADDED,
        /** Only the earlier one has it. */
        REMOVED,
        /** Both have it, with something else in it. */
        CHANGED,
        /** Both have it, at another place among the others. */
        MOVED
    }

    /**
     * A single change.
     *
     * @param number from 1
     * @param where it is, as a message
     * @param before what stood there; empty when nothing did
     * @param after what stands there; empty when nothing does
     */
    record Change(int number, Mark mark, String where, String before, String after) {}

    /** A run of words that both have, that only the later one has, or that only the earlier one has. */
    record Piece(Mark mark, String text) {}

    /** Nothing changed. */
    record Equal() implements Comparison {
        @Override
        public String words() {
            return Words.of("compare.equal");
        }

        @Override
        public List<Change> changes() {
            return List.of();
        }
    }

    /**
     * Texts, by line and word. Lines that follow each other and changed are one change.
     *
     * @param lines of both, in order
     */
    record TextChanges(List<Line> lines, List<Change> changes) implements Comparison {
        /** Copies the lists. */
        public TextChanges {
            lines = List.copyOf(lines);
            changes = List.copyOf(changes);
        }

        /**
         * A line.
         *
         * @param mark whether it is the same, added or removed
         * @param before its number in the earlier text, from 1; 0 when it has none
         * @param after its number in the later text, from 1; 0 when it has none
         * @param pieces of it, with those marked that its counterpart does not have
         * @param change to which it belongs; 0 when it is the same
         */
        public record Line(Mark mark, int before, int after, List<Piece> pieces, int change) {
            /** Copies the list. */
            public Line {
                pieces = List.copyOf(pieces);
            }

            /** All of it. */
            public String text() {
                return String.join("", pieces.stream().map(Piece::text).toList());
            }
        }

        /** How many lines have this mark. */
        public int count(Mark mark) {
            return (int) lines.stream().filter(l -> l.mark() == mark).count();
        }

        @Override
        public String words() {
            return ChangeWords.join(
                    ChangeWords.plus("compare.line", count(Mark.ADDED)),
                    ChangeWords.minus("compare.line", count(Mark.REMOVED)));
        }
    }

    /**
     * Sheets, by row and cell.
     *
     * @param sheets of both, in the order of the later one
     * @param computed cells that say something else though nobody changed them: totals
     */
    record SheetChanges(List<SheetChange> sheets, List<Change> changes, List<Change> computed) implements Comparison {
        /** Copies the lists. */
        public SheetChanges {
            sheets = List.copyOf(sheets);
            changes = List.copyOf(changes);
            computed = List.copyOf(computed);
        }

        @Override
        public String words() {
            return ChangeWords.of(this);
        }
    }

    /** A column: its number in the earlier and in the later sheet, from 0; -1 when one has none. */
    record Column(Mark mark, int before, int after) {}

    /** What became of one sheet: its name as it is now, and its columns and rows of both sides in one order. */
    record SheetChange(String name, Mark mark, List<Column> columns, List<RowChange> rows) {
        /** Copies the lists. */
        public SheetChange {
            columns = List.copyOf(columns);
            rows = List.copyOf(rows);
        }

        /** How many rows have this mark. */
        public int count(Mark wanted) {
            return (int) rows.stream().filter(r -> r.mark() == wanted).count();
        }

        /** How many cells somebody changed. */
        public int cells() {
            return rows.stream().mapToInt(RowChange::cells).sum();
        }
    }

    /**
     * A row.
     *
     * @param before its number in the earlier sheet, from 0; -1 when it has none
     * @param after its number in the later sheet, from 0; -1 when it has none
     * @param from as it was; null when it has none
     * @param to as it is; null when it has none
     * @param change that it is as a whole; 0 when it is none
     * @param cellChanges the change that each of the columns is; 0 for what is none, -1 for a total; empty when no cell is one
     */
    record RowChange(
            Mark mark,
            int before,
            int after,
            @Nullable Row from,
            @Nullable Row to,
            int change,
            List<Integer> cellChanges) {
        /** Copies the list. */
        public RowChange {
            cellChanges = List.copyOf(cellChanges);
        }

        /** The change that a cell is, by its column in the list of columns; 0 for none, -1 for a total. */
        public int cellChange(int column) {
            return column < cellChanges.size() ? cellChanges.get(column) : 0;
        }

        int cells() {
            return (int) cellChanges.stream().filter(c -> c > 0).count();
        }
    }

    /**
     * Texts with a form: documents by paragraph, presentations by slide, PDF by page, messages by part.
     *
     * @param sections of both, in the order of the later one
     */
    record ProseChanges(Form form, List<SectionChange> sections, List<Change> changes) implements Comparison {
        /** Copies the lists. */
        public ProseChanges {
            sections = List.copyOf(sections);
            changes = List.copyOf(changes);
        }

        @Override
        public String words() {
            return ChangeWords.of(this);
        }
    }

    /** A section: its number in the earlier and in the later text, from 0; -1 when one has none. */
    record SectionChange(Mark mark, int before, int after, String name, List<BlockChange> blocks) {
        /** Copies the list. */
        public SectionChange {
            blocks = List.copyOf(blocks);
        }
    }

    /**
     * A block.
     *
     * @param from as it was; null when it has none
     * @param to as it is; null when it has none
     * @param before its number in the earlier section, from 0; -1 when it has none
     * @param after its number in the later section, from 0; -1 when it has none
     * @param pieces of both in one run, when it changed
     * @param change that it is; 0 when it is the same
     */
    record BlockChange(
            Mark mark,
            @Nullable Block from,
            @Nullable Block to,
            int before,
            int after,
            List<Piece> pieces,
            int change) {
        /** Copies the list. */
        public BlockChange {
            pieces = List.copyOf(pieces);
        }

        /** As it is, or was when it is gone. */
        public Block block() {
            return to != null ? to : java.util.Objects.requireNonNull(from);
        }
    }

    /**
     * Pictures.
     *
     * @param share of the pixels that differ, 0 to 1
     * @param difference a picture (PNG) as the later one, with what differs in colour and the rest pale
     */
    record PictureChanges(Document.Picture before, Document.Picture after, double share, byte[] difference)
            implements Comparison {
        @Override
        public String words() {
            if (before.width() != after.width() || before.height() != after.height()) {
                return Words.of("compare.pictureSize", before.width(), before.height(), after.width(), after.height());
            }
            return share == 0
                    ? Words.of("compare.pictureSame")
                    : share < 0.01
                            ? Words.of("compare.pictureLittle")
                            : Words.of("compare.picture", Math.round(share * 100));
        }

        @Override
        public List<Change> changes() {
            return List.of();
        }
    }

    /** Archives, by member. */
    record ArchiveChanges(List<MemberChange> members, List<Change> changes) implements Comparison {
        /** Copies the lists. */
        public ArchiveChanges {
            members = List.copyOf(members);
            changes = List.copyOf(changes);
        }

        @Override
        public String words() {
            int changed = (int) members.stream()
                    .filter(m -> m.mark() == Mark.CHANGED || m.mark() == Mark.MOVED)
                    .count();
            int added =
                    (int) members.stream().filter(m -> m.mark() == Mark.ADDED).count();
            int removed =
                    (int) members.stream().filter(m -> m.mark() == Mark.REMOVED).count();
            String words = ChangeWords.join(
                    changed == 0 ? "" : Words.of("compare.members", changed),
                    ChangeWords.plus("compare.member", added),
                    ChangeWords.minus("compare.member", removed));
            return words.isEmpty() ? Words.of("compare.packedAnew") : words;
        }
    }

    /** A member of an archive. */
    record MemberChange(Mark mark, Optional<Member> before, Optional<Member> after, int change) {
        /** Where it is, or was. */
        public String path() {
            return after.or(() -> before).orElseThrow().path();
        }
    }

    /**
     * Contents of other kinds, by equal ranges of bytes.
     *
     * @param share of the later content that the earlier one has too, 0 to 1
     * @param ranges of the later content, in order
     * @param sizeChange bytes more, or fewer when negative
     * @param kinds what both are, when they are of different kinds; else empty
     */
    record ByteChanges(double share, List<Range> ranges, long sizeChange, String kinds) implements Comparison {
        /** Copies the list. */
        public ByteChanges {
            ranges = List.copyOf(ranges);
        }

        @Override
        public String words() {
            if (!kinds.isEmpty()) {
                return kinds;
            }
            String size = sizeChange == 0 ? Words.of("compare.sameSize") : Formats.sizeChange(sizeChange);
            return Words.of("compare.bytes", Math.round(Math.floor(share * 100)), size);
        }

        @Override
        public List<Change> changes() {
            return List.of();
        }
    }

    /**
     * A range of bytes.
     *
     * @param before where it is in the earlier content; -1 when it is not there
     * @param after where it is in the later content
     */
    record Range(long before, long after, long length) {
        /** Whether both have it. */
        public boolean isEqual() {
            return before >= 0;
        }
    }
}
