package org.mendedleaf.core.document;

import java.io.ByteArrayOutputStream;
import java.nio.charset.Charset;
import java.nio.charset.IllegalCharsetNameException;
import java.nio.charset.StandardCharsets;
import java.nio.charset.UnsupportedCharsetException;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import java.util.Set;
import org.mendedleaf.core.document.Document.Block;
import org.mendedleaf.core.document.Document.Form;
import org.mendedleaf.core.document.Document.Section;
import org.mendedleaf.core.document.Document.Style;

/** Rich Text Format (Microsoft, version 1.9.1) as paragraphs and rows of tables; how letters look is left out. */
final class RichTextReader {

    /** Groups that hold no text of the document. */
    private static final Set<String> OTHER = Set.of(
            "fonttbl",
            "colortbl",
            "stylesheet",
            "info",
            "pict",
            "object",
            "themedata",
            "colorschememapping",
            "latentstyles",
            "datastore",
            "listtable",
            "listoverridetable",
            "rsidtbl",
            "generator",
            "xmlnstbl",
            "fldinst",
            "header",
            "headerl",
            "headerr",
            "footer",
            "footerl",
            "footerr");

    private final byte[] content;
    private final Limits limits;
    private final List<Block> blocks = new ArrayList<>();
    private final StringBuilder text = new StringBuilder();
    private final List<String> cells = new ArrayList<>();
    private final List<Block> notes = new ArrayList<>();
    private String aroundNote = "";
    private final ByteArrayOutputStream bytes = new ByteArrayOutputStream();
    private final Deque<State> open = new ArrayDeque<>();
    private State state = new State(false, 1, false);
    private Charset charset = Charset.forName("windows-1252");
    private int at;
    private int toSkip;
    private boolean cut;

    /**
     * What holds within a group.
     *
     * @param other whether it holds no text of the document
     * @param unicodeSkip how many characters stand for one of Unicode in programs that know none
     * @param note whether it is a note at the foot
     */
    private record State(boolean other, int unicodeSkip, boolean note) {}

    private RichTextReader(byte[] content, Limits limits) {
        this.content = content;
        this.limits = limits;
    }

    static boolean isRichText(byte[] b) {
        return b.length > 5 && b[0] == '{' && b[1] == '\\' && b[2] == 'r' && b[3] == 't' && b[4] == 'f';
    }

    static Document read(byte[] content, Limits limits) {
        RichTextReader reader = new RichTextReader(content, limits);
        reader.run();
        return new Document.Prose(Form.DOCUMENT, List.of(new Section("", reader.blocks)), reader.cut);
    }

    private void run() {
        while (at < content.length && !cut) {
            char c = (char) (content[at++] & 0xff);
            switch (c) {
                case '{' -> {
                    if (open.size() >= limits.depth()) {
                        throw new IllegalArgumentException("too deep");
                    }
                    open.push(state);
                }
                case '}' -> close();
                case '\\' -> control();
                case '\r', '\n' -> {
                    // Ends of lines of the file are none of the text.
                }
                default -> put(c);
            }
        }
        open.clear();
        state = new State(false, 1, false);
        paragraph();
    }

    private void close() {
        boolean wasNote = state.note();
        if (!open.isEmpty()) {
            state = open.pop();
        }
        if (wasNote && !state.note()) {
            flush();
            notes.add(Block.of(Style.NOTE, 0, text.toString().strip()));
            text.setLength(0);
            text.append(aroundNote);
        }
    }

    private void control() {
        if (at >= content.length) {
            return;
        }
        char c = (char) (content[at] & 0xff);
        if (!Character.isLetter(c)) {
            at++;
            symbol(c);
            return;
        }
        int from = at;
        while (at < content.length && content[at] >= 'a' && content[at] <= 'z'
                || at < content.length && content[at] >= 'A' && content[at] <= 'Z') {
            at++;
        }
        String word = new String(content, from, at - from, StandardCharsets.US_ASCII);
        int number = at;
        if (at < content.length && content[at] == '-') {
            at++;
        }
        while (at < content.length && content[at] >= '0' && content[at] <= '9' && at - number < 11) {
            at++;
        }
        String parameter = new String(content, number, at - number, StandardCharsets.US_ASCII);
        if (at < content.length && content[at] == ' ') {
            at++;
        }
        word(word, parameter.isEmpty() || parameter.equals("-") ? 1 : (int) Long.parseLong(parameter));
    }

