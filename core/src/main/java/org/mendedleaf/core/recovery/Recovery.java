package org.mendedleaf.core.recovery;

import java.io.IOException;
import java.io.InterruptedIOException;
import java.nio.file.Path;
import java.time.Clock;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import org.mendedleaf.core.capture.CaptureScope;
import org.mendedleaf.core.capture.WorkContext;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.disk.RawNames;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.journal.Action;
import org.mendedleaf.core.journal.ActionKind;
import org.mendedleaf.core.line.DraftChoice;
import org.mendedleaf.core.line.Origin;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.rules.Permission;
import org.mendedleaf.core.rules.PlaceRules;
import org.mendedleaf.core.rules.Rights;
import org.mendedleaf.core.rules.Setting;
import org.mendedleaf.core.words.Words;

/**
 * Brings earlier contents back into a protected folder, removes files recoverably, and undoes both.
 *
 * <p>Before anything is touched, what is live and not yet captured is captured. Each file is written beside its target,
 * synced, read back, compared; the journal says what will be changed; then it is moved into place, and its point is put
 * down. A crash in between leaves either the old content or the new one, both of them in the vault, and an action that
 * can be undone.
 *
 * <pre>{@code
 * RestoreItem item = new RestoreItem(line.version(2).orElseThrow(), line.path());
 * RestoreRequest request = RestoreRequest.restore(List.of(item), Collisions.all(Collision.REPLACE));
 * RestoreResult result = new Recovery(context).restore(request, Progress.NONE);
 * }</pre>
 */
public final class Recovery implements FileWork {

    private final WorkContext context;
    private final OpenVault vault;
    private final Place place;
    private final Clock clock;
    private final String who;

    /**
     * Recovery within a place.
     *
     * @param context where it is done; who does it stands at the new points and in the journal
     */
    public Recovery(WorkContext context) {
        this.context = context;
        this.vault = context.vault();
        this.place = context.place();
        this.clock = context.clock();
        this.who = context.who();
    }

    @Override
    public RestorePlan plan(RestoreRequest request, Progress progress) throws IOException {
        try (Reading reading = vault.read()) {
            return RestorePlanner.plan(request, new LiveView(reading, place), TargetFacts.of(place.root()), progress);
        }
    }

    @Override
    public RestorePlan plan(Rollback rollback, Progress progress) throws IOException {
        return plan(request(rollback, progress), progress);
    }

    /** What is to be done for it, after a look at what is there now. */
    private RestoreRequest request(Rollback rollback, Progress progress) throws IOException {
        context.capture().run(CaptureScope.WHOLE, progress);
        try (Reading reading = vault.read()) {
            return rollback.request(reading, place, progress);
        }
    }

    @Override
    public RestoreResult rollBack(Rollback rollback, Progress progress) throws IOException {
        return restore(() -> request(rollback, progress), progress);
    }

    @Override
    public RestoreResult restore(RestoreRequest request, Progress progress) throws IOException {
        try (WriteSession session = vault.write();
                Reading reading = vault.read()) {
            allowed(session, Permission.CHANGE);
            InPlace files = files(session, reading);
            List<String> paths = new ArrayList<>(
                    request.requested().stream().map(RestoreItem::target).toList());
            request.late().forEach(l -> paths.add(l.path()));
            request.requested().stream()
                    .map(RestoreItem::from)
                    .filter(f -> !f.isEmpty())
                    .forEach(paths::add);
            files.captureFirst(paths);
            RestorePlan plan;
            try {
                plan = RestorePlanner.plan(
                        request, new KeptView(files, reading, place), TargetFacts.of(place.root()), progress);
            } catch (InterruptedIOException e) {
                return RestoreResult.CANCELLED;
            }
            if (!plan.preflight().isGood()) {
                throw new IOException(plan.preflight().stops());
            }
            progress.begin(Words.of("restore.step"), plan.acting(), plan.bytes());
            JournalWriter noting = new JournalWriter(session, place, clock, who, request.kind(), true);
            return carryOut(files, reading, request, plan, noting, progress);
        }
    }

    private static RestoreResult carryOut(
            InPlace files,
            Reading reading,
            RestoreRequest request,
            RestorePlan plan,
            JournalWriter noting,
            Progress progress)
            throws IOException {
        TaskOrder steps = TaskOrder.of(files, reading, request, plan);
        List<Task.Outcome> outcomes = files.run(steps.tasks(), noting, progress);
        Map<Integer, Task.Outcome> byItem = new HashMap<>();
        for (int i = 0; i < outcomes.size(); i++) {
            if (steps.items().get(i) >= 0) {
                byItem.put(steps.items().get(i), outcomes.get(i));
            }
        }
        List<RestoreResult.Item> results = new ArrayList<>();
        boolean cancelled = outcomes.size() < steps.tasks().size() || outcomes.contains(Task.Outcome.CANCELLED);
        for (int i = 0; i < plan.items().size(); i++) {
            RestorePlan.Item item = plan.items().get(i);
            Task.Outcome outcome = byItem.get(i);
            if (Task.Outcome.CANCELLED.equals(outcome)) {
                continue;
            }
            if (outcome != null) {
                results.add(new RestoreResult.Item(
                        item,
                        outcome.isGood() ? RestoreResult.Outcome.DONE : RestoreResult.Outcome.FAILED,
                        outcome.number(),
                        outcome.label(),
                        outcome.why()));
            } else if (!item.acts()) {
                results.add(RestoreResult.Item.untouched(item));
            }
        }
        RestoreResult result = new RestoreResult(noting.action(), results, cancelled);
        noting.end((int) results.stream()
                .filter(r -> r.outcome() == RestoreResult.Outcome.FAILED)
                .count());
        return result;
    }

