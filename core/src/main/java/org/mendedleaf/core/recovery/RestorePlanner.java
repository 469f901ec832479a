package org.mendedleaf.core.recovery;

import java.io.InterruptedIOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.EntryKind;
import org.mendedleaf.core.words.Words;

/** Decides what a restore will do. Pure: it sees what is there through a function, and changes nothing. */
public final class RestorePlanner {

    private final PlanTarget ground;
    private final Collisions collisions;
    private final TargetFacts facts;
    private final Set<String> promised = new HashSet<>();
    private final Map<String, String> folded = new HashMap<>();
    private final Set<String> leaving = new HashSet<>();
    private final Set<String> lateFolders = new HashSet<>();

    private RestorePlanner(PlanTarget ground, RestoreRequest request, TargetFacts facts) {
        this.ground = ground;
        this.collisions = request.collisions();
        this.facts = facts;
        // What moves back or is removed makes space for what has to go there.
        request.requested().stream()
                .map(RestoreItem::from)
                .filter(f -> !f.isEmpty())
                .forEach(leaving::add);
        request.late().stream().filter(RestoreRequest.Late::remove).forEach(l -> leaving.add(l.path()));
        lateFolders.addAll(request.lateFolders());
    }

    /**
     * A plan for where nothing of ours is kept, such as another system; what is at a path now is asked by the function.
     *
     * @throws InterruptedIOException when somebody asked to stop
     */
    public static RestorePlan plan(
            RestoreRequest request, Function<String, Optional<Existing>> existing, Progress progress)
            throws InterruptedIOException {
        return plan(request, (PlanTarget) existing::apply, TargetFacts.ANYTHING, progress);
    }

    /**
     * A plan.
     *
     * @param ground what is there now
     * @param facts of where it leads
     * @throws InterruptedIOException when somebody asked to stop
     */
    static RestorePlan plan(RestoreRequest request, PlanTarget ground, TargetFacts facts, Progress progress)
            throws InterruptedIOException {
        progress.begin(Words.of("plan.step"), request.requested().size(), 0);
        RestorePlanner planner = new RestorePlanner(ground, request, facts);
        List<RestorePlan.Item> items = new ArrayList<>();
        for (RestoreItem asked : request.requested()) {
            RestorePlan.Item item = planner.decide(asked);
            if (item.writes()) {
                planner.promised.add(item.target());
                if (item.step() == RestorePlan.Step.KEEP_BOTH_RENAME_OTHER) {
                    planner.promised.add(item.other());
                }
            }
            items.add(item);
            progress.advance(1, 0);
            progress.stopIfCancelled();
        }
        for (RestoreRequest.Late late : request.late()) {
            // Something of that moment takes its name: it is replaced by that.
            if (!planner.promised.contains(late.path())) {
                RestorePlan.Step step = late.remove() ? RestorePlan.Step.REMOVE : RestorePlan.Step.LEAVE;
                items.add(new RestorePlan.Item(late.version(), late.path(), late.path(), step, "", ""));
            }
        }
        return new RestorePlan(items, Preflight.of(items, facts));
    }

    private RestorePlan.Item decide(RestoreItem asked) {
        RestorePlan.Item item = collide(asked);
        if (!item.writes()) {
            return item;
        }
        Optional<String> missing = ground.missing(asked.version());
        if (missing.isPresent()) {
            return item(asked, asked.target(), RestorePlan.Step.REFUSE, missing.get());
        }
        Optional<String> problem = facts.problem(
                item.target(), item.version().kind(), item.version().size());
        if (problem.isPresent()) {
            return item(asked, asked.target(), RestorePlan.Step.REFUSE, problem.get());
        }
        if (facts.caseInsensitive()) {
            String same = folded.putIfAbsent(TargetFacts.folded(item.target()), item.target());
            if (same != null && !same.equals(item.target())) {
                return item(asked, asked.target(), RestorePlan.Step.REFUSE, Words.of("preflight.clash", same));
            }
        }
        return item;
    }

