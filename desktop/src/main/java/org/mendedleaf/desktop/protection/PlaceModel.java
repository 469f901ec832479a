package org.mendedleaf.desktop.protection;

import java.io.IOException;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.beans.property.ReadOnlyStringProperty;
import javafx.beans.property.ReadOnlyStringWrapper;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.disk.Failures;
import org.mendedleaf.core.disk.RawNames;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Relation;
import org.mendedleaf.core.line.RemoteSnapshot;
import org.mendedleaf.core.rules.Member;
import org.mendedleaf.core.rules.PlaceSettings;
import org.mendedleaf.core.rules.Role;
import org.mendedleaf.core.rules.Setting;
import org.mendedleaf.core.systems.BackupRun;
import org.mendedleaf.core.systems.Coverage;
import org.mendedleaf.core.systems.Outlook;
import org.mendedleaf.core.systems.SystemKind;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.context.AppContext;
import org.mendedleaf.desktop.context.Background;
import org.mendedleaf.desktop.context.OpenPlace;

/** The settings of one place in another system, as they are and as they might be, with what they mean. */
public final class PlaceModel {

    private final AppContext context;
    private final Background.Newest question;
    private final ReadOnlyObjectWrapper<Coverage.@Nullable Row> row = new ReadOnlyObjectWrapper<>();
    private final ReadOnlyObjectWrapper<PlaceSettings> draft =
            new ReadOnlyObjectWrapper<>(SystemKind.WEBDAV.standardSettings());
    private final ReadOnlyObjectWrapper<List<String>> effects = new ReadOnlyObjectWrapper<>(List.of());
    private final ReadOnlyStringWrapper forgetsNow = new ReadOnlyStringWrapper("");
    private final ReadOnlyStringWrapper forgetsThen = new ReadOnlyStringWrapper("");
    private final ReadOnlyStringWrapper problem = new ReadOnlyStringWrapper("");
    private final ReadOnlyObjectWrapper<List<RemoteSnapshot>> cuts = new ReadOnlyObjectWrapper<>(List.of());

    PlaceModel(AppContext context) {
        this.context = context;
        this.question = context.background().new Newest();
    }

    /** The settings as they might be. */
    public ReadOnlyObjectProperty<PlaceSettings> draftProperty() {
        return draft.getReadOnlyProperty();
    }

    /** What they mean, a sentence each. */
    public ReadOnlyObjectProperty<List<String>> effectsProperty() {
        return effects.getReadOnlyProperty();
    }

    /** What the place forgets as it is set. */
    public ReadOnlyStringProperty forgetsNowProperty() {
        return forgetsNow.getReadOnlyProperty();
    }

    /** What it would forget as it might be set; empty when that is the same. */
    public ReadOnlyStringProperty forgetsThenProperty() {
        return forgetsThen.getReadOnlyProperty();
    }

    /** What went wrong; empty when nothing did. */
    public ReadOnlyStringProperty problemProperty() {
        return problem.getReadOnlyProperty();
    }

    /** Its snapshots or runs, newest first. */
    public ReadOnlyObjectProperty<List<RemoteSnapshot>> cutsProperty() {
        return cuts.getReadOnlyProperty();
    }

    void show(Coverage.@Nullable Row shown) {
        Coverage.Row before = row.get();
        boolean same = before != null && shown != null && before.where().equals(shown.where());
        boolean edited = same && isChanged();
        row.set(shown);
        if (!edited) {
            problem.set("");
            shown().ifPresent(s -> draft.set(s));
        }
        look();
    }

    private Optional<PlaceSettings> shown() {
        Coverage.Row r = row.get();
        return r == null ? Optional.empty() : r.facts().map(f -> f.settings());
    }

    /** The kind of its system. */
    public Optional<SystemKind> kind() {
        Coverage.Row r = row.get();
        return r == null ? Optional.empty() : r.kind();
    }

    /** Whether something would change. */
    public boolean isChanged() {
        return shown().map(s -> !s.equals(draft.get())).orElse(false);
    }

    /** Tries a value. */
    public void change(Setting setting, String value) {
        try {
            draft.set(draft.get().with(setting, value));
            problem.set("");
        } catch (IllegalArgumentException e) {
            problem.set(Failures.named(e));
        }
        look();
    }

    /** Gives somebody a role, or takes them out with none. */
    public void member(String who, @Nullable Role role) {
        List<Member> members = new ArrayList<>(draft.get().members());
        members.removeIf(m -> m.who().equals(who));
        if (role != null && !who.isBlank()) {
            members.add(new Member(who.strip(), role));
        }
        draft.set(draft.get().with(members));
        look();
    }

    /** Puts the settings back to what they are. */
    public void reset() {
        shown().ifPresent(draft::set);
        problem.set("");
        look();
    }

