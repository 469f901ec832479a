package org.mendedleaf.core.recovery;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.nio.file.attribute.BasicFileAttributes;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.catalogue.LiveEntry;
import org.mendedleaf.core.catalogue.RemarkStore;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.disk.Failures;
import org.mendedleaf.core.disk.RawNames;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.words.Words;

/** Takes files that came in away from where they were, once what they hold is kept. */
final class TakingAway {

    private final WriteSession session;
    private final Place place;
    private final InPlace files;
    private final JournalWriter noting;

    TakingAway(WriteSession session, Place place, InPlace files, JournalWriter noting) {
        this.session = session;
        this.place = place;
        this.files = files;
        this.noting = noting;
    }

    /**
     * Removes a file from where it was.
     *
     * @param was how it looked when its content was read
     * @return why it stays; null when it does not
     */
    @Nullable
    String run(Revision revision, BasicFileAttributes was) throws IOException {
        Path file = revision.file().toAbsolutePath().normalize();
        Path parent = file.getParent();
        Path real = parent == null ? file : parent.toRealPath().resolve(file.getFileName());
        if (real.startsWith(place.root())) {
            String path = RawNames.text(place.root().relativize(real));
            if (path.equals(revision.path())) {
                return null;
            }
            if (files.live(path).isPresent()) {
                Task.Outcome o = files.run(List.of(new Task.Remove(path)), noting, Progress.NONE)
                        .get(0);
                return o.isGood() ? null : o.why();
            }
        }
        LiveEntry kept = files.live(revision.path()).orElse(null);
        if (kept == null || !looksSame(was, attributes(real))) {
            return Words.of("restore.changedMeanwhile");
        }
        if (Files.isSymbolicLink(real)) {
            return Words.of("put.link");
        }
        RemarkStore.Taken taken = new RemarkStore.Taken(real.toString(), kept.line(), kept.number());
        RemarkStore.taken(session, noting.action(), taken);
        session.commit();
        try {
            OwnFile.delete(real, now -> looksSame(was, attributes(now)));
            return null;
        } catch (IOException e) {
            RemarkStore.notTaken(session, noting.action(), taken);
            session.commit();
            return Files.exists(real, LinkOption.NOFOLLOW_LINKS) ? Failures.words(e) : null;
        }
    }

    /** How a file looks; it must be one. */
    static BasicFileAttributes attributes(Path file) throws IOException {
        BasicFileAttributes a = Files.readAttributes(file, BasicFileAttributes.class);
        if (!a.isRegularFile()) {
            throw new IOException(Words.of("put.noFile", file));
        }
        return a;
    }

    static boolean looksSame(BasicFileAttributes a, BasicFileAttributes b) {
        return a.size() == b.size() && a.lastModifiedTime().equals(b.lastModifiedTime());
    }
}
