package org.mendedleaf.cli.base;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.mendedleaf.core.capture.CaptureResult;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Skipped;
import org.mendedleaf.core.recovery.PlanReport;
import org.mendedleaf.core.recovery.Preflight;
import org.mendedleaf.core.recovery.RestorePlan;
import org.mendedleaf.core.recovery.RestoreResult;
import org.mendedleaf.core.report.MappedList;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;

/** Results of captures and restores, as a message and as JSON. */
public final class Outcomes {

    private Outcomes() {}

    public static void print(Base command, Place place, CaptureResult r) {
        command.line(r.words(place));
        for (Skipped s : r.troubles()) {
            command.complain(Words.of("cli.capture.skipped", s.path(), s.words()));
        }
        if (r.cancelled()) {
            command.complain(Words.of("cli.capture.cancelled"));
        }
    }

    public static Map<String, Object> json(CaptureResult r) {
        Map<String, Object> map = new LinkedHashMap<>();
        map.put("added", r.added());
        map.put("changed", r.changed());
        map.put("moved", r.moved());
        map.put("removed", r.removed());
        map.put("seen", r.seen());
        map.put("bytes", r.bytes());
        map.put("cancelled", r.cancelled());
        map.put("troubles", r.troubles().stream().map(Outcomes::json).toList());
        return map;
    }

    public static Map<String, Object> json(Skipped s) {
        Map<String, Object> map = new LinkedHashMap<>();
        map.put("path", s.path());
        map.put("reason", s.reason().name());
        map.put("detail", s.detail());
        map.put("since", s.since().toString());
        return map;
    }

    /** Each made when it is asked for: there may be a million. */
    public static List<Map<String, Object>> json(RestoreResult result) {
        return new MappedList<>(result.items(), i -> {
            Map<String, Object> map = PlanReport.item(i.plan());
            map.put("outcome", i.outcome().name());
            map.put("newVersion", i.label());
            map.put("why", i.why().isEmpty() ? i.plan().reason() : i.why());
            return map;
        });
    }

    public static void print(Base command, RestorePlan plan) {
        for (RestorePlan.Item i : plan.items()) {
            command.line(Words.of(
                    "plan." + (i.isAnother() ? "ANOTHER" : i.step().name()),
                    i.target(),
                    i.version().label(),
                    Formats.size(i.version().size()),
                    i.why(),
                    i.other()));
        }
        for (Preflight.Problem p : plan.preflight().problems()) {
            command.complain(p.words());
        }
        long removals = plan.count(RestorePlan.Step.REMOVE);
        long writes = plan.acting() - removals;
        command.say("plan.sum", Formats.number(writes), Formats.size(plan.bytes()), writes, removals);
    }

    public static int print(Base command, RestoreResult result) {
        for (RestoreResult.Item i : result.items()) {
            String key = "restored." + i.outcome().name()
                    + (i.outcome() == RestoreResult.Outcome.DONE
                            ? "." + (i.plan().isAnother() ? "ANOTHER" : i.plan().step())
                            : "");
            // What goes elsewhere is no version of anything there.
            boolean elsewhere = i.outcome() == RestoreResult.Outcome.DONE
                    && i.number() == 0
                    && i.plan().writes();
            String words = Words.of(
                    elsewhere ? "restored.WRITTEN" : key,
                    i.plan().target(),
                    i.plan().version().label(),
                    i.label(),
                    i.why(),
                    i.plan().other());
            if (i.outcome() == RestoreResult.Outcome.FAILED) {
                command.complain(words);
            } else {
                command.line(words);
            }
        }
        if (result.items().isEmpty() && !result.cancelled()) {
            command.say("restored.nothing");
        }
        if (result.cancelled()) {
            command.complain(Words.of("restore.cancelled"));
        }
        return result.count(RestoreResult.Outcome.FAILED) > 0 || result.cancelled()
                ? ExitCodes.SOME_FAILED
                : ExitCodes.DONE;
    }
}
