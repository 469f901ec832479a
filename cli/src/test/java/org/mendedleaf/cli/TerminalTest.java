package org.mendedleaf.cli;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.IOException;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.io.TempDir;

/** A user at a terminal, with a folder of theirs and a clock that goes on by a minute with each command. */
abstract class TerminalTest {

    @TempDir
    Path temp;

    Path desk;
    String out = "";
    String err = "";
    Instant now = Instant.parse("2026-05-04T08:00:00Z");

    @BeforeEach
    void desk() throws IOException {
        desk = Files.createDirectory(temp.resolve("desk")).toRealPath();
    }

    int run(String... arguments) {
        now = now.plus(Duration.ofMinutes(1));
        Clock clock = new Clock() {
            @Override
            public ZoneId getZone() {
                return ZoneOffset.UTC;
            }

            @Override
            public Clock withZone(ZoneId zone) {
                return this;
            }

            @Override
            public Instant instant() {
                return now;
            }
        };
        StringWriter o = new StringWriter();
        StringWriter e = new StringWriter();
        int code = Main.run(
                arguments,
                Map.of("MENDED_LEAF_HOME", temp.resolve("home").toString()),
                clock,
                new PrintWriter(o),
                new PrintWriter(e));
        out = o.toString();
        err = e.toString();
        JsonAnswers.hold(arguments, out);
        return code;
    }

    JsonNode json(String... arguments) throws IOException {
        String[] all = java.util.Arrays.copyOf(arguments, arguments.length + 1);
        all[arguments.length] = "--json";
        assertThat(run(all)).as(out + err).isLessThan(2);
        assertThat(out).as("the answer to %s", String.join(" ", all)).isNotBlank();
        return new ObjectMapper().readTree(out);
    }

    String save(String name, String text) throws IOException {
        now = now.plus(Duration.ofMinutes(1));
        Path file = desk.resolve(name);
        Files.createDirectories(file.getParent());
        Files.writeString(file, text);
        Files.setLastModifiedTime(file, FileTime.from(now));
        return file.toString();
    }

    int protect() {
        return run("protect", desk.toString(), "--vault", temp.resolve("vault").toString());
    }

    void later(long minutes) {
        now = now.plus(Duration.ofMinutes(minutes));
    }
}
