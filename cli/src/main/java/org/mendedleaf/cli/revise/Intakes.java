package org.mendedleaf.cli.revise;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import org.mendedleaf.cli.base.Base;
import org.mendedleaf.core.intake.IntakePlan;
import org.mendedleaf.core.intake.IntakeRow;
import org.mendedleaf.core.intake.Judgement;
import org.mendedleaf.core.line.FileProperties;
import org.mendedleaf.core.recovery.PutResult;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;

/** What comes in, and what the guard thinks of it, as a message and as JSON. */
final class Intakes {

    private static final int PASSED_OVER_SHOWN = 5;

    private Intakes() {}

    static FileProperties.Visibility visibility(String text) {
        try {
            return FileProperties.Visibility.valueOf(text.toUpperCase(Locale.ROOT));
        } catch (IllegalArgumentException e) {
            throw new IllegalArgumentException(Words.of("visibility.unknown", text), e);
        }
    }

    static void print(Base command, String path, Judgement j) {
        command.line(path + ": " + Words.of("guard.outcome." + j.outcome()));
        j.reasons().forEach(r -> command.line("  " + r.words()));
    }

    static void complain(Base command, String path, Judgement j) {
        command.complain(path + ": " + Words.of("guard.outcome." + j.outcome()));
        j.reasons().forEach(r -> command.complain("  " + r.words()));
    }

    /** The same with what is unsure going to its likeliest target, where no other file goes there. */
    static IntakePlan withUnsure(IntakePlan plan) {
        IntakePlan all = plan;
        Set<String> used = new HashSet<>();
        plan.rows().stream().filter(IntakeRow::acts).forEach(r -> used.add(r.target()));
        for (int i = 0; i < plan.rows().size(); i++) {
            IntakeRow row = plan.rows().get(i);
            if (row.fate() == IntakeRow.Fate.UNSURE && used.add(row.target())) {
                all = all.with(i, row.choose(IntakeRow.Fate.NEW_VERSION, row.target()));
            }
        }
        return all;
    }

    private static String why(IntakeRow r) {
        String how = Words.of("intake.how." + r.how());
        String guard = r.judgement()
                .filter(j -> r.fate() == IntakeRow.Fate.UNSURE || j.shared() >= 0)
                .map(j -> r.fate() == IntakeRow.Fate.UNSURE ? j.why() : Words.of("intake.common", j.shared()))
                .orElse("");
        return guard.isEmpty() ? how : how.isEmpty() ? guard : how + "; " + guard;
    }

    static void print(Base command, IntakePlan plan) {
        List<List<String>> rows = new ArrayList<>();
        for (IntakeRow r : plan.rows()) {
            rows.add(List.of(
                    r.incoming().relative(),
                    Formats.size(r.incoming().size()),
                    Words.of("intake.fate." + r.fate()),
                    r.target(),
                    why(r)));
        }
        command.table(rows, "lrlll");
        command.say(
                "intake.sum",
                plan.count(IntakeRow.Fate.NEW_VERSION),
                plan.count(IntakeRow.Fate.NEW_FILE),
                plan.count(IntakeRow.Fate.IDENTICAL),
                plan.count(IntakeRow.Fate.UNSURE),
                plan.leftOut());
        passedOver(command, plan);
    }

    private static void passedOver(Base command, IntakePlan plan) {
        List<String> all = plan.passedOver();
        if (!all.isEmpty()) {
            command.say(
                    "intake.passedOver",
                    all.size(),
                    String.join(", ", all.stream().limit(PASSED_OVER_SHOWN).toList()),
                    Math.max(0, all.size() - PASSED_OVER_SHOWN));
        }
    }

    static void print(Base command, IntakePlan plan, PutResult result) {
        passedOver(command, plan);
        for (IntakeRow r : plan.rows()) {
            String label = r.acts() ? result.labels().get(r.target()) : null;
            if (label != null) {
                command.say("cli.put.done", r.target(), label);
            } else if (!r.acts()) {
                command.line(r.incoming().relative() + ": " + Words.of("intake.fate." + r.fate()) + ", " + r.target());
            }
        }
    }

    static Map<String, Object> json(Judgement j) {
        Map<String, Object> map = new LinkedHashMap<>();
        map.put("outcome", j.outcome().name());
        map.put("sharedPercent", j.shared());
        map.put("identicalTo", j.identicalLabel());
        j.belongsTo().ifPresent(b -> map.put("belongsTo", b));
        map.put(
                "reasons",
                j.reasons().stream()
                        .map(r -> Map.of("aspect", r.aspect().name(), "against", r.against(), "words", r.words()))
                        .toList());
        return map;
    }

    static Map<String, Object> json(IntakeRow r) {
        Map<String, Object> map = new LinkedHashMap<>();
        map.put("file", r.incoming().file().toString());
        map.put("relative", r.incoming().relative());
        map.put("size", r.incoming().size());
        map.put("fate", r.fate().name());
        map.put("target", r.target());
        map.put("foundBy", r.how().name());
        map.put("candidates", r.candidates());
        r.judgement().ifPresent(j -> map.put("judgement", json(j)));
        return map;
    }

    static List<Map<String, Object>> json(IntakePlan plan, PutResult result) {
        return plan.rows().stream()
                .map(r -> {
                    Map<String, Object> map = json(r);
                    if (r.acts()) {
                        map.put("version", result.labels().getOrDefault(r.target(), ""));
                        String failed = result.failed().get(r.target());
                        if (failed != null) {
                            map.put("failed", failed);
                        }
                    }
                    return map;
                })
                .toList();
    }
}
