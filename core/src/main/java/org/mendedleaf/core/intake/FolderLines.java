package org.mendedleaf.core.intake;

import java.io.IOException;
import java.time.Clock;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.mendedleaf.core.capture.CaptureScope;
import org.mendedleaf.core.capture.WorkContext;
import org.mendedleaf.core.catalogue.CheckOutStore;
import org.mendedleaf.core.catalogue.FindingStore;
import org.mendedleaf.core.catalogue.JournalStore;
import org.mendedleaf.core.catalogue.LineWriter;
import org.mendedleaf.core.catalogue.LiveEntry;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.RemarkStore;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.journal.Action;
import org.mendedleaf.core.journal.ActionKind;
import org.mendedleaf.core.line.CheckOut;
import org.mendedleaf.core.line.Comment;
import org.mendedleaf.core.line.Edition;
import org.mendedleaf.core.line.EntryKind;
import org.mendedleaf.core.line.EventKind;
import org.mendedleaf.core.line.FileProperties;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.StoredFinding;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.rules.Permission;
import org.mendedleaf.core.rules.PlaceRules;
import org.mendedleaf.core.rules.Rights;
import org.mendedleaf.core.rules.Setting;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;

/** Publishing, check-out, notes and comments in a protected folder. What is live is captured first. */
public final class FolderLines implements LineWork {

    private final WorkContext context;
    private final OpenVault vault;
    private final Place place;
    private final Clock clock;
    private final String who;

    /**
     * Work with the lines of a folder.
     *
     * @param context where it is done, and by whom
     */
    public FolderLines(WorkContext context) {
        this.context = context;
        this.vault = context.vault();
        this.place = context.place();
        this.clock = context.clock();
        this.who = context.who();
    }

    /** A file that is there, within a session, with what this person may do. */
    private record Taken(
            WriteSession session, LineWriter lines, Rights rights, LiveEntry live, Optional<CheckOut> out) {}

    private interface Work<T> {
        T run(Taken taken) throws IOException;
    }

    /** Does something with a file that is there, after a capture of its folder, and commits. */
    private <T> T with(String path, Permission deed, Work<T> work) throws IOException {
        try (WriteSession session = vault.write()) {
            Rights rights = PlaceRules.of(session, place).rights(who, place);
            rights.require(deed);
            context.capture()
                    .runWithin(session, new CaptureScope.Folders(Set.of(RelativePath.parent(path))), Progress.NONE);
            LineWriter lines = new LineWriter(session);
            Optional<Long> folder = lines.knownFolder(place, RelativePath.parent(path));
            Optional<LiveEntry> live = folder.isEmpty()
                    ? Optional.empty()
                    : lines.live(folder.get(), RelativePath.name(path)).filter(l -> l.kind() != EntryKind.FOLDER);
            if (live.isEmpty()) {
                throw new IllegalArgumentException(Words.of("checkout.gone", path));
            }
            Optional<CheckOut> out = CheckOutStore.of(session).get(live.get().line());
            T result = work.run(new Taken(session, lines, rights, live.get(), out));
            session.commit();
            return result;
        }
    }

    private long journal(WriteSession session, ActionKind kind, LiveEntry live, boolean undoable) throws IOException {
        long action =
                JournalStore.begin(session, new Action(0, clock.instant(), who, kind, place.id(), 0, false, List.of()));
        if (undoable) {
            JournalStore.add(
                    session,
                    action,
                    0,
                    live.folder(),
                    new Action.Item(live.line(), "", live.name(), live.number(), live.number()));
        }
        return action;
    }

    @Override
    public Done publish(String path, String note) throws IOException {
        return with(path, Permission.PUBLISH, t -> {
            Edition edition = t.lines().edition(t.live().line(), t.live().number());
            if (!edition.isDraft()) {
                throw new IllegalArgumentException(Words.of("publish.noDraft", edition.label(), path));
            }
            refuseOthers(t, path);
            return publish(t, note);
        });
    }

    private static void refuseOthers(Taken t, String path) throws IOException {
        Optional<String> locked = t.rights().locked(t.out(), false, path);
        if (locked.isPresent()) {
            throw new IllegalArgumentException(locked.get());
        }
    }

    private Done publish(Taken t, String note) throws IOException {
        long action = journal(t.session(), ActionKind.PUBLISHED, t.live(), true);
        Edition published = t.lines().publish(place, t.live(), who, clock.instant());
        note(t.session(), action, t.live(), note);
        return new Done(action, t.live().number(), published.label());
    }

    private void note(WriteSession session, long action, LiveEntry live, String note) throws IOException {
        if (!note.isEmpty()) {
            RemarkStore.note(session, action, live.line(), live.number(), note);
        }
    }

    @Override
    public CheckOut checkOut(String path) throws IOException {
        return with(path, Permission.CHECK_OUT, t -> {
            if (t.out().isPresent()) {
                CheckOut out = t.out().get();
                if (!out.who().equals(who)) {
                    throw new IllegalArgumentException(Words.of("checkout.already", path, out.who(), since(out)));
                }
                return out;
            }
            Instant now = clock.instant();
            CheckOutStore.put(t.session(), t.live().line(), who, now, t.live().number());
            t.lines().happened(t.live(), EventKind.CHECKED_OUT, who, now);
            journal(t.session(), ActionKind.CHECKED_OUT, t.live(), false);
            return new CheckOut(t.live().line(), who, now, t.live().number());
        });
    }

