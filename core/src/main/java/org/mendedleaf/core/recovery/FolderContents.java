package org.mendedleaf.core.recovery;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import org.mendedleaf.core.disk.DiskEntry;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.disk.SafeFolder;
import org.mendedleaf.core.line.Place;

/** What lies in a folder and below it, on the disk. */
final class FolderContents {

    private FolderContents() {}

    /** All paths but those of leftovers of ours, whatever is kept and whatever is not. */
    static List<String> of(Place place, String folder) {
        List<String> found = new ArrayList<>();
        Deque<String> open = new ArrayDeque<>(List.of(folder));
        try {
            while (!open.isEmpty()) {
                String at = open.pop();
                try (SafeFolder inside = SafeFolder.open(place.root(), at)) {
                    inside.list(new SafeFolder.Visitor() {
                        @Override
                        public void entry(String name, DiskEntry entry) {
                            if (SafeFolder.isOwnName(name)) {
                                return;
                            }
                            String path = RelativePath.child(at, name);
                            found.add(path);
                            if (entry.type() == DiskEntry.Type.FOLDER) {
                                open.push(path);
                            }
                        }

                        @Override
                        public void failed(String name, IOException why) {
                            found.add(RelativePath.child(at, name));
                        }
                    });
                }
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return found;
    }
}
