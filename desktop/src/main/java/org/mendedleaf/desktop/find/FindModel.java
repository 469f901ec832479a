package org.mendedleaf.desktop.find;

import java.io.IOException;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.beans.property.SimpleObjectProperty;
import javafx.beans.property.SimpleStringProperty;
import javafx.beans.property.StringProperty;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.find.Finder;
import org.mendedleaf.core.find.Wanted;
import org.mendedleaf.core.line.OpenVault;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.shell.Background;
import org.mendedleaf.desktop.shell.Desk;
import org.mendedleaf.desktop.shell.Held;

/** What is looked for and what was found, without its scene. */
public final class FindModel {

    private static final int FILES_MOST = 100;

    private final Desk desk;
    private final Background.Newest question;
    private final StringProperty typed = new SimpleStringProperty("");
    private final ObjectProperty<@Nullable Held> in = new SimpleObjectProperty<>();
    private final StringProperty kind = new SimpleStringProperty("");
    private final ObjectProperty<Wanted.Presence> presence = new SimpleObjectProperty<>(Wanted.Presence.ALL);
    private final ObjectProperty<Wanted.Field> field = new SimpleObjectProperty<>(Wanted.Field.ALL);
    private final ReadOnlyObjectWrapper<Answer> answer = new ReadOnlyObjectWrapper<>(Answer.NOTHING);

    /**
     * What was found.
     *
     * @param hits by file, the latest first
     * @param words what there is to say of it: nothing found, more than is shown, not everything read yet
     */
    public record Answer(List<Hit> hits, String words) {
        static final Answer NOTHING = new Answer(List.of(), "");

        /** Copies the list. */
        public Answer {
            hits = List.copyOf(hits);
        }
    }

    /** A file in a place. */
    public record Hit(Held held, Finder.FileHit file) {}

    /** Finds in all open vaults. */
    public FindModel(Desk desk) {
        this.desk = desk;
        this.question = desk.background().new Newest();
        typed.addListener((o, a, b) -> ask());
        in.addListener((o, a, b) -> ask());
        kind.addListener((o, a, b) -> ask());
        presence.addListener((o, a, b) -> ask());
        field.addListener((o, a, b) -> ask());
    }

    /** What was typed. */
    public StringProperty typedProperty() {
        return typed;
    }

    /** Only in this place; null for all. */
    public ObjectProperty<@Nullable Held> inProperty() {
        return in;
    }

    /** Only files with this ending; empty for all. */
    public StringProperty kindProperty() {
        return kind;
    }

    /** Whether removed files are looked for, or those that are there. */
    public ObjectProperty<Wanted.Presence> presenceProperty() {
        return presence;
    }

    /** Whether names are looked for, or what versions say. */
    public ObjectProperty<Wanted.Field> fieldProperty() {
        return field;
    }

    /** What was found. */
    public ReadOnlyObjectProperty<Answer> answerProperty() {
        return answer.getReadOnlyProperty();
    }

    /** Places to choose from. */
    List<Held> places() {
        return desk.places();
    }

    Desk desk() {
        return desk;
    }

    /** Asks again, for what came since. */
    public void ask() {
        String text = typed.get();
        Held only = in.get();
        Wanted.Narrow narrow = new Wanted.Narrow(
                Optional.ofNullable(only).map(h -> h.place().id()),
                "",
                kind.get().strip().replaceFirst("^\\.", ""),
                Optional.empty(),
                Optional.empty(),
                "",
                presence.get(),
                field.get());
        Wanted wanted;
        try {
            wanted = Wanted.parse(text, true, narrow);
        } catch (IllegalArgumentException e) {
            question.drop();
            answer.set(Answer.NOTHING);
            return;
        }
        List<Held> held = List.copyOf(desk.places());
        String who = desk.home().who();
        question.ask(
                () -> find(wanted, only, held, who),
                answer::set,
                e -> answer.set(new Answer(List.of(), String.valueOf(e.getMessage()))));
    }

    private static Answer find(Wanted wanted, @Nullable Held only, List<Held> places, String who) throws IOException {
        Set<OpenVault> vaults = new LinkedHashSet<>();
        places.stream().filter(h -> only == null || h.equals(only)).forEach(h -> vaults.add(h.vault()));
        List<Hit> hits = new ArrayList<>();
        boolean more = false;
        long indexed = 0;
        long all = 0;
        for (OpenVault vault : vaults) {
            Finder.Found found = new Finder(vault, who).find(wanted, FILES_MOST);
            more |= found.more();
            indexed += found.indexed();
            all += found.all();
            for (Finder.FileHit file : found.files()) {
                places.stream()
                        .filter(h -> h.vault().equals(vault)
                                && h.place().id() == file.line().place().id())
                        .findFirst()
                        .ifPresent(h -> hits.add(new Hit(h, file)));
            }
        }
        List<String> words = new ArrayList<>();
        words.add(hits.isEmpty() ? Words.of("find.none") : Words.of("find.files", hits.size()));
        if (more) {
            words.add(Words.of("find.more"));
        }
        if (indexed < all) {
            words.add(Words.of("find.partly", indexed, all));
        }
        return new Answer(hits, String.join(" · ", words));
    }
}
