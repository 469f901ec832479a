package org.mendedleaf.core.retention;

import java.io.IOException;
import java.time.Clock;
import java.time.DayOfWeek;
import java.time.Instant;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import java.util.Set;
import org.mendedleaf.core.capture.CaptureScope;
import org.mendedleaf.core.capture.WorkContext;
import org.mendedleaf.core.catalogue.HoldStore;
import org.mendedleaf.core.catalogue.JournalStore;
import org.mendedleaf.core.catalogue.LineWriter;
import org.mendedleaf.core.catalogue.LiveEntry;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.TrustedTime;
import org.mendedleaf.core.catalogue.UniqueBytes;
import org.mendedleaf.core.catalogue.VersionColumns;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.journal.Action;
import org.mendedleaf.core.journal.ActionKind;
import org.mendedleaf.core.line.FileAttributes;
import org.mendedleaf.core.line.Hold;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Origin;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.recovery.Collision;
import org.mendedleaf.core.recovery.FileWork;
import org.mendedleaf.core.recovery.Recovery;
import org.mendedleaf.core.recovery.RestoreItem;
import org.mendedleaf.core.recovery.RestoreResult;
import org.mendedleaf.core.rules.Permission;
import org.mendedleaf.core.rules.PlaceRules;
import org.mendedleaf.core.vault.StoredContent;
import org.mendedleaf.core.vault.VaultException;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;

/**
 * Erases versions of a file in a folder because somebody wants them gone: says first exactly what would be lost, lets them
 * go with a grace time in which one undo brings all back, and leaves what is held.
 */
public final class Erasing {

    private static final org.slf4j.Logger log = org.slf4j.LoggerFactory.getLogger(Erasing.class);

    private final WorkContext context;
    private final OpenVault vault;
    private final Place place;
    private final Clock clock;
    private final String who;

    /** Erasing in this folder, by this person. */
    public Erasing(WorkContext context) {
        this.context = context;
        this.vault = context.vault();
        this.place = context.place();
        this.clock = context.clock();
        this.who = context.who();
    }

    /** What of a line. */
    public enum What {
        /** One version. */
        VERSION,
        /** All but the newest. */
        OLDER,
        /** All of them, and the file. */
        ALL
    }

    /**
     * What would happen.
     *
     * @param numbers of the versions that would go, newest first
     * @param bytes of them, each counted whole
     * @param freedBytes that nothing else needs
     * @param kept what stays although it was meant, and why, as a message
     * @param warnings of what goes that somebody would miss, as a message
     * @param current number of the version whose content becomes current; 0 when that does not change
     * @param removes whether the file is removed from its folder
     */
    public record Consequences(
            List<Integer> numbers,
            long bytes,
            long freedBytes,
            List<String> kept,
            List<String> warnings,
            int current,
            boolean removes) {

        /** Copies. */
        public Consequences {
            numbers = List.copyOf(numbers);
            kept = List.copyOf(kept);
            warnings = List.copyOf(warnings);
        }

        private Consequences with(List<Integer> others, List<String> stays) {
            return new Consequences(others, bytes, freedBytes, stays, warnings, current, removes);
        }

        /** In sentences. */
        public List<String> words(Line line) {
            List<String> said = new ArrayList<>();
            said.add(
                    numbers.isEmpty()
                            ? Words.of("erase.nothing", line.name())
                            : Words.of(
                                    "erase.what",
                                    numbers.size(),
                                    line.name(),
                                    Formats.size(bytes),
                                    Formats.size(freedBytes),
                                    line.label(numbers.get(0))));
            if (removes) {
                said.add(Words.of("erase.removes", line.path()));
            } else if (current > 0) {
                said.add(Words.of("erase.current", line.label(current)));
            }
            said.addAll(warnings);
            said.addAll(kept);
            return said;
        }
    }

    /** A selection of rows in a table, and what it means. */
    private record Chosen(VersionTable table, BitSet rows, Consequences consequences) {}

    /** What erasing would do, now. */
    public Consequences consequences(long line, What what, int number) throws IOException {
        try (Reading reading = vault.read()) {
            return choose(reading, line, what, number).consequences();
        }
    }