    private record Looked(String now, String then, List<RemoteSnapshot> cuts) {}

    private void look() {
        Coverage.Row r = row.get();
        PlaceSettings wanted = draft.get();
        Optional<PlaceSettings> is = shown();
        if (r == null || is.isEmpty() || r.kind().isEmpty()) {
            question.drop();
            effects.set(List.of());
            forgetsNow.set("");
            forgetsThen.set("");
            cuts.set(List.of());
            return;
        }
        SystemKind kind = r.kind().get();
        effects.set(Outlook.effects(kind, wanted));
        question.ask(
                () -> look(r, kind, is.get(), wanted),
                looked -> {
                    forgetsNow.set(looked.now());
                    forgetsThen.set(looked.then());
                    cuts.set(looked.cuts());
                },
                e -> problem.set(Failures.named(e)));
    }

    private Looked look(Coverage.Row r, SystemKind kind, PlaceSettings is, PlaceSettings wanted) throws IOException {
        Place place = r.place().orElseThrow();
        Instant now = context.clock().instant();
        try (Reading reading = r.vault().orElseThrow().read()) {
            List<RemoteSnapshot> all = new ArrayList<>(reading.outside().cuts(place));
            all.removeIf(RemoteSnapshot::isLive);
            java.util.Collections.reverse(all);
            if (kind.settings().isEmpty()) {
                return new Looked("", "", all);
            }
            String before = Outlook.forgets(reading, place, kind, is, now).words(kind, now, context.zone());
            String after = Outlook.forgets(reading, place, kind, wanted, now).words(kind, now, context.zone());
            return new Looked(before, is.equals(wanted) ? "" : after, all);
        }
    }

    /** Changes the settings in the system. */
    public void save() {
        Coverage.Row r = row.get();
        Optional<OpenPlace> openPlace = r == null ? Optional.empty() : ProtectionModel.openPlace(r);
        if (openPlace.isEmpty()) {
            return;
        }
        PlaceSettings wanted = draft.get();
        context.jobs()
                .start(
                        Words.of("job.settings", openPlace.get().place().where()),
                        progress -> {
                            context.connecting()
                                    .configure(
                                            openPlace.get().place(),
                                            wanted,
                                            openPlace.get().vault());
                            return true;
                        },
                        ok -> {
                            problem.set("");
                            // What was saved is what is shown until it is looked at again.
                            row.set(null);
                            context.changed();
                        },
                        e -> problem.set(Failures.words(e)));
    }

    /** Says what taking a snapshot asks for and costs. */
    void beforeSnapshot(Consumer<String> words) {
        Coverage.Row r = row.get();
        if (r == null || r.place().isEmpty()) {
            return;
        }
        context.background()
                .run(
                        () -> {
                            try (Reading reading = r.vault().orElseThrow().read()) {
                                return Outlook.snapshotWords(
                                        reading,
                                        r.place().get(),
                                        context.clock().instant(),
                                        context.zone());
                            }
                        },
                        words,
                        e -> problem.set(Failures.words(e)));
    }

    /** Takes a snapshot. */
    public void snapshot(String label) {
        Coverage.Row r = row.get();
        if (r != null) {
            ProtectionModel.openPlace(r)
                    .ifPresent(h -> context.jobs()
                            .start(
                                    Words.of("job.snapshot", r.where()),
                                    progress -> context.outsideErasing(h).snapshot(label),
                                    cut -> context.changed(),
                                    e -> problem.set(Failures.words(e))));
        }
    }

    /** Says that a protected folder and this place are the same files; for a drive, that it is backed up there. */
    public void relate(Path folder) {
        Coverage.Row r = row.get();
        Optional<OpenPlace> openPlace = r == null ? Optional.empty() : ProtectionModel.openPlace(r);
        if (openPlace.isEmpty()) {
            return;
        }
        context.background()
                .run(
                        () -> {
                            Path real = org.mendedleaf.core.capture.Protect.realOfNew(folder);
                            Place from;
                            try (Reading reading = openPlace.get().vault().read()) {
                                from = reading.placeOf(real)
                                        .orElseThrow(() -> new IllegalArgumentException(
                                                Words.of("protection.notProtected", real)));
                            }
                            String path = RawNames.text(from.root().relativize(real));
                            Place to = openPlace.get().place();
                            boolean drive = kind().filter(k -> k == SystemKind.BACKUP_DRIVE)
                                    .isPresent();
                            Relation relation = drive
                                    ? BackupRun.relation(from, path, to)
                                    : new Relation(from.id(), path, to.id(), "");
                            context.connecting().relate(openPlace.get().vault(), relation);
                            return true;
                        },
                        ok -> context.changed(),
                        e -> problem.set(Failures.named(e)));
    }
}
