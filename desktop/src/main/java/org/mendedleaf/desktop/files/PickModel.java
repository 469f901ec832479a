package org.mendedleaf.desktop.files;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Consumer;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import org.mendedleaf.core.compare.Compare;
import org.mendedleaf.core.compare.Comparison;
import org.mendedleaf.core.compare.Comparison.Change;
import org.mendedleaf.core.compare.Picking;
import org.mendedleaf.core.compare.Side;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Reading;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.recovery.Failures;
import org.mendedleaf.core.recovery.PutResult;
import org.mendedleaf.core.recovery.Revision;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.files.FilesModel.Message;
import org.mendedleaf.desktop.shell.Desk;
import org.mendedleaf.desktop.shell.Held;

/** Taking single changes back, without its scene: which can be, which are ticked, and making the version. */
public final class PickModel {

    private final Desk desk;
    private final LineModel line;
    private final Consumer<Message> said;
    private final Set<Integer> ticked = new TreeSet<>();
    private final ReadOnlyObjectWrapper<Offer> offer = new ReadOnlyObjectWrapper<>(Offer.NOTHING);

    /**
     * What can be taken back.
     *
     * @param changes to choose from
     * @param why it cannot be done; empty when it can
     */
    public record Offer(List<Change> changes, String why) {
        static final Offer NOTHING = new Offer(List.of(), "");

        /** Copies the list. */
        public Offer {
            changes = List.copyOf(changes);
        }
    }

    PickModel(Desk desk, LineModel line, Consumer<Message> said) {
        this.desk = desk;
        this.line = line;
        this.said = said;
        line.detailProperty().addListener((o, a, detail) -> {
            ticked.clear();
            offer.set(detail instanceof Detail.Compared c ? offer(c) : Offer.NOTHING);
        });
    }

    private Offer offer(Detail.Compared compared) {
        Line l = line.lineProperty().get();
        Version v = compared.version();
        if (l == null || l.place().isOutside() || l.removed().isPresent()) {
            return new Offer(List.of(), Words.of("pick.live", line.name()));
        }
        boolean newest = l.newest().filter(n -> n.number() == v.number()).isPresent();
        Against against = line.againstProperty().get();
        boolean toNow = against instanceof Against.Now || newest && against instanceof Against.Before;
        if (!toNow) {
            return new Offer(List.of(), Words.of("pick.againstNow"));
        }
        return Picking.refusal(l.path(), compared.comparison())
                .map(why -> new Offer(List.of(), why))
                .orElseGet(() -> new Offer(compared.comparison().changes(), ""));
    }

    /** What can be taken back of what is shown. */
    public ReadOnlyObjectProperty<Offer> offerProperty() {
        return offer.getReadOnlyProperty();
    }

    /** Ticks a change, or takes its tick away. */
    public void tick(int number, boolean is) {
        if (is) {
            ticked.add(number);
        } else {
            ticked.remove(number);
        }
    }

    /** How many are ticked. */
    public int ticks() {
        return ticked.size();
    }

    /** Makes a version of what is in the folder with the ticked changes taken back, as a job that can be undone. */
    public void take() {
        Held held = line.held();
        Line l = line.lineProperty().get();
        if (held == null
                || l == null
                || ticked.isEmpty()
                || !(line.detailProperty().get() instanceof Detail.Compared c)) {
            return;
        }
        Set<Integer> numbers = Set.copyOf(ticked);
        Version from = line.againstProperty().get() instanceof Against.Now
                ? c.version()
                : DetailLoader.before(l, c.version()).orElse(c.version());
        List<Change> shown = c.comparison().changes();
        desk.jobs()
                .start(
                        Words.of("pick.job", l.name()),
                        progress -> make(held, l, from, numbers, shown, progress),
                        done -> {
                            said.accept(done);
                            desk.changed();
                        },
                        e -> said.accept(
                                new Message(Words.of("pick.failed", l.name(), Failures.words(e)), false, true)));
    }

    private Message make(Held held, Line l, Version from, Set<Integer> numbers, List<Change> shown, Progress progress)
            throws IOException {
        Side before;
        try (Reading reading = held.vault().read()) {
            before = Side.version(reading, from);
        }
        Side after =
                Side.live(held.place(), l.path()).orElseThrow(() -> new IOException(Words.of("pick.live", l.name())));
        Comparison comparison = Compare.compare(before.name(), before.content(), after.name(), after.content());
        // Somebody may have saved since the changes were shown.
        if (!comparison.changes().equals(shown)) {
            throw new IOException(Words.of("pick.changed"));
        }
        Picking.Outcome outcome = Picking.back(after.name(), before.content(), after.content(), comparison, numbers);
        Path made = Files.createTempFile("mended-leaf-pick", "");
        try {
            Files.write(made, outcome.content());
            Revision revision = new Revision(made, l.path(), Picking.note(before.said(), outcome.taken()));
            PutResult result = desk.work(held).put(List.of(revision), progress);
            Optional<String> failed = result.failed().values().stream().findFirst();
            if (failed.isPresent()) {
                throw new IOException(failed.get());
            }
            String label = result.labels().getOrDefault(l.path(), "");
            return new Message(
                    Words.of(
                            "pick.done",
                            l.name(),
                            Words.of("pick.changes", outcome.taken().size()),
                            before.said(),
                            label),
                    true,
                    false);
        } finally {
            Files.deleteIfExists(made);
        }
    }
}
