package org.mendedleaf.core.preview;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** What begins as people write is told to be text at once, and is what a thorough look says it is. */
class ContentsTest {

    private static byte[] bytes(String text) {
        return text.getBytes(StandardCharsets.UTF_8);
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "# Prices\n\nKaty 412",
                "Dear Katy, the apples are ripe.",
                "kind,kilos\nKaty,412\n",
                "Notes\nof the meeting",
                "Preise für Äpfel",
                "Date;Amount\n2026-11-29;12,50\n",
                "Date\tAmount\n",
                "\"Date\",\"Amount\"\n",
                "\"412\";\"Katy\"\n",
                "2026-11-29;12,50\n",
                "29.11.2026 12,50\n",
                "12\n13\n",
                "4 17\n",
                "07:30 opens",
            })
    void whatPeopleWriteIsTextAtOnce(String text) {
        assertThat(Contents.beginsAsPlainText(bytes(text))).isTrue();
        assertThat(Contents.mediaType(bytes(text), "")).isEqualTo(Contents.PLAIN);
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "",
                "#",
                "a",
                "From ines@example.org Sat Nov 28 10:00:00 2026\n",
                "Subject: prices\n\nKaty",
                "<html>a</html>",
                "The page\n<html>",
                "{\\rtf1 a}",
                "%PDF-1.4",
                "P3\n1 1\n255\n0 0 0\n",
                "Word\u0000and more",
                "import os",
                "digraph { a -> b }",
                "0\nSECTION\n2\nHEADER\n",
                "0\r\nSECTION\r\n2\r\nHEADER\r\n",
                "999\nmade by hand\n0\nSECTION\n",
                "00714cam a2200205 a 4500",
                "0707070000010000021006440000000000",
            })
    void whatMayBeSomethingElseIsLookedAtThoroughly(String text) {
        assertThat(Contents.beginsAsPlainText(bytes(text))).isFalse();
    }

    @Test
    void aSignThatIsCutAtTheEndOfTheBeginningIsNoHindrance() {
        assertThat(Contents.beginsAsPlainText(bytes("Äpfel".repeat(10))))
                .as("no plain word first")
                .isFalse();
        assertThat(Contents.beginsAsPlainText(bytes("Apples " + "ä".repeat(10_000))))
                .isTrue();
        byte[] binary = bytes("Apples " + "a".repeat(10_000));
        binary[3000] = 1;
        assertThat(Contents.beginsAsPlainText(binary)).isFalse();
    }
}
