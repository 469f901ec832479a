package org.mendedleaf.core.capture;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.nio.file.attribute.PosixFilePermissions;
import java.time.Instant;
import java.util.List;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.TestPlace;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.EntryKind;
import org.mendedleaf.core.line.Event;
import org.mendedleaf.core.line.EventKind;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Origin;
import org.mendedleaf.core.line.Skipped;
import org.mendedleaf.core.line.Version;

class CaptureTest {

    @TempDir
    Path temp;

    private TestPlace p;

    @BeforeEach
    void open() throws IOException {
        p = new TestPlace(temp, "*.iso", "build/");
    }

    @AfterEach
    void close() throws IOException {
        p.close();
    }

    @Test
    void theFirstCaptureTakesEverythingAndTheNextOneReadsNothing() throws IOException {
        p.save("a.txt", "one");
        p.save("sub/b.txt", "two");
        CaptureResult first = p.capture();
        assertThat(first.added()).isEqualTo(2);
        assertThat(p.line("a.txt").newest().orElseThrow().origin()).isEqualTo(Origin.FOUND);
        CaptureResult second = p.capture();
        assertThat(second.points()).isZero();
        assertThat(second.bytes()).isZero();
        assertThat(second.seen()).isEqualTo(2);
    }

    @Test
    void onlyWhatChangedIsReadAgain() throws IOException {
        p.save("a.txt", "one");
        p.save("b.txt", "a long text that is not read again");
        p.capture();
        p.save("a.txt", "three");
        CaptureResult result = p.capture();
        assertThat(result.changed()).isEqualTo(1);
        assertThat(result.bytes()).isEqualTo(5);
        assertThat(p.line("a.txt").versions()).extracting(Version::number).containsExactly(2, 1);
    }

    @Test
    void aVersionLivesFromWhenItWasSaved() throws IOException {
        p.save("a.txt", "one");
        p.capture();
        p.save("a.txt", "two");
        Instant saved = p.now();
        p.later(30);
        p.capture();
        assertThat(p.line("a.txt").newest().orElseThrow().saved()).isEqualTo(saved);
        try (Reading r = p.vault().read()) {
            long line = p.line("a.txt").id();
            assertThat(r.lines().numberAt(line, saved.minusMillis(1))).contains(1);
            assertThat(r.lines().numberAt(line, saved)).contains(2);
        }
    }

    @Test
    void aModifiedTimeFromLongAgoOrFromTheFutureIsNotBelieved() throws IOException {
        p.save("a.txt", "one");
        p.capture();
        Instant look = p.now();
        Path file = p.save("a.txt", "two");
        Files.setLastModifiedTime(file, FileTime.from(Instant.parse("1999-01-01T00:00:00Z")));
        p.capture();
        assertThat(p.line("a.txt").newest().orElseThrow().saved()).isBetween(look, p.now());
        p.save("a.txt", "three");
        Files.setLastModifiedTime(file, FileTime.from(Instant.parse("2199-01-01T00:00:00Z")));
        p.capture();
        assertThat(p.line("a.txt").newest().orElseThrow().saved()).isBeforeOrEqualTo(p.now());
    }

    @Test
    void touchingAFileMakesNoVersion() throws IOException {
        Path file = p.save("a.txt", "one");
        p.capture();
        Files.setLastModifiedTime(file, FileTime.from(p.later(5)));
        assertThat(p.capture().points()).isZero();
        assertThat(p.tree(p.now()).get("a.txt").mtimeNanos())
                .isEqualTo(Files.getLastModifiedTime(file).to(TimeUnit.NANOSECONDS));
    }

    @Test
    void aRenamedFileKeepsItsLine() throws IOException {
        p.save("old.txt", "one");
        p.capture();
        Files.move(p.path("old.txt"), p.path("new.txt"));
        CaptureResult result = p.capture();
        assertThat(result.moved()).isEqualTo(1);
        assertThat(result.bytes()).as("nothing is read for a rename").isZero();
        Line line = p.line("new.txt");
        assertThat(line.points().get(0)).isInstanceOfSatisfying(Event.class, e -> {
            assertThat(e.kind()).isEqualTo(EventKind.RENAMED);
            assertThat(e.from()).isEqualTo("old.txt");
        });
        assertThat(p.line("old.txt").id()).as("the old name is findable").isEqualTo(line.id());
    }