    /**
     * Puts one file in.
     *
     * @param note that shall stand at the version; empty for none
     * @return what the version is called; the current one when the content is the same
     * @throws IOException with a message for the user, when it cannot be put in
     */
    public String put(Path file, String path, String note, Progress progress) throws IOException {
        PutResult result = put(List.of(new Revision(file, path, note)), progress);
        if (!result.failed().isEmpty()) {
            throw new IOException(result.failed().get(path));
        }
        return Objects.requireNonNull(result.labels().get(path), "expected a name of what was put in");
    }

    @Override
    public PutResult put(List<Revision> revisions, Progress progress) throws IOException {
        return put(revisions, ActionKind.PUT, Origin.UPLOADED, progress);
    }

    /**
     * Takes safety copies that programs left as versions of the files they belong to, or brings those back by them.
     *
     * @return as of putting in
     */
    public PutResult adopt(List<Revision> copies, Progress progress) throws IOException {
        return put(copies, ActionKind.ADOPTED, Origin.ADOPTED, progress);
    }

    private PutResult put(List<Revision> revisions, ActionKind kind, Origin origin, Progress progress)
            throws IOException {
        Set<String> paths = new LinkedHashSet<>();
        for (Revision r : revisions) {
            if (!paths.add(r.path())) {
                throw new IllegalArgumentException(Words.of("put.twice", r.path()));
            }
        }
        try (WriteSession session = vault.write();
                Reading reading = vault.read()) {
            Rights rights = allowed(session, Permission.CHANGE);
            if (revisions.stream().anyMatch(r -> r.stage() == DraftChoice.PUBLISHED)) {
                rights.require(Permission.PUBLISH);
            }
            boolean draft = revisions.stream().anyMatch(r -> r.stage() == DraftChoice.DRAFT);
            if (draft && !rights.settings().get(Setting.NUMBERING).equals("drafts")) {
                throw new IllegalArgumentException(Words.of("put.noDrafts", place.label()));
            }
            InPlace files = files(session, reading);
            List<String> seen = new ArrayList<>(paths);
            for (Revision r : revisions) {
                Path file = r.file().toAbsolutePath().normalize();
                if (r.take() && file.startsWith(place.root()) && !file.equals(place.root())) {
                    seen.add(RawNames.text(place.root().relativize(file)));
                }
            }
            files.captureFirst(seen);
            return new PutWork(session, place, files, clock, who, kind, origin).run(revisions, progress);
        }
    }

    @Override
    public FoldResult fold(List<Folding> foldings, Progress progress) throws IOException {
        Set<String> paths = new LinkedHashSet<>();
        for (Folding f : foldings) {
            Set<String> own = new LinkedHashSet<>(f.order());
            own.add(f.keep());
            for (String path : own) {
                if (!paths.add(path)) {
                    throw new IllegalArgumentException(Words.of("fold.twice", path));
                }
            }
        }
        try (WriteSession session = vault.write();
                Reading reading = vault.read()) {
            allowed(session, Permission.CHANGE);
            InPlace files = files(session, reading);
            files.captureFirst(List.copyOf(paths));
            JournalWriter noting = new JournalWriter(session, place, clock, who, ActionKind.FOLDED, true);
            return new FoldWork(files, reading, noting, clock.getZone()).run(foldings, progress);
        }
    }

    /** Removes files from their folders; their lines get a removal point and lose nothing. */
    @Override
    public Removal remove(List<String> paths) throws IOException {
        try (WriteSession session = vault.write();
                Reading reading = vault.read()) {
            allowed(session, Permission.CHANGE);
            InPlace files = files(session, reading);
            files.captureFirst(paths);
            JournalWriter noting = new JournalWriter(session, place, clock, who, ActionKind.REMOVED, true);
            List<Task> tasks =
                    paths.stream().map(p -> (Task) new Task.Remove(p)).toList();
            List<Task.Outcome> outcomes = files.run(tasks, noting, Progress.NONE);
            List<String> removed = new ArrayList<>();
            List<String> failed = new ArrayList<>();
            for (int i = 0; i < paths.size(); i++) {
                if (outcomes.get(i).isGood()) {
                    removed.add(paths.get(i));
                } else {
                    failed.add(paths.get(i) + ": " + outcomes.get(i).why());
                }
            }
            noting.end(failed.size());
            return new Removal(noting.action(), removed, failed);
        }
    }

    @Override
    public Undone undo(Action action, Progress progress) throws IOException {
        return new Undoing(context).undo(action, progress);
    }

    @Override
    public Undone redo(Action undo, Progress progress) throws IOException {
        return new Undoing(context).redo(undo, progress);
    }

    /** What this person may do here, when they may do this. */
    private Rights allowed(WriteSession session, Permission deed) throws IOException {
        Rights rights = PlaceRules.of(session, place).rights(who, place);
        rights.require(deed);
        return rights;
    }

    private InPlace files(WriteSession session, Reading reading) throws IOException {
        return InPlace.of(context, session, reading);
    }
}
