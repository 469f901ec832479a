package org.mendedleaf.core.capture;

import java.io.IOException;
import java.nio.channels.Channels;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.disk.SafeFolder;

/** Folders so deep that their paths cannot be handed to the system in one piece. */
final class DeepFolder {

    private DeepFolder() {}

    static String make(Path root, String name, int depth, String file, String text) throws IOException {
        String folder = String.join("/", java.util.Collections.nCopies(depth, name));
        try (SafeFolder deep = SafeFolder.openOrCreate(root, folder, made -> {});
                FileChannel out = deep.create(file)) {
            out.write(java.nio.ByteBuffer.wrap(text.getBytes(StandardCharsets.UTF_8)));
        }
        return folder + "/" + file;
    }

    static String read(Path root, String path) throws IOException {
        try (SafeFolder deep = SafeFolder.open(root, RelativePath.parent(path));
                var in = Channels.newInputStream(deep.read(RelativePath.name(path)))) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        }
    }

    static void delete(Path root, String path) throws IOException {
        try (SafeFolder deep = SafeFolder.open(root, RelativePath.parent(path))) {
            deep.delete(RelativePath.name(path));
        }
    }

    /** Takes all of it away again, since the test's own clean-up cannot reach so deep. */
    static void deleteAll(Path root, String path) throws IOException {
        delete(root, path);
        String folder = RelativePath.parent(path);
        while (!folder.isEmpty()) {
            try (SafeFolder above = SafeFolder.open(root, RelativePath.parent(folder))) {
                above.deleteFolder(RelativePath.name(folder));
            }
            folder = RelativePath.parent(folder);
        }
    }
}