    @Test
    void aFileMovedByCopyingAndDeletingKeepsItsLine() throws IOException {
        p.save("a/file.txt", "the same content in another file");
        p.capture();
        long id = p.line("a/file.txt").id();
        p.save("b/file.txt", "the same content in another file");
        Files.delete(p.path("a/file.txt"));
        assertThat(p.capture().moved()).isEqualTo(1);
        assertThat(p.line("b/file.txt").id()).isEqualTo(id);
    }

    @Test
    void aRenamedFolderTakesItsLinesAlong() throws IOException {
        p.save("old/deep/a.txt", "one");
        p.save("old/b.txt", "two");
        p.capture();
        long a = p.line("old/deep/a.txt").id();
        Files.move(p.path("old"), p.path("new"));
        CaptureResult result = p.capture();
        assertThat(result.moved()).isEqualTo(2);
        assertThat(result.removed()).isZero();
        assertThat(p.line("new/deep/a.txt").id()).isEqualTo(a);
        assertThat(p.names(p.now())).containsExactly("new", "new/b.txt", "new/deep", "new/deep/a.txt");
    }

    @Test
    void aFolderMovedAwayAndBackAcrossLooksIsThereAgain() throws IOException {
        p.save("box/a.txt", "one");
        p.capture();
        Path outside = temp.resolve("outside");
        Files.move(p.path("box"), outside);
        assertThat(p.capture().removed()).isEqualTo(1);
        Files.move(outside, p.path("box"));
        assertThat(p.capture().added()).isEqualTo(1);
        assertThat(p.names(p.now())).contains("box/a.txt");
        assertThat(p.line("box/a.txt").newest().orElseThrow().origin()).isEqualTo(Origin.RETURNED);
    }

    @Test
    void savingBesideAndRenamingOverKeepsTheLine() throws IOException {
        p.save("letter.odt", "one");
        p.capture();
        long id = p.line("letter.odt").id();
        p.save("other name.xyz", "two");
        p.capture();
        Files.move(p.path("other name.xyz"), p.path("letter.odt"), java.nio.file.StandardCopyOption.REPLACE_EXISTING);
        p.capture();
        Line line = p.line("letter.odt");
        assertThat(line.id()).isEqualTo(id);
        assertThat(line.versions()).hasSize(2);
    }

    @Test
    void renamingToABackupAndWritingAnewKeepsTheLine() throws IOException {
        p.save("letter.odt", "one");
        p.capture();
        long id = p.line("letter.odt").id();
        Files.move(p.path("letter.odt"), p.path("letter.odt.bak"));
        p.save("letter.odt", "two");
        p.capture();
        assertThat(p.line("letter.odt").id()).isEqualTo(id);
        assertThat(p.line("letter.odt").versions()).hasSize(2);
        assertThat(p.line("letter.odt.bak").id()).isNotEqualTo(id);
    }

    @Test
    void deletingAndWritingAnewKeepsTheLineEvenAcrossLooks() throws IOException {
        p.save("a.txt", "one");
        p.capture();
        long id = p.line("a.txt").id();
        Files.delete(p.path("a.txt"));
        p.capture();
        assertThat(p.line("a.txt").removed()).isPresent();
        p.save("a.txt", "two");
        p.capture();
        Line line = p.line("a.txt");
        assertThat(line.id()).isEqualTo(id);
        assertThat(line.removed()).isEmpty();
        assertThat(line.versions()).hasSize(2);
    }

    @Test
    void aNameGivenAwayAndUsedAnewBelongsToANewLine() throws IOException {
        p.save("a.txt", "one");
        p.capture();
        long first = p.line("a.txt").id();
        Files.move(p.path("a.txt"), p.path("b.txt"));
        p.capture();
        p.save("a.txt", "another");
        p.capture();
        assertThat(p.line("b.txt").id()).isEqualTo(first);
        assertThat(p.line("a.txt").id()).isNotEqualTo(first);
    }

