package org.mendedleaf.desktop.intake;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.util.List;
import java.util.Optional;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.beans.property.SimpleStringProperty;
import javafx.beans.property.StringProperty;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.compare.DocumentCache;
import org.mendedleaf.core.compare.Pair;
import org.mendedleaf.core.disk.Failures;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.document.Document;
import org.mendedleaf.core.document.DocumentProcess;
import org.mendedleaf.core.intake.Judgement;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.context.AppContext;
import org.mendedleaf.desktop.context.PutOptions;
import org.mendedleaf.desktop.context.PutService;

/** A revision that may be the wrong file, without its scene: what it is, what it would replace, and what can be done. */
public final class GuardModel {

    /** Of larger files only their beginning is shown. Bytes. */
    private static final int MOST = 8 << 20;

    private final AppContext context;
    private final PutService.Doubt doubt;
    private final PutService putting;
    private final StringProperty note = new SimpleStringProperty("");
    private final ReadOnlyObjectWrapper<@Nullable Side> current = new ReadOnlyObjectWrapper<>();
    private final ReadOnlyObjectWrapper<@Nullable Side> incoming = new ReadOnlyObjectWrapper<>();
    private final StringProperty problem = new SimpleStringProperty("");

    /** The model of a doubt. */
    public GuardModel(AppContext context, PutService.Doubt doubt) {
        this.context = context;
        this.doubt = doubt;
        this.putting = new PutService(context);
        note.set(doubt.options().note());
        context.background().run(this::readCurrent, current::set, e -> problem.set(Failures.words(e)));
        context.background().run(this::readIncoming, incoming::set, e -> problem.set(Failures.words(e)));
    }

    /**
     * One of the two contents.
     *
     * @param title what it is
     * @param facts size and time
     * @param document that it is; empty when there is none
     */
    public record Side(String title, String facts, Optional<Document> document) {}

    /** What is doubtful. */
    public PutService.Doubt doubt() {
        return doubt;
    }

    /** The note that the version shall have. */
    public StringProperty noteProperty() {
        return note;
    }

    /** What it would replace; null while it is read. */
    public ReadOnlyObjectProperty<@Nullable Side> currentProperty() {
        return current.getReadOnlyProperty();
    }

    /** What comes in; null while it is read. */
    public ReadOnlyObjectProperty<@Nullable Side> incomingProperty() {
        return incoming.getReadOnlyProperty();
    }

    /** What went wrong; empty when nothing did. */
    public StringProperty problemProperty() {
        return problem;
    }

    private Side readCurrent() throws IOException {
        try (Reading reading = doubt.openPlace().vault().read()) {
            Optional<Version> v = reading.line(doubt.openPlace().place(), doubt.target())
                    .filter(l -> l.removed().isEmpty() && l.path().equals(doubt.target()))
                    .flatMap(Line::newest);
            if (v.isEmpty()) {
                return new Side(Words.of("guard.noCurrent"), "", Optional.empty());
            }
            Optional<Document> document = v.get().recipe().isElsewhere()
                    ? Optional.empty()
                    : Optional.of(DocumentCache.shared().document(reading, v.get()));
            String facts = Words.of(
                    "guard.facts",
                    Formats.size(v.get().size()),
                    Formats.moment(v.get().saved(), context.clock().instant(), context.zone()),
                    v.get().who());
            return new Side(Words.of("guard.current", v.get().edition().label()), facts, document);
        }
    }

    private Side readIncoming() throws IOException {
        long size = Files.size(doubt.file());
        byte[] content;
        try (InputStream in = Files.newInputStream(doubt.file())) {
            content = in.readNBytes(MOST);
        }
        String facts = Words.of(
                "guard.factsOfFile",
                Formats.size(size),
                Formats.moment(
                        Files.getLastModifiedTime(doubt.file()).toInstant(),
                        context.clock().instant(),
                        context.zone()),
                String.valueOf(doubt.file().getParent()));
        return new Side(
                String.valueOf(doubt.file().getFileName()),
                facts,
                Optional.of(DocumentProcess.shared()
                        .read(RelativePath.name(doubt.target()), content, size > content.length)));
    }

    /** What is current, and what would come in. Slow; never on the thread of the screen. */
    public Pair pair() throws IOException {
        org.mendedleaf.core.compare.Side incoming = org.mendedleaf.core.compare.Side.disk(doubt.file());
        // It is read as what it would be.
        org.mendedleaf.core.compare.Side named =
                new org.mendedleaf.core.compare.Side(doubt.target(), incoming.said(), incoming.content());
        try (Reading reading = doubt.openPlace().vault().read()) {
            Optional<Version> current = reading.line(doubt.openPlace().place(), doubt.target())
                    .filter(l -> l.removed().isEmpty() && l.path().equals(doubt.target()))
                    .flatMap(Line::newest);
            return new Pair(
                    current.isEmpty()
                            ? Optional.empty()
                            : Optional.of(org.mendedleaf.core.compare.Side.version(reading, current.get())),
                    Optional.of(named));
        }
    }

    /** The desk. */
    AppContext context() {
        return context;
    }

    /** What is asked. */
    public String heading() {
        return Words.of("guard.heading", RelativePath.name(doubt.target()));
    }

    /** Whether the same content is an earlier version, which can be restored instead. */
    public boolean canRestore() {
        return doubt.judgement().identicalTo() > 0 && !doubt.judgement().isSame();
    }

    /** The file that it rather belongs to. */
    public Optional<String> belongsTo() {
        return doubt.judgement().belongsTo();
    }

    private PutOptions options() {
        PutOptions o = doubt.options();
        return new PutOptions(note.get().strip(), o.stage(), o.take(), o.tell(), o.author());
    }

    /** Puts it in all the same. */
    public void putAnyway(PutService.Hearer hearer) {
        putting.carryOut(doubt.openPlace(), doubt.file(), doubt.target(), options(), hearer);
    }

    /** Puts it in where it rather belongs; the guard is asked again for that. */
    public void putThere(PutService.Hearer hearer) {
        belongsTo().ifPresent(path -> putting.put(doubt.openPlace(), doubt.file(), path, options(), hearer));
    }

    /** Restores the version that is the same. */
    public void restore(PutService.Hearer hearer) {
        putting.restore(doubt, words -> hearer.done(words, true), hearer::failed);
    }

    /** What speaks against it, and then what does not. */
    public List<Judgement.Reason> reasons() {
        return doubt.judgement().reasons();
    }
}
