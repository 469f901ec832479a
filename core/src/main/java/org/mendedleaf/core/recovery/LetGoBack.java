package org.mendedleaf.core.recovery;

import java.io.IOException;
import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.mendedleaf.core.journal.Action;
import org.mendedleaf.core.journal.ActionKind;
import org.mendedleaf.core.line.LetGo;
import org.mendedleaf.core.line.LetGoStore;
import org.mendedleaf.core.line.OpenVault;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Reading;
import org.mendedleaf.core.line.RelativePath;
import org.mendedleaf.core.line.WriteSession;
import org.mendedleaf.core.rules.Deed;
import org.mendedleaf.core.rules.PlaceRules;
import org.mendedleaf.core.words.Words;

/** Keeps after all what was let go, as far as its grace has not ended. */
public final class LetGoBack {

    private LetGoBack() {}

    /** Undoes an action that only let versions go. What is gone already is said to have failed. */
    public static FileWork.Undone run(OpenVault vault, Place place, Clock clock, String who, Action action)
            throws IOException {
        try (WriteSession session = vault.write()) {
            if (!place.isOutside()) {
                PlaceRules.of(session, place).rights(who, place).require(Deed.CHANGE);
            }
            List<LetGo> gone = LetGoStore.of(session).by(action.id()).stream()
                    .filter(l -> l.gone().isPresent())
                    .toList();
            LetGoStore.back(session, action.id());
            new Noting(session, place, clock, who, ActionKind.UNDONE, false).begin(action.id());
            session.commit();
            List<String> done = new ArrayList<>();
            action.items().forEach(i -> done.add(RelativePath.child(i.folder(), i.name())));
            return new FileWork.Undone(action, done, words(vault, gone));
        }
    }

    private static List<String> words(OpenVault vault, List<LetGo> gone) throws IOException {
        Map<Long, List<Integer>> byLine = new TreeMap<>();
        gone.forEach(
                l -> byLine.computeIfAbsent(l.line(), x -> new ArrayList<>()).add(l.number()));
        List<String> said = new ArrayList<>();
        try (Reading reading = vault.read()) {
            for (Map.Entry<Long, List<Integer>> e : byLine.entrySet()) {
                String path = reading.line(e.getKey()).orElseThrow().path();
                said.add(Words.of("letGo.gone", path, e.getValue().size()));
            }
        }
        return said;
    }
}