    @Test
    void whatPatternsLeaveOutIsListedWithItsReason() throws IOException {
        p.save("disk.iso", "large");
        p.save("build/out.txt", "made");
        p.save("~$letter.docx", "lock");
        p.save("a.txt", "kept");
        CaptureResult result = p.capture();
        assertThat(p.names(p.now())).containsExactly("a.txt");
        assertThat(result.troubles()).isEmpty();
        try (Reading r = p.vault().read()) {
            assertThat(r.state(p.place()).skipped())
                    .extracting(Skipped::path, Skipped::reason)
                    .containsExactlyInAnyOrder(
                            org.assertj.core.groups.Tuple.tuple("disk.iso", Skipped.Reason.LEFT_OUT),
                            org.assertj.core.groups.Tuple.tuple("build", Skipped.Reason.LEFT_OUT),
                            org.assertj.core.groups.Tuple.tuple("~$letter.docx", Skipped.Reason.LEFT_OUT));
        }
    }

    @Test
    void aPipeIsListedAndNotRead() throws Exception {
        p.save("a.txt", "kept");
        Process made = new ProcessBuilder("mkfifo", p.path("pipe").toString()).start();
        assumeTrue(made.waitFor() == 0);
        p.capture();
        assertThat(p.names(p.now())).containsExactly("a.txt");
        try (Reading r = p.vault().read()) {
            assertThat(r.state(p.place()).skipped())
                    .singleElement()
                    .satisfies(s -> assertThat(s.reason()).isEqualTo(Skipped.Reason.SPECIAL));
        }
    }

    @Test
    void aFileThatMayNotBeReadIsListedAndItsPastStays() throws IOException {
        Path file = p.save("secret.txt", "one");
        p.capture();
        p.save("secret.txt", "two");
        Files.setPosixFilePermissions(file, PosixFilePermissions.fromString("---------"));
        assumeTrue(!Files.isReadable(file), "the administrator may read everything");
        CaptureResult result = p.capture();
        assertThat(result.troubles()).extracting(Skipped::reason).containsExactly(Skipped.Reason.NO_PERMISSION);
        assertThat(p.line("secret.txt").removed()).isEmpty();
    }

    @Test
    void emptyFoldersPermissionsTimesAndLinksAreKept() throws IOException {
        Path file = p.save("run.sh", "#!/bin/sh");
        Files.setPosixFilePermissions(file, PosixFilePermissions.fromString("rwxr-x---"));
        Files.setLastModifiedTime(file, FileTime.from(1_234_567_890_123_456_789L, TimeUnit.NANOSECONDS));
        Files.createDirectory(p.path("empty"));
        Files.createSymbolicLink(p.path("link"), Path.of("../outside.txt"));
        p.capture();
        var tree = p.tree(p.now());
        assertThat(tree.get("empty").kind()).isEqualTo(EntryKind.FOLDER);
        assertThat(tree.get("run.sh").mode()).isEqualTo(0b111_101_000);
        assertThat(tree.get("run.sh").mtimeNanos()).isEqualTo(1_234_567_890_123_456_789L);
        assertThat(tree.get("link").kind()).isEqualTo(EntryKind.LINK);
    }

    @Test
    void linksAreNeverFollowedOutOfTheFolder() throws IOException {
        Path outside = Files.createDirectory(temp.resolve("outside"));
        Files.writeString(outside.resolve("private.txt"), "not ours");
        Files.createSymbolicLink(p.path("door"), outside);
        p.capture();
        assertThat(p.names(p.now())).containsExactly("door");
    }

    @Test
    void oddNamesWork() throws IOException {
        List<String> names = List.of(
                "with space.txt",
                "quote\"and'apostrophe.txt",
                "line\nbreak.txt",
                "果樹園 яблоко عصير.txt",
                "x".repeat(251) + ".txt",
                "ä".repeat(127) + "x",
                "%20?#&*[x].txt",
                " leading and trailing ",
                "-rf");
        for (String name : names) {
            p.save(name, "content of " + name);
        }
        p.capture();
        assertThat(p.names(p.now())).containsExactlyInAnyOrderElementsOf(names);
        for (String name : names) {
            p.save(name, "new content of " + name);
        }
        assertThat(p.capture().changed()).isEqualTo(names.size());
    }