    private void symbol(char c) {
        switch (c) {
            case '\'' -> {
                String hex = at + 2 <= content.length ? new String(content, at, 2, StandardCharsets.US_ASCII) : "";
                at = Math.min(content.length, at + 2);
                if (hex.matches("[0-9a-fA-F]{2}")) {
                    put((char) Integer.parseInt(hex, 16));
                }
            }
            case '~' -> say("\u00a0");
            case '_' -> say("-");
            case '*' -> state = new State(true, state.unicodeSkip(), state.note());
            case '{', '}', '\\' -> put(c);
            case '\r', '\n' -> paragraph();
            default -> {
                // It says nothing.
            }
        }
    }

    private void word(String word, int parameter) {
        if (OTHER.contains(word)) {
            state = new State(true, state.unicodeSkip(), state.note());
            return;
        }
        switch (word) {
            case "par", "sect", "page" -> paragraph();
            case "line" -> say("\n");
            case "tab" -> say("\t");
            case "emdash" -> say("—");
            case "endash" -> say("–");
            case "lquote" -> say("‘");
            case "rquote" -> say("’");
            case "ldblquote" -> say("“");
            case "rdblquote" -> say("”");
            case "bullet" -> say("•");
            case "cell" -> {
                flush();
                cells.add(text.toString().strip().replace('\t', ' ').replace('\n', ' '));
                text.setLength(0);
            }
            case "row" -> {
                flush();
                if (!String.join("", cells).isBlank()) {
                    add(Block.of(Style.ROW, 0, String.join("\t", cells)));
                }
                cells.clear();
                text.setLength(0);
            }
            case "footnote" -> {
                flush();
                aroundNote = text.toString();
                text.setLength(0);
                state = new State(state.other(), state.unicodeSkip(), true);
            }
            case "uc" -> state = new State(state.other(), Math.max(0, Math.min(9, parameter)), state.note());
            case "u" -> {
                say(String.valueOf((char) parameter));
                toSkip = state.other() ? 0 : state.unicodeSkip();
            }
            case "ansicpg" -> codePage(parameter);
            case "mac" -> charset = known("x-MacRoman");
            case "bin" -> at = (int) Math.min(content.length, at + (long) Math.max(0, parameter));
            default -> {
                // How something looks says nothing by itself.
            }
        }
    }

    private void codePage(int number) {
        charset = number == 65001 ? StandardCharsets.UTF_8 : known("windows-" + number);
    }

    private Charset known(String name) {
        try {
            return Charset.forName(name);
        } catch (IllegalCharsetNameException | UnsupportedCharsetException e) {
            return charset;
        }
    }

    /** A byte of the text. */
    private void put(char c) {
        if (toSkip > 0) {
            toSkip--;
        } else if (!state.other()) {
            bytes.write(c);
        }
    }

    private void say(String words) {
        if (!state.other()) {
            flush();
            text.append(words);
        }
    }

    private void flush() {
        if (bytes.size() > 0) {
            text.append(bytes.toString(charset));
            bytes.reset();
        }
    }

    private void paragraph() {
        if (state.other()) {
            return;
        }
        flush();
        // What stands in a cell ends with the cell, and a note with the note.
        if (!cells.isEmpty() || state.note()) {
            text.append(state.note() ? '\n' : ' ');
            return;
        }
        if (!text.toString().isBlank()) {
            add(Block.of(Style.TEXT, 0, text.toString().strip()));
        }
        notes.forEach(this::add);
        notes.clear();
        text.setLength(0);
    }

    private void add(Block block) {
        cut = blocks.size() >= limits.rows();
        if (!cut) {
            blocks.add(block);
        }
    }
}