    private Chosen choose(Reading reading, long line, What what, int number) throws IOException {
        VersionTable t = VersionTable.ofLine(reading, line);
        Verdicts v = verdicts(t, HoldStore.of(reading).standing(), TrustedTime.of(reading, clock.instant()));
        Line of = reading.line(line).orElseThrow();
        int l = t.lineRow(line);
        int first = t.first(l);
        int last = t.first(l + 1) - 1;
        BitSet rows = new BitSet();
        List<String> kept = new ArrayList<>();
        long bytes = 0;
        List<Integer> numbers = new ArrayList<>();
        for (int row = last; row >= first; row--) {
            boolean meant = switch (what) {
                case VERSION -> t.number(row) == number;
                case OLDER -> row != last;
                case ALL -> true;
            };
            if (!meant || !t.stays(row)) {
                continue;
            }
            if (isHeld(v, row)) {
                kept.add(whyKept(v, row, of.label(t.number(row))));
                continue;
            }
            rows.set(row);
            numbers.add(t.number(row));
            bytes += t.bytes(row);
        }
        boolean newest = t.removed(l) == 0 && rows.get(last);
        int current = 0;
        for (int row = last - 1; newest && row >= first && current == 0; row--) {
            current = t.stays(row) && !rows.get(row) ? t.number(row) : 0;
        }
        // A file whose newest version is held keeps that; the file stays with it.
        boolean removes = newest && current == 0;
        List<String> warnings = removes ? List.of() : warnings(t, of, rows, first, last);
        return new Chosen(
                t,
                rows,
                new Consequences(
                        numbers,
                        bytes,
                        UniqueBytes.storedBytes(reading, line, Set.copyOf(numbers)),
                        kept,
                        warnings,
                        current,
                        removes));
    }

    private Verdicts verdicts(VersionTable t, List<Hold> holds, Instant now) {
        return Verdicts.of(t, holds, RuleSet.NONE, now, new Calendar(clock.getZone(), DayOfWeek.MONDAY));
    }

    private static boolean isHeld(Verdicts v, int row) {
        return v.reason(row) == Reason.HELD || v.reason(row) == Reason.SNAPSHOT;
    }

    private static String whyKept(Verdicts v, int row, String label) {
        return Words.of(
                v.reason(row) == Reason.HELD ? "erase.held" : "erase.inSnapshot",
                label,
                v.at(row).detail());
    }

    /** What is chosen, without what was held or taken into a snapshot since it was: that stays. */
    private Chosen checkedAgain(WriteSession session, Chosen chosen, Line of) throws IOException {
        VersionTable fresh = VersionTable.ofLine(session, of.id());
        Verdicts v = verdicts(fresh, HoldStore.of(session).standing(), TrustedTime.of(session, clock.instant()));
        BitSet rows = new BitSet();
        List<Integer> numbers = new ArrayList<>(chosen.consequences().numbers());
        List<String> kept = new ArrayList<>(chosen.consequences().kept());
        for (int row : chosen.rows().stream().toArray()) {
            int number = chosen.table().number(row);
            int now = fresh.row(of.id(), number);
            if (now >= 0 && fresh.stays(now) && !isHeld(v, now)) {
                rows.set(row);
                continue;
            }
            numbers.remove((Integer) number);
            if (now >= 0 && isHeld(v, now)) {
                kept.add(whyKept(v, now, of.label(number)));
            }
        }
        return new Chosen(chosen.table(), rows, chosen.consequences().with(numbers, kept));
    }

    /** That notes go, and that of what was published nothing is left. */
    private static List<String> warnings(VersionTable t, Line of, BitSet going, int first, int last) {
        List<String> noted = new ArrayList<>();
        boolean published = false;
        boolean drafts = false;
        boolean publishedStays = false;
        for (int row = first; row <= last; row++) {
            boolean draft = t.is(row, VersionColumns.DRAFT);
            if (going.get(row)) {
                published |= !draft;
                if (t.is(row, VersionColumns.NOTED)) {
                    noted.add(of.label(t.number(row)));
                }
            } else if (t.stays(row)) {
                drafts |= draft;
                publishedStays |= !draft;
            }
        }
        List<String> said = new ArrayList<>();
        if (!noted.isEmpty()) {
            said.add(Words.of("erase.warn.noted", noted.size(), String.join(", ", noted)));
        }
        if (published && drafts && !publishedStays) {
            said.add(Words.of("erase.warn.draft", of.name()));
        }
        return said;
    }

