package org.mendedleaf.desktop.find;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.beans.property.SimpleObjectProperty;
import javafx.beans.property.SimpleStringProperty;
import javafx.beans.property.StringProperty;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.catalogue.FindQuery;
import org.mendedleaf.core.disk.Failures;
import org.mendedleaf.core.find.Finder;
import org.mendedleaf.core.find.Wanted;
import org.mendedleaf.core.time.MomentText;
import org.mendedleaf.desktop.context.AppContext;
import org.mendedleaf.desktop.context.Background;
import org.mendedleaf.desktop.context.OpenPlace;

/** What is looked for and what was found, without its scene. */
public final class FindModel {

    private final AppContext context;
    private final Background.Newest question;
    private final StringProperty typed = new SimpleStringProperty("");
    private final ObjectProperty<@Nullable OpenPlace> in = new SimpleObjectProperty<>();
    private final StringProperty kind = new SimpleStringProperty("");
    private final ObjectProperty<Wanted.Presence> presence = new SimpleObjectProperty<>(Wanted.Presence.ALL);
    private final ObjectProperty<Wanted.Field> field = new SimpleObjectProperty<>(Wanted.Field.ALL);
    private final StringProperty folder = new SimpleStringProperty("");
    private final StringProperty who = new SimpleStringProperty("");
    private final StringProperty from = new SimpleStringProperty("");
    private final StringProperty to = new SimpleStringProperty("");
    private final ReadOnlyObjectWrapper<Answer> answer = new ReadOnlyObjectWrapper<>(Answer.NOTHING);

    /**
     * What was found.
     *
     * @param hits snapshots whose label holds the words, then files, the latest first
     * @param words what there is to say of it: nothing found, more than is shown, not everything read yet
     */
    public record Answer(List<Hit> hits, String words) {
        static final Answer NOTHING = new Answer(List.of(), "");

        /** Copies the list. */
        public Answer {
            hits = List.copyOf(hits);
        }
    }

    /** Something that was found in a place. */
    public sealed interface Hit {
        /** The place. */
        OpenPlace openPlace();
    }

    /** A file that was found, and the place that it is in. */
    public record OfFile(OpenPlace openPlace, Finder.FileHit file) implements Hit {}

    /** A snapshot whose label holds the words. */
    public record OfSnapshot(OpenPlace openPlace, FindQuery.Labelled snapshot) implements Hit {}

    /** Finds in all open vaults. */
    public FindModel(AppContext context) {
        this.context = context;
        this.question = context.background().new Newest();
        typed.addListener((o, a, b) -> ask());
        in.addListener((o, a, b) -> ask());
        kind.addListener((o, a, b) -> ask());
        presence.addListener((o, a, b) -> ask());
        field.addListener((o, a, b) -> ask());
        for (StringProperty text : List.of(folder, who, from, to)) {
            text.addListener((o, a, b) -> ask());
        }
    }

    /** What was typed. */
    public StringProperty typedProperty() {
        return typed;
    }

    /** Only in this place; null for all. */
    public ObjectProperty<@Nullable OpenPlace> inProperty() {
        return in;
    }

    /** Only files with this ending; empty for all. */
    public StringProperty kindProperty() {
        return kind;
    }

    /** Only files in this folder of a place, by its path from the place's root; empty for all. */
    public StringProperty folderProperty() {
        return folder;
    }

    /** Only versions that this person saved; empty for anybody's. */
    public StringProperty whoProperty() {
        return who;
    }

    /** Only versions saved from this moment on, as moments are typed; empty for all. */
    public StringProperty fromProperty() {
        return from;
    }

    /** Only versions saved before this moment; empty for all. */
    public StringProperty toProperty() {
        return to;
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
    List<OpenPlace> places() {
        return context.places();
    }

    AppContext context() {
        return context;
    }

    /** Asks again, for what came since. */
    public void ask() {
        String text = typed.get();
        OpenPlace only = in.get();
        Wanted wanted;
        try {
            wanted = Wanted.parse(text, true, narrow(only));
        } catch (IllegalArgumentException e) {
            question.drop();
            // An empty box needs no word of it.
            answer.set(new Answer(List.of(), text.isBlank() ? "" : Failures.words(e)));
            return;
        }
        List<OpenPlace> openPlace = List.copyOf(context.places());
        String asks = context.settings().who();
        question.ask(
                () -> FindInVaults.find(wanted, only, openPlace, asks),
                answer::set,
                e -> answer.set(new Answer(List.of(), Failures.named(e))));
    }

    private Wanted.Narrow narrow(@Nullable OpenPlace only) {
        String path = folder.get().strip().replace('\\', '/').replaceAll("^/+|/+$", "");
        return new Wanted.Narrow(
                Optional.ofNullable(only).map(h -> h.place().id()),
                path,
                kind.get().strip().replaceFirst("^\\.", ""),
                moment(from.get(), true),
                moment(to.get(), false),
                who.get().strip(),
                presence.get(),
                field.get());
    }

    private Optional<Instant> moment(String typed, boolean since) {
        if (typed.isBlank() || MomentText.isNow(typed)) {
            return Optional.empty();
        }
        try {
            Instant now = context.clock().instant();
            MomentText moments = new MomentText(context.zone(), now, MomentText.NOWHERE);
            return Optional.of(since ? moments.readSince(typed) : moments.read(typed));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
