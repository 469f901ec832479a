package org.mendedleaf.core.systems;

import java.io.IOException;
import java.time.Clock;
import java.util.List;
import java.util.Optional;
import org.mendedleaf.core.catalogue.CheckOutStore;
import org.mendedleaf.core.catalogue.JournalStore;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.intake.FolderLines;
import org.mendedleaf.core.intake.LineWork;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.journal.Action;
import org.mendedleaf.core.journal.ActionKind;
import org.mendedleaf.core.line.CheckOut;
import org.mendedleaf.core.line.FileProperties;
import org.mendedleaf.core.line.Holder;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.StoredFinding;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;

/**
 * Publishing, check-out and notes in a place of another system, which has the last word on who may do what. Comments and
 * what a file is filed under are kept in the vault.
 */
public final class OutsideLines implements LineWork {

    private final OpenVault vault;
    private final Place place;
    private final OutsideSystem system;
    private final Clock clock;
    private final String who;
    private final String name;

    /**
     * Work with the lines of this place.
     *
     * @throws SystemException.Missing when its system is not connected
     */
    public OutsideLines(OpenVault vault, Place place, SystemRegistry registry, Clock clock, String who)
            throws IOException {
        this.vault = vault;
        this.place = place;
        this.system = registry.system(place);
        this.clock = clock;
        this.who = who;
        this.name = place.outside().orElseThrow().place();
    }

    private void needs(Capability capability) throws SystemException {
        if (!system.kind().can(capability)) {
            throw new SystemException.Unable(Words.of(
                    "system.unable", Words.of("system.kind." + system.kind().text())));
        }
    }

    private void look() throws IOException {
        new Mirror(vault, place, system, clock).run(Progress.NONE);
    }

    private Line line(String path) throws IOException {
        try (Reading reading = vault.read()) {
            return reading.line(place, path)
                    .filter(l -> l.removed().isEmpty())
                    .orElseThrow(() -> new IllegalArgumentException(Words.of("checkout.gone", path)));
        }
    }

    /** The system's own point of a version. */
    private Holder point(Line line, Version version) throws IOException {
        try (Reading reading = vault.read()) {
            return reading.outside().holders(line).getOrDefault(version.number(), List.of()).stream()
                    .filter(h -> h.kind() == Holder.Kind.POINT)
                    .findFirst()
                    .orElseThrow(() ->
                            new SystemException.Missing(Words.of("outside.notHeld", place.where(), version.label())));
        }
    }

    private long journal(ActionKind kind) throws IOException {
        try (WriteSession session = vault.write()) {
            long action = JournalStore.begin(
                    session, new Action(0, clock.instant(), who, kind, place.id(), 0, false, List.of()));
            session.commit();
            return action;
        }
    }

    @Override
    public Done publish(String path, String note) throws IOException {
        needs(Capability.DRAFTS);
        look();
        Line line = line(path);
        Version newest = line.newest().orElseThrow();
        Holder point = point(line, newest);
        if (!point.label().contains(".")) {
            throw new IllegalArgumentException(Words.of("publish.noDraft", point.label(), path));
        }
        system.publish(name, path, point.point(), note, OutsideFiles.key());
        look();
        long action = journal(ActionKind.PUBLISHED);
        return new Done(action, newest.number(), point(line(path), newest).label());
    }

    @Override
    public CheckOut checkOut(String path) throws IOException {
        needs(Capability.CHECK_OUT);
        look();
        Optional<CheckOut> before = out(path);
        if (before.isEmpty()) {
            system.checkOut(name, path, OutsideFiles.key());
            look();
            journal(ActionKind.CHECKED_OUT);
        } else if (!before.get().who().equalsIgnoreCase(who)) {
            throw new IllegalArgumentException(Words.of(
                    "checkout.already",
                    path,
                    before.get().who(),
                    Formats.moment(before.get().since(), clock.instant(), clock.getZone())));
        }
        return out(path).orElseThrow(() -> new SystemException.Garbled(Words.of("checkout.not", path)));
    }

    private Optional<CheckOut> out(String path) throws IOException {
        long id = line(path).id();
        try (Reading reading = vault.read()) {
            return CheckOutStore.of(reading).get(id);
        }
    }

    @Override
    public Done checkIn(String path, String note, boolean publish) throws IOException {
        needs(Capability.CHECK_OUT);
        look();
        CheckOut out = out(path).orElseThrow(() -> new IllegalArgumentException(Words.of("checkout.not", path)));
        if (!out.who().equalsIgnoreCase(who)) {
            throw new IllegalArgumentException(Words.of("checkout.notYours", path, out.who(), who));
        }
        Line line = line(path);
        Version newest = line.newest().orElseThrow();
        boolean changed = newest.number() > out.number();
        Holder point = point(line, newest);
        if (changed && !note.isEmpty()) {
            system.note(name, path, point.point(), note);
        }
        system.endCheckOut(name, path, OutsideSystem.CheckOutEnd.CHECK_IN, OutsideFiles.key());
        if (publish && changed && point.label().contains(".")) {
            system.publish(name, path, point.point(), "", OutsideFiles.key());
        }
        look();
        long action = journal(ActionKind.CHECKED_IN);
        return new Done(
                action, changed ? newest.number() : 0, point(line(path), newest).label());
    }

    @Override
    public void giveUp(String path) throws IOException {
        CheckOut out = out(path).orElseThrow(() -> new IllegalArgumentException(Words.of("checkout.not", path)));
        if (!out.who().equalsIgnoreCase(who)) {
            throw new IllegalArgumentException(Words.of("checkout.notYours", path, out.who(), who));
        }
        endCheckOut(path);
    }

    @Override
    public void endCheckOut(String path) throws IOException {
        needs(Capability.CHECK_OUT);
        system.endCheckOut(name, path, OutsideSystem.CheckOutEnd.GIVE_UP, OutsideFiles.key());
        look();
        journal(ActionKind.CHECK_OUT_ENDED);
    }

    @Override
    public long note(Version version, String note) throws IOException {
        needs(Capability.NOTES);
        Line line;
        try (Reading reading = vault.read()) {
            line = reading.line(version.line()).orElseThrow();
        }
        system.note(name, line.path(), point(line, version).point(), note);
        look();
        return journal(ActionKind.NOTED);
    }

    @Override
    public void comment(Version version, String words) throws IOException {
        FolderLines.comment(vault, place, version, words, clock.instant(), who);
    }

    @Override
    public void card(String path, FileProperties card) throws IOException {
        FolderLines.card(vault, place, path, card, who);
    }

    @Override
    public void settle(StoredFinding finding) {
        throw new IllegalStateException("expected a finding of a folder, got one of " + place.where());
    }
}