    /**
     * What was done.
     *
     * @param action in the journal; 0 when nothing went
     * @param consequences that it had
     * @param due from when on the space is given back
     */
    public record Done(long action, Consequences consequences, Instant due) {}

    /**
     * Erases. What is in the folder now is looked at first: when it changed meanwhile, that is a version of its own, and
     * stays.
     *
     * @throws org.mendedleaf.core.rules.NotAllowedException when this person may not
     * @throws IOException when the file could not be changed; nothing is let go then
     */
    public Done erase(long line, What what, int number, Progress progress) throws IOException {
        String path;
        try (Reading reading = vault.read()) {
            PlaceRules.of(reading, place).rights(who, place).require(Permission.ERASE);
            path = reading.line(line).orElseThrow().path();
        }
        try {
            context.capture().run(new CaptureScope.Folders(Set.of(RelativePath.parent(path))), Progress.NONE);
        } catch (VaultException.Full e) {
            // To erase is how space is made. What is in the folder stays there; where it would be changed, it is looked
            // at again.
            log.info("not looked at first: {}", e.words());
        }
        Chosen chosen;
        Line before;
        try (Reading reading = vault.read()) {
            chosen = choose(reading, line, what, number);
            before = reading.line(line).orElseThrow();
        }
        Consequences c = chosen.consequences();
        if (c.numbers().isEmpty()) {
            return new Done(0, c, clock.instant());
        }
        int was = before.newest().map(Version::number).orElse(0);
        int is = was;
        long part = 0;
        if (c.removes()) {
            FileWork.Removal removal = recovery().remove(List.of(before.path()));
            if (!removal.failed().isEmpty()) {
                throw new IOException(String.join(" ", removal.failed()));
            }
            is = 0;
            part = removal.action();
        } else if (c.current() > 0) {
            RestoreResult result = recovery()
                    .restore(
                            List.of(new RestoreItem(before.version(c.current()).orElseThrow(), before.path())),
                            Collision.REPLACE,
                            progress);
            RestoreResult.Item one = result.items().get(0);
            if (one.outcome() == RestoreResult.Outcome.FAILED) {
                throw new IOException(one.why());
            }
            is = one.number();
            part = result.action();
        }
        try (WriteSession session = vault.writeToMakeRoom()) {
            if (c.current() > 0 && is == 0) {
                is = currentAgain(
                        session, before, was, before.version(c.current()).orElseThrow());
            }
            long action = JournalStore.begin(
                    session, new Action(0, clock.instant(), who, ActionKind.LET_GO, place.id(), 0, false, List.of()));
            Chosen still = checkedAgain(session, chosen, before);
            VersionTable t = still.table();
            int l = t.lineRow(line);
            JournalStore.add(
                    session,
                    action,
                    0,
                    t.folder(l).id(),
                    new Action.Item(
                            line,
                            "",
                            t.name(l),
                            before.removed().isPresent() ? 0 : was,
                            before.removed().isPresent() ? 0 : is));
            if (part != 0) {
                // One undo takes all of it back.
                JournalStore.isPart(session, part);
            }
            Thinning.Done done = new Thinning(vault, clock, who).erase(session, t, still.rows(), action);
            session.commit();
            return new Done(action, still.consequences(), done.due());
        }
    }

    /** The file has the content of an earlier version already: that is said by a version, since the newest one goes. */
    private int currentAgain(WriteSession session, Line line, int was, Version earlier) throws IOException {
        LineWriter lines = new LineWriter(session);
        LiveEntry live = lines.live(
                        lines.folder(place, RelativePath.parent(line.path())), RelativePath.name(line.path()))
                .filter(l -> l.line() == line.id())
                .orElseThrow(() -> new java.io.FileNotFoundException(line.path()));
        if (live.number() != was) {
            return live.number();
        }
        FileAttributes facts = new FileAttributes(live.kind(), live.size(), live.mtimeNanos(), live.mode(), who);
        StoredContent content = new StoredContent(
                earlier.recipe(),
                earlier.size(),
                earlier.digest(),
                earlier.sha256().orElse(null));
        Instant now = clock.instant();
        return lines.changed(
                place, live, content, new LineWriter.Arrival(facts, Origin.RESTORED, earlier.number(), now, now, ""));
    }

    private Recovery recovery() {
        return new Recovery(context);
    }
}
