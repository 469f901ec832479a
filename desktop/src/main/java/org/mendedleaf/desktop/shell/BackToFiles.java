package org.mendedleaf.desktop.shell;

import java.util.function.Consumer;
import org.mendedleaf.core.disk.Failures;
import org.mendedleaf.desktop.context.PutService;
import org.mendedleaf.desktop.files.FilesModel;

/** Leads from a doubt of the guard back to the files, with what came of it; another doubt is shown in its turn. */
record BackToFiles(FilesModel files, Runnable back, Consumer<PutService.Doubt> guard) implements PutService.Hearer {

    @Override
    public void doubtful(PutService.Doubt doubt) {
        guard.accept(doubt);
    }

    @Override
    public void done(String words, boolean undo) {
        back.run();
        files.say(words, undo, false);
    }

    @Override
    public void failed(Exception e) {
        back.run();
        files.say(Failures.words(e), false, true);
    }
}
