package org.mendedleaf.desktop.files;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.intake.Intake;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.desktop.context.OpenPlace;
import org.mendedleaf.desktop.context.PutOptions;
import org.mendedleaf.desktop.context.PutService;

/** What comes into the folder that is looked at: a revision of the selected file, and files that were dropped or pasted. */
public final class FilesIntake {

    private final FilesModel screen;
    private final PutModel putting;

    FilesIntake(FilesModel screen, PutModel putting) {
        this.screen = screen;
        this.putting = putting;
    }

    /** Putting in a revision of the selected file. */
    public PutModel putting() {
        return putting;
    }

    /** Opens what puts a revision of the selected file in; with none selected, nothing. */
    public void open() {
        OpenPlace openPlace = screen.line().openPlace();
        Line selectedLine = screen.line().lineProperty().get();
        if (openPlace != null && selectedLine != null && screen.isNow()) {
            putting.open(openPlace, selectedLine);
        }
    }

    /** Hears how putting in went. */
    public PutService.Hearer hearer() {
        return new PutService.Hearer() {
            @Override
            public void doubtful(PutService.Doubt doubt) {
                putting.close();
                screen.routes().navigator().guard(doubt);
            }

            @Override
            public void done(String words, boolean undo) {
                putting.close();
                screen.say(new Message(words, undo, false));
            }

            @Override
            public void failed(Exception e) {
                screen.failed(e);
            }
        };
    }

    /** Puts one file in as the next version at a path, asking the guard first. */
    public void putOnto(Path file, String target) {
        if (screen.placeProperty().get() != null && screen.isNow()) {
            new PutService(screen.context()).put(screen.openPlace(), file, target, PutOptions.PLAIN, hearer());
        }
    }

    /**
     * Takes files that somebody dropped or pasted: one onto a file as its next version, anything else into a folder by the
     * table of what each of them is.
     *
     * @param onto the row that they were dropped on; null for the folder that is looked at
     */
    public void comeIn(List<Path> files, @Nullable FileRow onto) {
        List<Path> good = files.stream().filter(Intake::canComeIn).toList();
        if (screen.placeProperty().get() == null || good.isEmpty() || !screen.isNow()) {
            return;
        }
        boolean ontoFile = onto != null && !onto.isFolder() && !onto.isRemoved();
        if (ontoFile && onto != null && good.size() == 1 && Files.isRegularFile(good.get(0))) {
            putOnto(good.get(0), onto.path());
            return;
        }
        String into = onto == null
                ? screen.folderProperty().get()
                : onto.isFolder() ? onto.path() : RelativePath.parent(onto.path());
        screen.routes().navigator().intake(screen.openPlace(), good, into);
    }
}
