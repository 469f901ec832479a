package org.mendedleaf.desktop.journal;

import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.journal.Action;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.context.AppContext;

/** What the columns of the journal say. */
final class JournalWords {

    private JournalWords() {}

    /** When it was done. */
    static String when(JournalModel.Row row, AppContext context) {
        return Formats.moment(row.entry().at(), context.clock().instant(), context.zone());
    }

    /** What was done, and what came of it. */
    static String what(JournalModel.Row row) {
        boolean undone = row.entry().action().filter(Action::undone).isPresent();
        String outcome = row.entry().outcome();
        return row.entry().words()
                + (outcome.isEmpty() ? "" : " · " + outcome)
                + (undone ? " · " + Words.of("journal.undone") : "");
    }

    /** Where a file is. */
    static String path(Action.Item item) {
        return RelativePath.child(item.folder(), item.name());
    }

    /** Its name, and the folder it is in. */
    static String shortly(Action.Item item) {
        String folder = item.folder().substring(item.folder().lastIndexOf('/') + 1);
        return folder.isEmpty() ? item.name() : item.name() + " · " + folder;
    }

    /** From which version of a file to which. */
    static String versions(Action.Item item) {
        String before = item.before() == 0 ? Words.of("journal.nothing") : Integer.toString(item.before());
        String after = item.after() == 0 ? Words.of("journal.nothing") : Integer.toString(item.after());
        return before + " → " + after;
    }
}
