package org.mendedleaf.core.recovery;

import java.io.IOException;
import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import org.mendedleaf.core.capture.WorkContext;
import org.mendedleaf.core.catalogue.LineWriter;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.RemarkStore;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.journal.Action;
import org.mendedleaf.core.journal.ActionKind;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.rules.Permission;
import org.mendedleaf.core.rules.PlaceRules;
import org.mendedleaf.core.words.Words;

/** Takes back what was only said of versions, that they are published and their notes, and says it again. */
final class RemarksUndo {

    private final OpenVault vault;
    private final Place place;
    private final Clock clock;
    private final String who;

    RemarksUndo(WorkContext context) {
        this.vault = context.vault();
        this.place = context.place();
        this.clock = context.clock();
        this.who = context.who();
    }

    /** Takes back what was only said of versions: that they are published, and their notes. */
    FileWork.Undone sayBack(Action action) throws IOException {
        try (WriteSession session = vault.write()) {
            boolean published = action.kind() == ActionKind.PUBLISHED;
            PlaceRules.of(session, place).rights(who, place).require(published ? Permission.PUBLISH : Permission.NOTE);
            LineWriter lines = new LineWriter(session);
            List<String> failed = notNewest(action, lines, "publish.notBack");
            if (!failed.isEmpty()) {
                return new FileWork.Undone(action, List.of(), failed);
            }
            for (Action.Item item : action.items()) {
                if (published) {
                    lines.unpublish(item.line(), item.after());
                }
            }
            said(session, action, action, ActionKind.UNDONE, lines);
            return new FileWork.Undone(action, paths(action), List.of());
        }
    }

    /** Says again of versions what was taken back. */
    FileWork.Undone sayAgain(Action original, Action undo) throws IOException {
        try (WriteSession session = vault.write()) {
            boolean published = original.kind() == ActionKind.PUBLISHED;
            PlaceRules.of(session, place).rights(who, place).require(published ? Permission.PUBLISH : Permission.NOTE);
            LineWriter lines = new LineWriter(session);
            List<String> failed = notNewest(original, lines, "publish.notAgain");
            if (!failed.isEmpty()) {
                return new FileWork.Undone(original, List.of(), failed);
            }
            for (Action.Item item : original.items()) {
                if (published) {
                    lines.publish(place, lines.liveLine(item.line()).orElseThrow(), who, clock.instant());
                }
            }
            said(session, undo, original, ActionKind.REDONE, lines);
            return new FileWork.Undone(original, paths(original), List.of());
        }
    }

    private void said(WriteSession session, Action back, Action about, ActionKind kind, LineWriter lines)
            throws IOException {
        JournalWriter noting = new JournalWriter(session, place, clock, who, kind, true);
        noting.copy(about.items(), lines);
        RemarkStore.of(session).noteBack(session, back.id(), noting.action());
        noting.undoes(back.id());
        noting.end(0);
    }

    /** Which files of a publishing have a later version by now, as a message: what came later counts on that number. */
    private static List<String> notNewest(Action action, LineWriter lines, String words) throws IOException {
        List<String> failed = new ArrayList<>();
        for (Action.Item item : action.items()) {
            boolean newest = lines.liveLine(item.line())
                    .filter(l -> l.number() == item.after())
                    .isPresent();
            if (action.kind() == ActionKind.PUBLISHED && !newest) {
                failed.add(Words.of(words, Undoing.path(item)));
            }
        }
        return failed;
    }

    private static List<String> paths(Action action) {
        return action.items().stream().map(Undoing::path).toList();
    }
}
