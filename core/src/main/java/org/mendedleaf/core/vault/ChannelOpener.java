package org.mendedleaf.core.vault;

import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.file.OpenOption;
import java.nio.file.Path;

/** How pack files are opened for writing; tests put a disk that fails behind it. */
@FunctionalInterface
public interface ChannelOpener {

    /** The ordinary file system. */
    ChannelOpener FILES = FileChannel::open;

    /** Opens a file, as {@link FileChannel#open(Path, OpenOption...)}. */
    FileChannel open(Path file, OpenOption... options) throws IOException;
}
