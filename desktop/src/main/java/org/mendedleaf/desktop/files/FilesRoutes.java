package org.mendedleaf.desktop.files;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.line.Hold;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.retention.Erasing;
import org.mendedleaf.desktop.context.Navigator;
import org.mendedleaf.desktop.context.OpenPlace;

/** Where the Files screen leads: to a plan, a comparison, snapshots, copies, holds and erasing, with what is selected or ticked. */
public final class FilesRoutes {

    private final FilesModel files;
    private final LineModel line;
    private Navigator navigator = Navigator.NOWHERE;

    FilesRoutes(FilesModel files) {
        this.files = files;
        this.line = files.line();
    }

    Navigator navigator() {
        return navigator;
    }

    /** Says where this screen leads to. */
    public void setNavigator(Navigator to) {
        navigator = to;
    }

    /** Goes to the plan of recovering what is ticked; with nothing ticked, the selected row. */
    public void recover() {
        chosen().ifPresent(paths -> navigator.plan(new Navigator.What(
                files.openPlace(), paths, files.momentProperty().get(), false)));
    }

    /** Goes to the plan of rolling back what is ticked; with nothing ticked, the folder that is looked at. */
    public void rollBack() {
        Instant at = files.momentProperty().get();
        if (files.placeProperty().get() != null && at != null) {
            List<String> paths = files.ticks().paths().isEmpty()
                    ? List.of(files.folderProperty().get())
                    : files.ticks().paths();
            navigator.plan(new Navigator.What(files.openPlace(), paths, at, true));
        }
    }

    private Optional<List<String>> chosen() {
        FileRow row = files.selectedProperty().get();
        if (files.placeProperty().get() == null
                || (files.ticks().paths().isEmpty() && (row == null || row.isAdded()))) {
            return Optional.empty();
        }
        return Optional.of(
                files.ticks().paths().isEmpty() && row != null
                        ? List.of(row.path())
                        : files.ticks().paths());
    }

    /** Goes to the comparison of the folder that is looked at with now. */
    public void compare() {
        if (files.placeProperty().get() != null) {
            navigator.compare(
                    files.openPlace(),
                    files.folderProperty().get(),
                    files.momentProperty().get());
        }
    }

    /** Goes to the snapshots of the place. */
    public void snapshots() {
        if (files.placeProperty().get() != null) {
            navigator.snapshots(files.openPlace(), files.folderProperty().get());
        }
    }

    /** Goes to the scattered copies in the folder that is looked at. */
    public void fold() {
        if (files.placeProperty().get() != null && files.isNow()) {
            navigator.fold(files.openPlace(), files.folderProperty().get());
        }
    }

    /** Goes to the safety copies in the folder that is looked at. */
    public void strays() {
        if (files.placeProperty().get() != null && files.isNow()) {
            navigator.strays(files.openPlace(), files.folderProperty().get());
        }
    }

    /** Goes to what erasing versions of the selected file would do. */
    void erase(Erasing.What what, int number) {
        OpenPlace of = line.openPlace();
        Line l = line.lineProperty().get();
        if (of != null && l != null) {
            navigator.erase(of, l, what, number);
        }
    }

    /**
     * Goes to a hold on the selected file.
     *
     * @param number of a version; 0 for the file
     */
    void hold(int number) {
        OpenPlace of = line.openPlace();
        Line l = line.lineProperty().get();
        if (of != null && l != null) {
            navigator.hold(of, Hold.ofFile(of.place(), l, number), l.label(number));
        }
    }

    /** Goes to a hold on the selected folder, else on the one that is looked at. */
    public void holdFolder() {
        FileRow row = files.selectedProperty().get();
        if (files.placeProperty().get() != null) {
            String path = row != null && row.isFolder()
                    ? row.path()
                    : files.folderProperty().get();
            navigator.hold(files.openPlace(), Hold.ofFolder(files.openPlace().place(), path), "");
        }
    }

    /** Goes to the safety copies beside the selected file. */
    void straysOfFile() {
        OpenPlace of = line.openPlace();
        if (of != null) {
            navigator.strays(of, RelativePath.parent(line.path()));
        }
    }
}