    @Test
    void pathsLongerThanTheSystemTakesInOnePieceWork() throws IOException {
        String name = "folder-" + "y".repeat(240);
        String path = DeepFolder.make(p.folder(), name, 18, "deep.txt", "far down");
        assertThat(path.length()).isGreaterThan(4400);
        CaptureResult result = p.capture();
        assertThat(result.troubles()).isEmpty();
        Line line = p.line(path);
        try (Reading r = p.vault().read()) {
            byte[] head = r.contents().head(line.newest().orElseThrow().recipe(), 100);
            assertThat(new String(head, java.nio.charset.StandardCharsets.UTF_8))
                    .isEqualTo("far down");
        }
        DeepFolder.delete(p.folder(), path);
        p.capture();
        var back = p.recovery()
                .restore(
                        List.of(new org.mendedleaf.core.recovery.RestoreItem(
                                line.newest().orElseThrow(), path)),
                        org.mendedleaf.core.recovery.Collision.REPLACE,
                        Progress.NONE);
        assertThat(back.items().get(0).why()).isEmpty();
        assertThat(DeepFolder.read(p.folder(), path)).isEqualTo("far down");
        DeepFolder.deleteAll(p.folder(), path);
    }

    @Test
    void aFolderThatVanishedIsAnErrorAndNotARemoval() throws IOException {
        p.save("a.txt", "one");
        p.capture();
        Files.move(p.folder(), temp.resolve("elsewhere"));
        assertThatThrownBy(p::capture).isInstanceOf(PlaceGoneException.class);
        Files.move(temp.resolve("elsewhere"), p.folder());
        assertThat(p.line("a.txt").removed()).isEmpty();
        assertThat(p.capture().points()).isZero();
    }

    @Test
    void aPatternAddedLaterEndsTheLineWithoutARemoval() throws IOException {
        p.save("notes.log", "one");
        p.capture();
        Protect.place(p.vault(), p.folder(), p.place().rhythm(), List.of("*.log"), p.clock(), "Ines");
        try (Reading r = p.vault().read()) {
            new Capture(p.vault(), r.places().get(0), p.clock(), p.authors()).run(CaptureScope.WHOLE, Progress.NONE);
        }
        assertThat(p.line("notes.log").points().get(0))
                .isInstanceOfSatisfying(Event.class, e -> assertThat(e.kind()).isEqualTo(EventKind.LEFT_OUT));
        assertThat(p.path("notes.log")).exists();
    }

    @Test
    void lookingAtOneFolderSeesMovesWithinWhatItLooksAt() throws IOException {
        p.save("a/x.txt", "one");
        p.save("b/y.txt", "two");
        p.capture();
        Files.move(p.path("a/x.txt"), p.path("b/x.txt"));
        p.save("b/y.txt", "three");
        CaptureResult result = p.capture("a", "b");
        assertThat(result.moved()).isEqualTo(1);
        assertThat(result.changed()).isEqualTo(1);
        assertThat(p.capture().points()).isZero();
    }

    @Test
    void aCancelledCaptureKeepsWhatItHadAndTheNextOneGoesOn() throws IOException {
        for (int i = 0; i < 500; i++) {
            p.save("file" + i + ".txt", "content " + i);
        }
        Progress impatient = new Progress() {
            private int calls;

            @Override
            public synchronized boolean isCancelled() {
                return ++calls > 40;
            }
        };
        CaptureResult result =
                new Capture(p.vault(), p.place(), p.clock(), p.authors()).run(CaptureScope.WHOLE, impatient);
        assertThat(result.cancelled()).isTrue();
        assertThat(p.check().isClean()).isTrue();
        p.capture();
        assertThat(p.names(p.now())).hasSize(500);
        assertThat(p.line("file7.txt").versions()).hasSize(1);
    }

    @Test
    void equalContentsAreStoredOnce() throws IOException {
        byte[] noise = new byte[400_000];
        new java.util.Random(2).nextBytes(noise);
        p.save("a.bin", noise);
        p.capture();
        long before = stored();
        p.save("b.bin", noise);
        p.save("c.bin", noise);
        p.capture();
        assertThat(stored() - before).isLessThan(5_000);
    }

    private long stored() throws IOException {
        try (Reading r = p.vault().read()) {
            return r.space().storedBytes();
        }
    }
}
