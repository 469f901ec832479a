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
            })
    void whatPeopleWriteIsTextAtOnce(String text) {
        assertThat(Contents.beginsAsProse(bytes(text))).isTrue();
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
            })
    void whatMayBeSomethingElseIsLookedAtThoroughly(String text) {
        assertThat(Contents.beginsAsProse(bytes(text))).isFalse();
    }

    @Test
    void aSignThatIsCutAtTheEndOfTheBeginningIsNoHindrance() {
        assertThat(Contents.beginsAsProse(bytes("Äpfel".repeat(10))))
                .as("no plain word first")
                .isFalse();
        assertThat(Contents.beginsAsProse(bytes("Apples " + "ä".repeat(10_000))))
                .isTrue();
        byte[] binary = bytes("Apples " + "a".repeat(10_000));
        binary[3000] = 1;
        assertThat(Contents.beginsAsProse(binary)).isFalse();
    }
}
