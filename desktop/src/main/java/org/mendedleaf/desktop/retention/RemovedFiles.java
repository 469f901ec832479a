package org.mendedleaf.desktop.retention;

import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import java.util.function.Consumer;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.RemovedFile;
import org.mendedleaf.core.disk.Failures;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.recovery.Collision;
import org.mendedleaf.core.recovery.RestoreItem;
import org.mendedleaf.core.retention.Reason;
import org.mendedleaf.core.retention.Thinning;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.context.AppContext;
import org.mendedleaf.desktop.context.Background;
import org.mendedleaf.desktop.context.OpenPlace;

/** What can be done with files that were removed: bringing them back, and letting go of what is kept of them. */
public final class RemovedFiles {

    private final AppContext context;
    private final RetentionModel model;
    private final Background.Newest eraseQuestion;

    RemovedFiles(AppContext context, RetentionModel model) {
        this.context = context;
        this.model = model;
        this.eraseQuestion = context.background().new Newest();
    }

    /** Brings removed files back where they were, as a job. */
    public void bringBack(List<RemovedFile> files) {
        RetentionModel.Picture p = model.pictureProperty().get();
        if (p == null || files.isEmpty()) {
            return;
        }
        model.job(
                "job.bringBack",
                progress -> {
                    List<String> failed = new ArrayList<>();
                    for (Place place : p.table().places()) {
                        List<RestoreItem> requested = new ArrayList<>();
                        try (Reading reading = p.vault().read()) {
                            for (RemovedFile f : files) {
                                if (f.place() == place.id()) {
                                    requested.add(new RestoreItem(
                                            reading.version(f.line(), f.number())
                                                    .orElseThrow(),
                                            f.path()));
                                }
                            }
                        }
                        if (!requested.isEmpty()) {
                            context
                                    .work(new OpenPlace(p.vault(), place))
                                    .restore(requested, Collision.KEEP_BOTH, progress)
                                    .items()
                                    .stream()
                                    .filter(i -> !i.why().isEmpty())
                                    .forEach(i -> failed.add(i.why()));
                        }
                    }
                    return failed;
                },
                failed -> model.say(
                        failed.isEmpty() ? Words.of("retention.back", files.size()) : String.join(" ", failed)));
    }

    /** Lets all versions of removed files go that nothing protects, as a job. */
    public void erase(List<RemovedFile> files) {
        RetentionModel.Picture p = model.pictureProperty().get();
        if (p == null || files.isEmpty()) {
            return;
        }
        model.job(
                "job.thin",
                progress -> {
                    Erased e = erasing(p, files);
                    Thinning.Done done = new Thinning(
                                    p.vault(),
                                    context.clock(),
                                    context.settings().who())
                            .erase(p.table(), e.rows(), progress);
                    return new Thinning.Done(done.actions(), done.versions(), done.kept() + e.kept(), done.due());
                },
                d -> model.say(
                        Words.of("retention.erased", d.versions(), Formats.full(d.due(), context.zone()), d.kept())));
    }

    /**
     * What erasing removed files would do.
     *
     * @param rows of the versions that would go
     * @param freedBytes by that
     * @param kept how many versions are held, or shown by a snapshot, and stay
     */
    public record Erased(BitSet rows, long freedBytes, int kept) {}

    /** Tells what erasing removed files would do; only the newest question is answered. */
    public void beforeErasing(List<RemovedFile> files, Consumer<Erased> told) {
        RetentionModel.Picture p = model.pictureProperty().get();
        if (p != null) {
            eraseQuestion.ask(() -> erasing(p, files), told, e -> model.say(Failures.words(e)));
        }
    }

    private static Erased erasing(RetentionModel.Picture p, List<RemovedFile> files) {
        BitSet rows = new BitSet();
        int kept = 0;
        for (RemovedFile f : files) {
            int line = p.table().lineRow(f.line());
            for (int row = p.table().first(line); row < p.table().first(line + 1); row++) {
                Reason reason = p.verdicts().reason(row);
                if (reason == Reason.HELD || reason == Reason.SNAPSHOT) {
                    kept++;
                } else if (p.table().stays(row)) {
                    rows.set(row);
                }
            }
        }
        return new Erased(rows, p.space().freedBy(rows), kept);
    }
}
