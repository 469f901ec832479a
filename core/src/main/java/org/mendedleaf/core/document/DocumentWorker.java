package org.mendedleaf.core.document;

import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.BufferedInputStream;
import java.io.BufferedOutputStream;
import java.io.DataInputStream;
import java.io.DataOutputStream;
import java.io.EOFException;
import java.io.IOException;
import java.io.InputStream;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;

/**
 * The process that reads documents: asked by its standard input, answering on its standard output. An answer that takes all
 * memory ends it, and nothing else.
 *
 * <p>A question is an operation (1 read, 2 member, 3 page, 4 health, 5 words, 6 colours), three texts or numbers (name, path, and page with width), and the
 * content; an answer is a byte (0 an answer, 1 a reason why there is none) and its bytes. Numbers are big-endian, as {@link
 * DataOutputStream} writes them.
 */
public final class DocumentWorker {

    static final int READ = 1;
    static final int MEMBER = 2;
    static final int PAGE = 3;
    static final int HEALTH = 4;
    static final int WORDS = 5;
    static final int COLOURS = 6;
    static final int MAIL = 7;
    static final int ATTACHMENT = 8;

    static final ObjectMapper JSON = new ObjectMapper();

    /** What the process returns when a document took all memory. */
    static final int NO_MEMORY = 3;

    private DocumentWorker() {}

    /** Answers until its input ends. */
    public static void main(String[] arguments) throws IOException {
        System.setProperty("java.awt.headless", "true");
        InputStream in = System.in;
        PrintStream out = System.out;
        // Whatever a library prints is no answer.
        System.setOut(System.err);
        DataInputStream questions = new DataInputStream(new BufferedInputStream(in, 1 << 16));
        DataOutputStream answers = new DataOutputStream(new BufferedOutputStream(out, 1 << 16));
        warmUp();
        answers.writeByte(0);
        answers.flush();
        while (true) {
            int operation;
            try {
                operation = questions.readByte();
            } catch (EOFException e) {
                return;
            }
            String name = text(questions);
            String path = text(questions);
            int page = questions.readInt();
            int width = questions.readInt();
            boolean cut = questions.readBoolean();
            byte[] content = questions.readNBytes(questions.readInt());
            byte[] answer;
            boolean good = true;
            try {
                answer = switch (operation) {
                    case READ -> JSON.writeValueAsBytes(Documents.read(name, content, cut));
                    case MEMBER -> Documents.member(name, content, path);
                    case HEALTH -> JSON.writeValueAsBytes(HealthReader.read(name, content, Limits.DEFAULT));
                    case WORDS -> Documents.words(content, Limits.LIKENESS).getBytes(StandardCharsets.UTF_8);
                    case COLOURS ->
                        ColourFields.of(content, Limits.LIKENESS)
                                .map(ColourFields::encode)
                                .orElse(new byte[0]);
                    case MAIL -> JSON.writeValueAsBytes(MailAttachments.read(content, Limits.DEFAULT));
                    case ATTACHMENT -> MailAttachments.content(content, page, Limits.DEFAULT);
                    default -> Documents.page(content, page, width);
                };
            } catch (IOException e) {
                answer = String.valueOf(e.getMessage()).getBytes(StandardCharsets.UTF_8);
                good = false;
            } catch (OutOfMemoryError e) {
                // Who asked starts another one; this one may be short of memory for good.
                System.exit(NO_MEMORY);
                return;
            }
            answers.writeByte(good ? 0 : 1);
            answers.writeInt(answer.length);
            answers.write(answer);
            answers.flush();
        }
    }

    /** What each answer needs is loaded before the first question comes. */
    private static void warmUp() throws IOException {
        Documents.mediaType("a,b\n".getBytes(StandardCharsets.UTF_8), "a.csv");
        Document text = Documents.read("a.csv", "a,b\n".getBytes(StandardCharsets.UTF_8), false);
        JSON.readValue(JSON.writeValueAsBytes(text), Document.class);
    }

    private static String text(DataInputStream in) throws IOException {
        return new String(in.readNBytes(in.readInt()), StandardCharsets.UTF_8);
    }

    static void write(DataOutputStream out, String text) throws IOException {
        byte[] bytes = text.getBytes(StandardCharsets.UTF_8);
        out.writeInt(bytes.length);
        out.write(bytes);
    }
}
