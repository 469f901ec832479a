package org.mendedleaf.standins;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class BookTest {

    @TempDir
    Path temp;

    private static com.fasterxml.jackson.databind.JsonNode text(String text) {
        return Book.JSON.getNodeFactory().textNode(text);
    }

    @Test
    void whatWasCommittedIsThereAfterOpeningAgain() throws IOException {
        try (Book book = new Book(temp)) {
            book.commit(book.change().put("a", text("1")).put("b", text("ü\n\"2\"")), null, Book.Answer.of(200));
            book.commit(book.change().put("a", text("3")).drop("b"), "key", new Book.Answer(201, text("said")));
        }
        try (Book book = new Book(temp)) {
            assertThat(book.get("a")).isEqualTo(text("3"));
            assertThat(book.get("b")).isNull();
            assertThat(book.answered("key").orElseThrow().status()).isEqualTo(201);
            assertThat(book.answered("key").orElseThrow().body()).isEqualTo(text("said"));
            assertThat(book.answered("other")).isEmpty();
        }
    }

    @Test
    void aLineThatWasCutOffIsDroppedAndTheNextOneIsWhole() throws IOException {
        try (Book book = new Book(temp)) {
            book.commit(book.change().put("a", text("1")), null, Book.Answer.of(200));
        }
        Files.writeString(temp.resolve("book.jsonl"), "{\"put\": {\"a\": \"2", StandardOpenOption.APPEND);
        try (Book book = new Book(temp)) {
            assertThat(book.get("a")).isEqualTo(text("1"));
            book.commit(book.change().put("c", text("4")), null, Book.Answer.of(200));
        }
        try (Book book = new Book(temp)) {
            assertThat(book.get("a")).isEqualTo(text("1"));
            assertThat(book.get("c")).isEqualTo(text("4"));
        }
    }

    @Test
    void aLineWithoutItsEndWasNotAcknowledged() throws IOException {
        try (Book book = new Book(temp)) {
            book.commit(book.change().put("a", text("1")), null, Book.Answer.of(200));
            book.commit(book.change().put("a", text("2")), null, Book.Answer.of(200));
        }
        String all = Files.readString(temp.resolve("book.jsonl"));
        Files.writeString(temp.resolve("book.jsonl"), all.substring(0, all.length() - 1));
        try (Book book = new Book(temp)) {
            assertThat(book.get("a")).isEqualTo(text("1"));
        }
    }

    @Test
    void pagesGoOnWhereTheLastOneEndedAndStayWithinTheirPrefix() throws IOException {
        try (Book book = new Book(temp)) {
            for (int i = 0; i < 25; i++) {
                book.commit(book.change().put("v/%02d".formatted(i), text("x")), null, Book.Answer.of(200));
            }
            book.commit(book.change().put("w/other", text("x")), null, Book.Answer.of(200));
            int seen = 0;
            String after = "";
            do {
                var page = book.page("v/", after, 10);
                seen += page.size();
                after = page.size() == 10 ? page.lastKey() : "";
            } while (!after.isEmpty());
            assertThat(seen).isEqualTo(25);
        }
    }
}
