package org.mendedleaf.core.recovery;

import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.FileTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.concurrent.TimeUnit;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.RemarkStore;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.disk.Access;
import org.mendedleaf.core.disk.Failures;
import org.mendedleaf.core.disk.SafeFolder;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.words.Words;

/** Brings back the files that an action removed from outside of any place, where nothing has their names meanwhile. */
public final class RemovalUndo {

    private RemovalUndo() {}

    /** Brings them back; returns what could not be, as a message. */
    public static List<String> run(WriteSession session, Reading reading, long action) throws IOException {
        List<String> failed = new ArrayList<>();
        for (RemarkStore.Taken t : RemarkStore.of(session).taken(action)) {
            Path file = Path.of(t.path());
            if (Files.exists(file, LinkOption.NOFOLLOW_LINKS)) {
                continue;
            }
            try {
                write(file, reading, reading.version(t.line(), t.number()).orElseThrow());
                RemarkStore.notTaken(session, action, t);
            } catch (IOException e) {
                failed.add(Words.of("put.notBack", file, Failures.words(e)));
            }
        }
        return failed;
    }

    private static void write(Path file, Reading reading, Version version) throws IOException {
        Path folder = file.getParent();
        Path beside = (folder == null ? Path.of(".") : folder).resolve(SafeFolder.ownName());
        try {
            try (FileChannel out =
                    Access.OWNER.open(beside, Set.of(StandardOpenOption.CREATE_NEW, StandardOpenOption.WRITE))) {
                reading.contents().copy(version.recipe(), out);
                out.force(true);
            }
            Files.setLastModifiedTime(beside, FileTime.from(version.mtimeNanos(), TimeUnit.NANOSECONDS));
            OwnFile.place(beside, file);
        } finally {
            Files.deleteIfExists(beside);
        }
    }
}
