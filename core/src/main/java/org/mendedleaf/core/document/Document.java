package org.mendedleaf.core.document;

import com.fasterxml.jackson.annotation.JsonIgnore;
import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import java.util.ArrayList;
import java.util.List;

/** What a content says, in structure, ready to be shown, compared and searched. */
@JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "is")
@JsonSubTypes({
    @JsonSubTypes.Type(value = Document.Empty.class, name = "empty"),
    @JsonSubTypes.Type(value = Document.Text.class, name = "text"),
    @JsonSubTypes.Type(value = Document.Sheets.class, name = "sheets"),
    @JsonSubTypes.Type(value = Document.Prose.class, name = "prose"),
    @JsonSubTypes.Type(value = Document.Picture.class, name = "picture"),
    @JsonSubTypes.Type(value = Document.Archive.class, name = "archive"),
    @JsonSubTypes.Type(value = Document.Other.class, name = "other")
})
public sealed interface Document {

    /** Nothing in it. */
    record Empty() implements Document {}

    /**
     * Lines of text.
     *
     * @param charset in which it is written
     * @param cut whether there is more than is given
     */
    record Text(List<String> lines, String charset, boolean cut) implements Document {
        /** Copies the list. */
        public Text {
            lines = List.copyOf(lines);
        }
    }

    /**
     * Sheets of cells; a table that is written as text is one sheet without a name.
     *
     * @param cut whether there is more than is given
     */
    record Sheets(List<Sheet> sheets, boolean cut) implements Document {
        /** Copies the list. */
        public Sheets {
            sheets = List.copyOf(sheets);
        }
    }

    /**
     * A sheet.
     *
     * @param rows from the first, with empty ones where they stand between others
     * @param merged cells that are one
     */
    record Sheet(String name, List<Row> rows, List<Merged> merged) {
        /** Copies the lists. */
        public Sheet {
            rows = List.copyOf(rows);
            merged = List.copyOf(merged);
        }

        /** How many columns its widest row has. */
        public int width() {
            return rows.stream().mapToInt(r -> r.cells().size()).max().orElse(0);
        }
    }

    /** A row of a sheet, without the empty cells at its end. */
    record Row(List<Cell> cells) {
        /** Copies the list. */
        public Row {
            cells = List.copyOf(cells);
        }

        /** The cell in a column, from 0; an empty one beyond the last. */
        public Cell cell(int column) {
            return column < cells.size() ? cells.get(column) : Cell.NONE;
        }

        /** Whether nothing stands in it. */
        @JsonIgnore
        public boolean isEmpty() {
            return cells.isEmpty();
        }
    }

    /**
     * A cell.
     *
     * @param shown as the document formats it
     * @param value the number behind it, such as 12 or 0.5; empty when it is no number
     * @param formula that gives it; empty when there is none
     */
    record Cell(String shown, String value, String formula) {
        /** Nothing. */
        public static final Cell NONE = new Cell("", "", "");

        /** A cell whose number is written as short as it can be. */
        public Cell {
            value = value.endsWith(".0") ? value.substring(0, value.length() - 2) : value;
        }
    }

    /** Cells that are one: the first row and column from 0, and how many of each. */
    record Merged(int row, int column, int rows, int columns) {}

    /** What the sections of a text are. */
    enum Form {
        /** A document has one section, or as many as it is divided into. */
        DOCUMENT,
        /** Each section is a slide. */
        SLIDES,
        /** Each section is a page. */
        PAGES,
        /** The sections are the header, the body and the attachments of a message. */
        MAIL
    }

    /**
     * Text with its form.
     *
     * @param sections in order
     * @param cut whether there is more than is given
     */
    record Prose(Form form, List<Section> sections, boolean cut) implements Document {
        /** Copies the list. */
        public Prose {
            sections = List.copyOf(sections);
        }
    }

    /** A part of a text: a slide, a page, or all of it. */
    record Section(String name, List<Block> blocks) {
        /** Copies the list. */
        public Section {
            blocks = List.copyOf(blocks);
        }
    }

    /** What a block of text is. */
    enum Style {
        /** Ordinary text. */
        TEXT,
        /** A heading; its level is from 1. */
        HEADING,
        /** An item of a list; its level is how deep it stands, from 1. */
        ITEM,
        /** What somebody else said. */
        QUOTE,
        /** Text whose spaces count. */
        CODE,
        /** A note at the foot or the end, a comment, or the speaker's notes of a slide. */
        NOTE,
        /** A row of a table; its cells are divided by tabs. */
        ROW,
        /** A picture; the text says what it is called, or what it shows. */
        PICTURE,
        /** A name and a value, divided by a tab. */
        FACT
    }

    /**
     * A paragraph, a row of a table, or a picture.
     *
     * @param level how deep; 0 where that says nothing
     * @param ref what a picture is called within the document, by which it is read; a digest of it follows a #
     */
    record Block(Style style, int level, String text, String ref) {
        /** One without a picture. */
        public static Block of(Style style, int level, String text) {
            return new Block(style, level, text, "");
        }

        /** The cells of a row. */
        public List<String> cells() {
            return List.of(text.split("\t", -1));
        }
    }

    /**
     * A picture.
     *
     * @param width of the picture itself, in pixels, turned as it is to be seen
     * @param facts about it
     * @param png how it looks, perhaps smaller than it is
     */
    record Picture(int width, int height, List<Fact> facts, byte[] png) implements Document {
        /** Copies the list. */
        public Picture {
            facts = List.copyOf(facts);
        }
    }

    /**
     * What an archive holds.
     *
     * @param format of the archive
     * @param cut whether there are more members
     */
    record Archive(String format, List<Member> members, boolean cut) implements Document {
        /** Copies the list. */
        public Archive {
            members = List.copyOf(members);
        }
    }

    /**
     * A member of an archive.
     *
     * @param size unpacked, in bytes; -1 when the archive does not say
     * @param modified in milliseconds since 1970; 0 when it is not said
     * @param check a checksum of its content, where the archive has one
     */
    record Member(String path, boolean folder, long size, long modified, String check) {}

    /** A name and a value. */
    record Fact(String name, String value) {}

    /**
     * Anything else.
     *
     * @param type a media type
     * @param why it cannot be shown as what it is; empty when nothing was expected
     * @param facts about it
     * @param strings runs of text within it
     * @param hex its first bytes, sixteen in a line with their place and what they are as text
     */
    record Other(String type, String why, List<Fact> facts, List<String> strings, List<String> hex)
            implements Document {
        /** Copies the lists. */
        public Other {
            facts = List.copyOf(facts);
            strings = List.copyOf(strings);
            hex = List.copyOf(hex);
        }
    }

    /** All words in it, line by line, as far as it has any. */
    static List<String> words(Document document) {
        List<String> words = new ArrayList<>();
        if (document instanceof Text text) {
            words.addAll(text.lines());
        } else if (document instanceof Sheets sheets) {
            for (Sheet sheet : sheets.sheets()) {
                words.add(sheet.name());
                sheet.rows()
                        .forEach(r -> words.add(String.join(
                                "\t", r.cells().stream().map(Cell::shown).toList())));
            }
        } else if (document instanceof Prose prose) {
            for (Section section : prose.sections()) {
                words.add(section.name());
                section.blocks().forEach(b -> words.add(b.text()));
            }
        } else if (document instanceof Archive archive) {
            archive.members().forEach(m -> words.add(m.path()));
        } else if (document instanceof Picture picture) {
            picture.facts().forEach(f -> words.add(f.value()));
        }
        words.removeIf(String::isBlank);
        return words;
    }
}
