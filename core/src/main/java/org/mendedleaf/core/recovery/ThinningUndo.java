package org.mendedleaf.core.recovery;

import java.io.IOException;
import java.time.Clock;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.mendedleaf.core.catalogue.LineWriter;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.PendingDeletionStore;
import org.mendedleaf.core.catalogue.TrustedTime;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.journal.Action;
import org.mendedleaf.core.journal.ActionKind;
import org.mendedleaf.core.line.PendingDeletion;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.rules.Permission;
import org.mendedleaf.core.rules.PlaceRules;
import org.mendedleaf.core.words.Words;

/** Keeps after all what was let go, as far as its grace has not ended. */
public final class ThinningUndo {

    private ThinningUndo() {}

    /** Undoes an action that only let versions go. What is gone already is said to have failed. */
    public static FileWork.Undone run(OpenVault vault, Place place, Clock clock, String who, Action action)
            throws IOException {
        try (WriteSession session = vault.write()) {
            if (!place.isOutside()) {
                PlaceRules.of(session, place).rights(who, place).require(Permission.CHANGE);
            }
            List<PendingDeletion> all = PendingDeletionStore.of(session).by(action.id());
            Set<Long> back = new HashSet<>();
            Set<Long> gone = new HashSet<>();
            int versions = 0;
            for (PendingDeletion l : all) {
                (l.gone().isPresent() ? gone : back).add(l.line());
                versions += l.gone().isPresent() ? 1 : 0;
            }
            JournalWriter noting = new JournalWriter(session, place, clock, who, ActionKind.UNDONE, true);
            noting.copy(action.items(), new LineWriter(session));
            PendingDeletionStore.back(session, action.id(), noting.action());
            noting.undoes(action.id());
            noting.end(0);
            List<String> done = new ArrayList<>();
            for (Action.Item i : action.items()) {
                if (back.contains(i.line())) {
                    done.add(RelativePath.child(i.folder(), i.name()));
                }
            }
            return new FileWork.Undone(
                    action, done, gone.isEmpty() ? List.of() : List.of(Words.of("letGo.gone", gone.size(), versions)));
        }
    }

    /** Lets go again what undoing kept. What is protected by now is kept when its grace ends. */
    public static FileWork.Undone again(
            OpenVault vault, Place place, Clock clock, String who, Action original, Action undo) throws IOException {
        try (WriteSession session = vault.writeToMakeRoom()) {
            if (!place.isOutside()) {
                PlaceRules.of(session, place).rights(who, place).require(Permission.ERASE);
            }
            int n = PendingDeletionStore.again(
                    session, undo.id(), original.id(), TrustedTime.of(session, clock.instant()), who);
            JournalWriter noting = new JournalWriter(session, place, clock, who, ActionKind.REDONE, false);
            noting.undoes(undo.id());
            noting.end(0);
            List<String> done = original.items().stream()
                    .map(i -> RelativePath.child(i.folder(), i.name()))
                    .toList();
            return new FileWork.Undone(original, n == 0 ? List.of() : done, List.of(), n == 0);
        }
    }
}