    private RestorePlan.Item collide(RestoreItem asked) {
        if (promised.contains(asked.target())) {
            return keepBoth(asked);
        }
        Optional<Existing> there = ground.at(asked.target()).filter(e -> !isVacated(asked.target(), e));
        if (there.filter(Existing.BLOCKED::equals).isPresent()) {
            return item(asked, asked.target(), RestorePlan.Step.REFUSE, Words.of("plan.fileInTheWay"));
        }
        if (!asked.from().isEmpty()) {
            return moveBack(asked, there);
        }
        if (there.isEmpty()) {
            String now = ground.elsewhere(asked.version(), asked.target()).orElse("");
            return new RestorePlan.Item(
                    asked.version(), asked.target(), asked.target(), RestorePlan.Step.CREATE, "", now);
        }
        Existing e = there.get();
        // What is there and is the same stays, unless it is another file that goes away itself.
        boolean same = !leaving.contains(asked.target())
                && e.kind() == asked.version().kind()
                && e.digest().map(d -> d.equals(asked.version().digest())).orElse(false);
        if (same && ground.isReallyThere(asked.target(), asked.version())) {
            return item(asked, asked.target(), RestorePlan.Step.UNCHANGED, "");
        }
        return switch (collisions.at(asked.target())) {
            case SKIP -> item(asked, asked.target(), RestorePlan.Step.SKIP, "");
            case KEEP_BOTH -> keepBoth(asked);
            case KEEP_BOTH_RENAME_OTHER -> renameOther(asked, e);
            case REPLACE -> replace(asked, e);
        };
    }

    /** Whether what is in the way of a path leaves it first: a file on the way to it, or a folder with all in it. */
    private boolean isVacated(String path, Existing there) {
        if (there.equals(Existing.BLOCKED)) {
            String above = RelativePath.parent(path);
            while (!above.isEmpty() && !leaving.contains(above)) {
                above = RelativePath.parent(above);
            }
            return !above.isEmpty();
        }
        return there.kind() == EntryKind.FOLDER
                && lateFolders.contains(path)
                && ground.below(path).stream().allMatch(p -> leaving.contains(p) || lateFolders.contains(p));
    }

    private RestorePlan.Item moveBack(RestoreItem asked, Optional<Existing> there) {
        if (there.isPresent() && !leaving.contains(asked.target())) {
            RestorePlan.Item replace = replace(asked, there.get());
            if (replace.step() == RestorePlan.Step.REFUSE) {
                return replace;
            }
        }
        return new RestorePlan.Item(
                asked.version(), asked.target(), asked.target(), RestorePlan.Step.MOVE_BACK, "", asked.from());
    }

    private static RestorePlan.Item replace(RestoreItem asked, Existing there) {
        if (there.kind() == EntryKind.FOLDER) {
            return item(asked, asked.target(), RestorePlan.Step.REFUSE, Words.of("plan.folderInTheWay"));
        }
        if (there.digest().isEmpty()) {
            return item(asked, asked.target(), RestorePlan.Step.REFUSE, Words.of("plan.notKept"));
        }
        return item(asked, asked.target(), RestorePlan.Step.REPLACE, "");
    }

    private RestorePlan.Item keepBoth(RestoreItem asked) {
        return item(asked, free(asked.target()), RestorePlan.Step.KEEP_BOTH, "");
    }

    private RestorePlan.Item renameOther(RestoreItem asked, Existing there) {
        RestorePlan.Item replace = replace(asked, there);
        return replace.step() == RestorePlan.Step.REFUSE
                ? replace
                : new RestorePlan.Item(
                        asked.version(),
                        asked.target(),
                        asked.target(),
                        RestorePlan.Step.KEEP_BOTH_RENAME_OTHER,
                        "",
                        free(asked.target()));
    }

    /** A numbered name that nothing has or will have. */
    private String free(String target) {
        String folder = RelativePath.parent(target);
        String name = RelativePath.name(target);
        for (int i = 2; ; i++) {
            String other = RelativePath.child(folder, FileNames.numbered(name, i));
            if (!promised.contains(other) && ground.at(other).isEmpty()) {
                return other;
            }
        }
    }

    private static RestorePlan.Item item(RestoreItem asked, String target, RestorePlan.Step step, String why) {
        return new RestorePlan.Item(asked.version(), asked.target(), target, step, why, "");
    }
}
