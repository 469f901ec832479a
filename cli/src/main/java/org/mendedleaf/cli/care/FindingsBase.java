package org.mendedleaf.cli.care;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.cli.base.Base;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.cli.base.TerminalProgress;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.findings.Finding;
import org.mendedleaf.core.findings.Findings;
import org.mendedleaf.core.findings.Found;
import org.mendedleaf.core.findings.HealthCheck;
import org.mendedleaf.core.vault.VaultException;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;

/** What commands about findings have: looking into what is new, and a finding in words and as JSON. */
abstract class FindingsBase extends Base {

    public FindingsBase(Surroundings surroundings) {
        super(surroundings);
    }

    /** Looks into what was not looked into yet. */
    void look(OpenVault vault) throws IOException {
        try (TerminalProgress progress = new TerminalProgress(surroundings.err())) {
            new HealthCheck(vault, clock(), false).run(progress);
        }
    }

    /** Work with one finding. */
    interface Work {
        /** Returns an exit code. */
        int with(OpenVault vault, Findings.Listed listed) throws Exception;
    }

    /** Finds the finding with this id in one of the vaults. */
    int with(String id, Work work) throws Exception {
        IllegalArgumentException unknown = new IllegalArgumentException(Words.of("findings.unknown", id));
        for (Path folder : vaults()) {
            try (OpenVault open = open(folder)) {
                look(open);
                Findings.Listed listed;
                try {
                    listed = new Findings(open, who()).get(id);
                } catch (IllegalArgumentException e) {
                    unknown = e;
                    continue;
                }
                return work.with(open, listed);
            } catch (VaultException e) {
                complain(e.words());
            }
        }
        throw unknown;
    }

    void print(Findings.Listed listed) throws IOException {
        Finding f = listed.found().finding();
        line(listed.id() + "  " + f.words() + " · " + state(listed));
        Finding.Mark first = f.marks().get(0);
        String when = Formats.moment(f.from(), now(), zone());
        String where = f.marks().size() == 1
                ? listed.place().label() + "/" + first.path()
                : listed.place().label();
        line("        " + where + " · " + when + (first.who().isEmpty() ? "" : " · " + first.who()));
        f.why().forEach(e -> line("        " + e));
        if (f.marks().size() == 1) {
            Found.OfFile file = listed.found().files().get(0);
            line("        "
                    + (first.good() == 0
                            ? Words.of("cli.findings.noGood")
                            : Words.of("cli.findings.good", first.good(), file.proof())));
        } else {
            line("        " + sum(listed.found()));
        }
    }

    private static String state(Findings.Listed listed) {
        return switch (listed.state()) {
            case OPEN -> listed.found().finding().sure().words();
            case DISMISSED ->
                Words.of(
                        "cli.findings.DISMISSED",
                        listed.decision().orElseThrow().who(),
                        listed.decision().orElseThrow().reason());
            case MENDED ->
                Words.of("cli.findings.MENDED", listed.decision().orElseThrow().who());
            case FINE ->
                Words.of("cli.findings.FINE", listed.fine().orElseThrow().who());
            case CLOSED -> Words.of("findings.closed." + listed.found().closed().orElse(Found.Fate.BACK));
        };
    }

    /** How many files stand how. */
    private static String sum(Found found) {
        List<String> parts = new ArrayList<>();
        for (Found.Fate fate : Found.Fate.values()) {
            long count = found.count(fate);
            if (count > 0) {
                parts.add(Words.of("findings.fate." + fate, count));
            }
        }
        return String.join(", ", parts);
    }

    static Map<String, Object> map(Findings.Listed listed) {
        Finding f = listed.found().finding();
        Map<String, Object> map = new LinkedHashMap<>();
        map.put("id", listed.id());
        map.put("place", listed.place().where());
        map.put("kind", f.kind().name());
        map.put("words", f.words());
        map.put("state", listed.state().name());
        map.put("certainty", f.sure().name());
        map.put("from", f.from().toString());
        map.put("to", f.to().toString());
        map.put("evidence", f.why());
        List<Object> files = new ArrayList<>();
        for (Found.OfFile file : listed.found().files()) {
            Map<String, Object> one = new LinkedHashMap<>();
            one.put("path", file.mark().path());
            one.put("version", file.mark().number());
            one.put("good", file.mark().good() == 0 ? null : file.mark().good());
            one.put("goodPath", file.mark().goodPath());
            one.put("proof", file.proof());
            one.put("at", file.mark().at().toString());
            one.put("who", file.mark().who());
            one.put("stands", file.fate().name());
            files.add(one);
        }
        map.put("files", files);
        @Nullable String reason = listed.decision().map(d -> d.reason()).orElse(null);
        map.put("reason", reason);
        return map;
    }
}
