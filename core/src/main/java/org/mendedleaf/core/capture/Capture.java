package org.mendedleaf.core.capture;

import java.io.IOException;
import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.catalogue.FolderScans;
import org.mendedleaf.core.catalogue.LineWriter;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.ScanStore;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.vault.Reserve;
import org.mendedleaf.core.words.Words;

/**
 * Captures what changed in a place: looks, compares with the scan before, reads what is not the same, and adds points to
 * lines.
 *
 * <p>Data flow: {@link TreeScanner} finds changed folders, {@link Changes} decides what became of each name, {@link
 * FileReader} reads contents into the vault on two threads, {@link PointWriter} puts the points down in groups.
 *
 * <pre>{@code
 * CaptureResult result = new Capture(vault, place, clock, authors).run(CaptureScope.WHOLE, Progress.NONE);
 * }</pre>
 */
public final class Capture {

    private final OpenVault vault;
    private final Place place;
    private final Clock clock;
    private final Authors authors;
    private boolean emptied;
    private boolean allThatChanged;

    /** A capture of this place into this vault. */
    public Capture(OpenVault vault, Place place, Clock clock, Authors authors) {
        this.vault = vault;
        this.place = place;
        this.clock = clock;
        this.authors = authors;
    }

    /** Whether somebody has to say that a folder was emptied on purpose before that is captured. */
    public static boolean looksEmptied(Reading reading, Place place) throws IOException {
        return new PlaceThere(place).looksEmptied(reading);
    }

    /** Somebody says that the folder is empty because it was emptied, and not because its disk is away. */
    public Capture emptiedOnPurpose() {
        emptied = true;
        return this;
    }

    /**
     * Captures.
     *
     * @throws PlaceGoneException when the folder is not there, or another and empty one is; nothing is taken to be removed
     *     then
     * @throws org.mendedleaf.core.vault.VaultException when the vault cannot take more; what was committed stays
     */
    public CaptureResult run(CaptureScope scope, Progress progress) throws IOException {
        Instant started = clock.instant();
        progress.begin(Words.of("capture.looking", place.name()), 0, 0);
        TreeScanner looker = look(scope, null, progress);
        try (WriteSession session = vault.write()) {
            return capture(session, scope, looker, started, progress);
        }
    }

    /** As {@link #run}, within a session that somebody else opened and goes on with afterwards. */
    public CaptureResult runWithin(WriteSession session, CaptureScope scope, Progress progress) throws IOException {
        Instant started = clock.instant();
        return capture(session, scope, look(scope, session, progress), started, progress);
    }

    /** Somebody who hears of every change says that nothing else changed than what is captured with this. */
    Capture allThatChanged() {
        allThatChanged = true;
        return this;
    }

    /** Notes that nothing changed that is not captured. */
    void allCaptured() throws IOException {
        try (WriteSession session = vault.write()) {
            ScanStore.Looked before = ScanStore.looked(session, place);
            ScanStore.looked(session, place, new ScanStore.Looked(before.last(), clock.instant()), "");
            session.commit();
        }
    }

    /** Notes why the place could not be captured, for its state to say. */
    public void failed(String trouble) throws IOException {
        try (Reading reading = vault.read()) {
            if (reading.state(place).trouble().equals(trouble)) {
                return;
            }
        }
        try (WriteSession session = vault.write()) {
            noteTrouble(session, clock.instant(), trouble);
            session.commit();
        }
    }

    private TreeScanner look(CaptureScope scope, @Nullable WriteSession within, Progress progress) throws IOException {
        Optional<String> away;
        try (Reading reading = vault.read()) {
            away = new PlaceThere(place).away(reading, emptied);
            if (away.isEmpty()) {
                return scan(scope, reading, progress);
            }
        }
        if (within == null) {
            failed(away.get());
        }
        throw new PlaceGoneException(away.get());
    }

    private TreeScanner scan(CaptureScope scope, Reading reading, Progress progress) throws IOException {
        Exclusions exclusions = new Exclusions(place.exclusions());
        if (scope instanceof CaptureScope.Folders some) {
            TreeScanner few = new TreeScanner(place, exclusions, FolderScans.asked(reading, place), progress);
            few.some(some.paths());
            return few;
        }
        TreeScanner all = new TreeScanner(place, exclusions, FolderScans.of(ScanStore.known(reading, place)), progress);
        all.whole();
        return all;
    }

    private void noteTrouble(WriteSession session, Instant now, String trouble) throws IOException {
        ScanStore.Looked before = ScanStore.looked(session, place);
        ScanStore.looked(session, place, new ScanStore.Looked(before.last(), before.good()), trouble);
        org.slf4j.LoggerFactory.getLogger(Capture.class).info("{}: {}", now, trouble);
    }

    private CaptureResult capture(
            WriteSession session, CaptureScope scope, TreeScanner looker, Instant started, Progress progress)
            throws IOException {
        new MovedAside(session, place, new LineWriter(session), authors, clock).settle();
        ScanStore.Looked before = ScanStore.looked(session, place);
        boolean first = before.good().equals(Instant.EPOCH);
        PointWriter points = new PointWriter(session, place, clock, authors, before.last(), first, started);
        Changes changes = new Changes(session, place, points);
        // Parents come before their children, so that a folder has its id when its names are decided.
        looker.changed()
                .sort(Comparator.comparingInt((FolderScan l) -> depth(l.path())).thenComparing(FolderScan::path));
        for (FolderScan folder : looker.changed()) {
            changes.decide(folder, looker);
        }
        boolean cancelled = progress.isCancelled();
        if (!cancelled) {
            changes.matchMoves();
            cancelled = !new ReadStage(session, place, points, progress).run(new ArrayList<>(changes.toRead()));
        }
        if (!cancelled) {
            points.end(changes.gone());
        }
        CaptureResult result = points.result(looker.files(), cancelled);
        if (scope instanceof CaptureScope.Whole && !cancelled) {
            boolean whole = !looker.unreadable().contains("");
            String trouble = whole ? "" : Words.of("capture.unreadableRoot", place.root());
            ScanStore.looked(session, place, new ScanStore.Looked(started, whole ? started : before.good()), trouble);
            if (whole) {
                new PlaceThere(place).remember(session);
            }
        }
        if (scope instanceof CaptureScope.Folders && allThatChanged && !cancelled) {
            ScanStore.looked(session, place, new ScanStore.Looked(before.last(), started), "");
        }
        points.finish(result);
        if (result.points() > 0) {
            new Reserve(vault.folder()).keep();
        }
        return result;
    }

    private static int depth(String path) {
        return path.isEmpty() ? 0 : 1 + (int) path.chars().filter(c -> c == '/').count();
    }
}