    private String since(CheckOut out) {
        return Formats.moment(out.since(), clock.instant(), clock.getZone());
    }

    /** The check-out of this file, which must be this person's own. */
    private CheckOut own(Taken t, String path) {
        CheckOut out = t.out().orElseThrow(() -> new IllegalArgumentException(Words.of("checkout.not", path)));
        if (!out.who().equals(who)) {
            throw new IllegalArgumentException(Words.of("checkout.notYours", path, out.who(), who));
        }
        return out;
    }

    @Override
    public Done checkIn(String path, String note, boolean publish) throws IOException {
        return with(path, Permission.CHECK_OUT, t -> {
            CheckOut out = own(t, path);
            boolean changed = t.live().number() > out.number();
            refuseOthersEdit(t, path, changed);
            Edition edition = t.lines().edition(t.live().line(), t.live().number());
            boolean whole = t.rights().settings().get(Setting.NUMBERING).equals("whole");
            boolean publishes = changed && edition.isDraft() && (whole || publish);
            if (publishes && publish) {
                t.rights().require(Permission.PUBLISH);
            }
            long action;
            if (publishes) {
                Done done = publish(t, note);
                action = done.action();
                edition = t.lines().edition(t.live().line(), t.live().number());
            } else {
                action = journal(t.session(), ActionKind.CHECKED_IN, t.live(), false);
                if (changed) {
                    note(t.session(), action, t.live(), note);
                }
            }
            end(t, EventKind.CHECKED_IN);
            return new Done(action, changed ? t.live().number() : 0, edition.label());
        });
    }

    /** What somebody else did to the file meanwhile does not go through as what this person did. */
    private void refuseOthersEdit(Taken t, String path, boolean changed) throws IOException {
        Optional<StoredFinding> edit = FindingStore.of(t.session()).open(place).stream()
                .filter(f ->
                        f.line() == t.live().line() && f.number() == t.live().number())
                .findFirst();
        if (changed && edit.isPresent()) {
            throw new IllegalArgumentException(Words.of(
                    "checkout.othersEdit",
                    path,
                    edit.get().who(),
                    t.lines().edition(t.live().line(), t.live().number()).label()));
        }
    }

    private void end(Taken t, EventKind kind) throws IOException {
        CheckOutStore.end(t.session(), t.live().line());
        t.lines().happened(t.live(), kind, who, clock.instant());
    }

    @Override
    public void giveUp(String path) throws IOException {
        with(path, Permission.CHECK_OUT, t -> {
            own(t, path);
            end(t, EventKind.GIVEN_UP);
            return journal(t.session(), ActionKind.CHECK_OUT_ENDED, t.live(), false);
        });
    }

    @Override
    public void endCheckOut(String path) throws IOException {
        with(path, Permission.END_CHECK_OUT, t -> {
            if (t.out().isEmpty()) {
                throw new IllegalArgumentException(Words.of("checkout.not", path));
            }
            end(t, EventKind.CHECK_OUT_ENDED);
            return journal(t.session(), ActionKind.CHECK_OUT_ENDED, t.live(), false);
        });
    }

    @Override
    public long note(Version version, String note) throws IOException {
        try (WriteSession session = vault.write()) {
            PlaceRules.of(session, place).rights(who, place).require(Permission.NOTE);
            long action = JournalStore.begin(
                    session, new Action(0, clock.instant(), who, ActionKind.NOTED, place.id(), 0, false, List.of()));
            long folder = new LineWriter(session).folder(place, RelativePath.parent(version.path()));
            Action.Item item = new Action.Item(
                    version.line(), "", RelativePath.name(version.path()), version.number(), version.number());
            JournalStore.add(session, action, 0, folder, item);
            RemarkStore.note(session, action, version.line(), version.number(), note);
            session.commit();
            return action;
        }
    }

    @Override
    public void comment(Version version, String words) throws IOException {
        comment(vault, place, version, words, clock.instant(), who);
    }

    /** Adds a comment to a version of any place; comments are kept in the vault. */
    public static void comment(OpenVault vault, Place place, Version version, String words, Instant at, String who)
            throws IOException {
        if (words.isBlank()) {
            throw new IllegalArgumentException(Words.of("comment.empty"));
        }
        try (WriteSession session = vault.write()) {
            PlaceRules.of(session, place).rights(who, place).require(Permission.COMMENT);
            RemarkStore.add(session, new Comment(0, version.line(), version.number(), at, who, words.strip()));
            session.commit();
        }
    }

    @Override
    public void card(String path, FileProperties card) throws IOException {
        card(vault, place, path, card, who);
    }

    /** Files a file of any place under something, and says who may see it. */
    public static void card(OpenVault vault, Place place, String path, FileProperties card, String who)
            throws IOException {
        long line;
        try (Reading reading = vault.read()) {
            line = reading.line(place, path)
                    .orElseThrow(() -> new IllegalArgumentException(Words.of("checkout.gone", path)))
                    .id();
        }
        try (WriteSession session = vault.write()) {
            PlaceRules.of(session, place).rights(who, place).require(Permission.NOTE);
            RemarkStore.card(session, line, card);
            session.commit();
        }
    }

    @Override
    public void settle(StoredFinding finding) throws IOException {
        try (WriteSession session = vault.write()) {
            PlaceRules.of(session, place).rights(who, place).require(Permission.CHANGE);
            FindingStore.settle(session, finding);
            session.commit();
        }
    }
}
